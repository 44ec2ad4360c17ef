#include <array>

#include "book/migrations.h"
#include "book/records.h"
#include "book/schema.h"
#include "book/shack.h"

// Books as released versions wrote them (old/version-N.ombrek: the practice bench's, with one row of every
// choice beside it), opened by this one. What an old file holds is read from it with its own words.

using namespace ombrek;
namespace fs = std::filesystem;

namespace {

/// How versions 1 to 4 numbered the units.
constexpr std::array<Unit, 16> kOldUnits{Unit::none,    Unit::ohm,    Unit::farad,   Unit::henry,
                                         Unit::volt,    Unit::ampere, Unit::watt,    Unit::hertz,
                                         Unit::metre,   Unit::second, Unit::celsius, Unit::percent,
                                         Unit::decibel, Unit::dbm,    Unit::ppm,     Unit::degree};

fs::path stored(int version) {
    return fs::path(OMBREK_BOOKS) / ("version-" + std::to_string(version) + ".ombrek");
}

/// Tables with their columns, for comparison.
std::map<std::string, std::set<std::string>> layout(SQLite::Database& db) {
    std::map<std::string, std::set<std::string>> out;
    SQLite::Statement q(
        db, "SELECT m.name, c.name FROM sqlite_master m, pragma_table_info(m.name) c WHERE m.type='table'");
    while (q.executeStep()) out[q.getColumn(0).getString()].insert(q.getColumn(1).getString());
    return out;
}

/// The hash of Fowler, Noll and Vo, 64 bits.
std::uint64_t fnv1a(const std::string& text) {
    std::uint64_t out = 1469598103934665603ULL;
    for (const unsigned char c : text) out = (out ^ c) * 1099511628211ULL;
    return out;
}

}  // namespace

TEST_CASE("a book of every released version opens with all that is in it, and is worked on") {
    const int version = GENERATE(1, 2, 3, 4);
    INFO("version " << version);
    TestShack shack;
    fs::copy_file(stored(version), shack.file);
    SQLite::Database old(stored(version).string(), SQLite::OPEN_READONLY, 2000);
    REQUIRE(old.execAndGet("PRAGMA user_version").getInt() == version);
    auto book = shack.open();
    REQUIRE_FALSE(book->readOnly());
    const Build build = *book->build();

    SQLite::Statement head(old, "SELECT kit_text, started FROM build WHERE id=(SELECT build FROM chosen)");
    REQUIRE(head.executeStep());
    CHECK(build.kitText == head.getColumn(0).getString());
    CHECK(build.kitText.size() > 1000);
    CHECK(build.started == head.getColumn(1).getInt64());
    CHECK(build.order == Order::byKind);
    CHECK(build.rule == VerdictRule::simple);

    SQLite::Statement q(old,
                        "SELECT subject, value, unit, uncertainty, setting, at FROM reading ORDER BY id");
    std::size_t i = 0;
    for (; q.executeStep(); ++i) {
        REQUIRE(i < build.readings.size());
        const Reading& r = build.readings[i];
        CHECK(r.subject.text() == q.getColumn(0).getString());
        CHECK(r.value == q.getColumn(1).getDouble());
        CHECK(r.unit == kOldUnits.at(std::size_t(q.getColumn(2).getInt())));
        CHECK(r.uncertainty == q.getColumn(3).getDouble());
        CHECK(r.at == q.getColumn(5).getInt64());
        if (r.subject.is(Subject::Kind::adjustment))
            CHECK(r.setting(kPosition, -1) == q.getColumn(4).getDouble());
        if (r.subject.is(Subject::Kind::coil)) CHECK(r.setting(kTurns, 0) == q.getColumn(4).getDouble());
    }
    CHECK(i == build.readings.size());
    CHECK(i > 50);
    const auto power = build.all(Subject::power());
    REQUIRE(power.size() >= 4);
    CHECK(power[power.size() - 4].settings.empty());  // from peak to peak
    CHECK(power[power.size() - 3].setting("diode drop") == 0.35);
    CHECK(power[power.size() - 2].setting("correction") == 1.2);
    CHECK(power[power.size() - 1].setting("attenuation") == 30);
    CHECK(build.windings.size() == std::size_t(old.execAndGet("SELECT count(*) FROM winding").getInt()));
    CHECK(build.steps.size() == std::size_t(old.execAndGet("SELECT count(*) FROM step").getInt()));

    if (version >= 2) {
        CHECK(build.way == BagWay::byPlan);
        CHECK(build.depth == BagDepth::trustBag);
        CHECK(build.parts.at("R1") == PartMark::missing);
        CHECK(build.loose.back().kind == PartKind::transistor);
        CHECK(std::isnan(build.loose.back().value));
        CHECK(build.remedies.at("R1").how == Remedy::How::supplier);
        CHECK(book->stock().back() == StockLine{book->stock().back().id, "B2", PartKind::capacitor, 2.2e-8,
                                                Unit::farad, 5, 50, 0, "film", 7});
        const auto meters = book->meters();
        CHECK(std::any_of(meters.begin(), meters.end(), [](const MeterLine& m) {
            return m.name == "grey" && m.unit == Unit::ohm && std::isinf(m.high);
        }));
    }
    if (version >= 3) {
        CHECK(build.findings.back().what == Finding::What::flux);
        CHECK(build.senses.at("Q1") == 100);
        CHECK(book->photo(build.photos.back().id) == "\xff\xd8");
    }
    if (version >= 4) {
        CHECK(book->photo(build.photos[build.photos.size() - 2].id) == "\xff\xd7");
        CHECK(build.changedAfter(Subject::coil("T9")) == 3);
    }

    CHECK_FALSE(book->oldestUndo());  // what an older Ombrek did cannot be taken back any more
    REQUIRE(book->countTurn("T1", "antenna link"));
    REQUIRE(book->repaired({0, "R1", "burnt", "a new one"}));
    REQUIRE(book->undo());
    REQUIRE(book->undo());
    CHECK(book->build()->winding("T1", "antenna link").turns == build.winding("T1", "antenna link").turns);
}

TEST_CASE("an old book that is only looked at stays as it is") {
    const int version = GENERATE(1, 4);
    TestShack shack;
    fs::copy_file(stored(version), shack.file);
    auto holder = WriterLock::take(shack.file);
    REQUIRE(holder);
    auto book = shack.open();
    CHECK(book->readOnly());
    CHECK(book->build()->order == Order::byKind);
    SQLite::Database db(shack.file.string(), SQLite::OPEN_READONLY);
    CHECK(db.execAndGet("PRAGMA user_version").getInt() == version);
}

TEST_CASE(
    "a book of version 5 opens with its repairs and reasons, and what was done can still be taken back") {
    TestShack shack;
    fs::copy_file(stored(5), shack.file);
    auto book = shack.open();
    REQUIRE_FALSE(book->readOnly());
    const Build build = *book->build();
    CHECK(build.readings.size() > 50);
    REQUIRE(build.repairs.size() == 1);
    CHECK(build.repairs[0].ref == "R62");
    CHECK(build.repairs[0].done == "a new one");
    CHECK_FALSE(build.repairs[0].open());
    CHECK(build.repairs[0].noticed.empty());
    CHECK(build.gates.at("parts").reason == "bought elsewhere");
    CHECK(build.gates.at("parts").forbids.empty());
    for (const StockLine& line : book->stock()) CHECK(line.drawer != "Z9");  // an import that was taken back
    CHECK(book->contacts().empty());
    const std::string last = book->undoName();
    CHECK_FALSE(last.empty());
    REQUIRE(book->undo());
    REQUIRE(book->redo());
    CHECK(book->build()->readings.size() == build.readings.size());
}

TEST_CASE("a book of version 6 opens with its data sheets and its log, and a sheet can still be taken back") {
    TestShack shack;
    fs::copy_file(stored(6), shack.file);
    auto book = shack.open();
    REQUIRE_FALSE(book->readOnly());
    const auto line = [&](double from) {
        for (const MeterLine& m : book->meters()) {
            if (m.name == "grey" && m.unit == Unit::volt && m.low == from) return m;
        }
        FAIL("no line from " << from);
        return MeterLine();
    };
    CHECK(line(0).percent == 0.3);
    CHECK(line(0).zero == 0.001);
    CHECK(std::isinf(line(0).most));
    CHECK(line(60).percent == 1.5);
    CHECK(book->preference("instruments") == "10.0.0.7:5025");
    CHECK(book->instruments().size() == 1);
    REQUIRE(book->contacts().size() == 1);
    CHECK(book->contacts()[0].call == "X0TEST");
    // A report that version 6 signed still agrees: the length and FNV-1a of the state as version 6 told it.
    CHECK(book->state().size() == 80419);
    CHECK(fnv1a(book->state()) == 0xcfa5b02c7650a367ULL);
    CHECK(book->undoName() == "data sheet of the grey");
    REQUIRE(book->undo());
    CHECK(line(60).percent == 0.9);
    REQUIRE(book->redo());
    CHECK(line(60).percent == 1.5);
}

TEST_CASE("a book of version 7 opens with what was chosen among its gates, and a report of it still agrees") {
    TestShack shack;
    fs::copy_file(stored(7), shack.file);
    auto book = shack.open();
    REQUIRE_FALSE(book->readOnly());
    const Build build = *book->build();
    CHECK(build.chosen(Choice::tuningOrder) == "common");
    CHECK(build.chosen(Choice::backOff) == "-2.0 %");
    CHECK(build.chosen(Choice::wantedRange) == "7.000M 7.060M");
    CHECK(build.chosen(Choice::mode) == "DSB");
    CHECK(build.gates.size() == 4);  // three looks before power, and the load
    CHECK(build.gates.at("load").reason == "on");
    CHECK(book->paper("coils") == "L9 12 turns T37-2\n");
    CHECK(book->preference("paper coils of build 1").empty());
    // As version 7 told it.
    CHECK(book->state().size() == 23805);
    CHECK(fnv1a(book->state()) == 0x7f3c2600298538a5ULL);
    // What was done to a thing that stands elsewhere now cannot be taken back; the rest can.
    CHECK(book->undoName() == "remark on s1");
    REQUIRE(book->undo());
    CHECK(book->undoName() == "passing of gate load");
    REQUIRE(book->undo());
    CHECK_FALSE(book->build()->gates.contains("load"));
    CHECK(book->build()->chosen(Choice::mode) == "DSB");
    CHECK(book->undoName() == "reading of 180.000");
    // A later choice is of this version, and is taken back.
    REQUIRE(book->choose(Choice::mode, "CW"));
    CHECK(book->build()->chosen(Choice::mode) == "CW");
    CHECK(book->undoName() == "choice of the mode");
    REQUIRE(book->undo());
    CHECK(book->build()->chosen(Choice::mode) == "DSB");
}

TEST_CASE("a book that was brought up to date has the tables and triggers of a new one") {
    const int version = GENERATE(1, 2, 3, 4, 5, 6, 7);
    INFO("version " << version);
    TestShack shack;
    fs::copy_file(stored(version), shack.file);
    shack.open();
    SQLite::Database fresh(":memory:", SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    makeSchema(fresh);
    SQLite::Database brought(shack.file.string(), SQLite::OPEN_READONLY, 2000);
    CHECK(layout(brought) == layout(fresh));
    const char* triggers =
        "SELECT group_concat(name || sql) FROM (SELECT name, sql FROM sqlite_master WHERE "
        "type='trigger' ORDER BY name)";
    CHECK(brought.execAndGet(triggers).getString() == fresh.execAndGet(triggers).getString());
}

TEST_CASE("an old book with a row that no Ombrek writes is refused and left as it is") {
    TestShack shack;
    fs::copy_file(stored(4), shack.file);
    {
        SQLite::Database db(shack.file.string(), SQLite::OPEN_READWRITE, 2000);
        db.exec("UPDATE reading SET unit=99 WHERE id=(SELECT min(id) FROM reading)");
    }
    const auto book = Book::open(shack.file);
    REQUIRE_FALSE(book);
    CHECK(book.error().text().find("\"reading\" has a \"unit\" that no Ombrek writes") != std::string::npos);
    SQLite::Database db(shack.file.string(), SQLite::OPEN_READONLY, 2000);
    CHECK(db.execAndGet("PRAGMA user_version").getInt() == 4);
    CHECK(db.execAndGet("SELECT count(*) FROM reading WHERE unit=99").getInt() == 1);
    const auto rows = Book::rescue(shack.file, shack.folder / "copy.ombrek");
    REQUIRE(rows);
    const Build rescued = *Book::open(shack.folder / "copy.ombrek").value()->build();
    CHECK(rescued.windings.size() > 2);
    CHECK(rescued.readings.size() > 50);  // all but the one
    CHECK(rescued.kitText.size() > 1000);
}
