#include <cmath>

#include "book/shack.h"

// What ends an epoch, what is told of a change, and that a build that is kept up to date is the one in the
// file.

using namespace ombrek;

namespace {

Reading readingOf(const std::string& ref, double value) {
    return {0, Subject::part(ref), value, Unit::ohm, 40, {}, "typed", 0};
}

}  // namespace

TEST_CASE("a reading keeps its circumstances") {
    TestShack shack;
    {
        auto book = shack.begun();
        Reading r{0,       Subject::adjustment("rx"),
                  0.5,     Unit::volt,
                  1e-3,    {{"position", 0.1}, {"supply", 13.8}},
                  "typed", 0};
        r.meter = "the grey one";
        r.sheet = "0.5 % + 2 digits of 6000";
        r.who = "Mara";
        REQUIRE(book->takeReading(r));
    }
    const Reading back = shack.open()->build()->readings.front();
    CHECK(back.setting(kPosition) == 0.1);
    CHECK(back.setting(kSupply) == 13.8);
    CHECK(back.setting("attenuation", -1) == -1);
    CHECK(back.meter == "the grey one");
    CHECK(back.sheet == "0.5 % + 2 digits of 6000");
    CHECK(back.who == "Mara");
    CHECK(back.at == shack.now);
}

TEST_CASE("a repair ends the epoch of what was mended, and is kept") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->takeReading(readingOf("R1", 4.7e3)));
    REQUIRE(book->takeReading(readingOf("R2", 1e3)));
    shack.now += 60;
    REQUIRE(book->repaired({0, "R1", "burnt", "a new one"}));
    const Build build = *book->build();
    CHECK(build.last(Subject::part("R1")) == nullptr);
    CHECK(build.last(Subject::part("R2"))->value == 1e3);
    CHECK(build.readings.size() == 2);
    REQUIRE(build.repairs.size() == 1);
    CHECK(build.repairs[0].at == shack.now);
    CHECK(build.repairs[0].found == "burnt");
    CHECK(build.repairs[0].done == "a new one");
    CHECK(build.changes.front().how == "repaired");
    REQUIRE(book->takeReading(readingOf("R1", 4.71e3)));
    CHECK(book->build()->last(Subject::part("R1"))->value == 4.71e3);
    REQUIRE(book->undo());
    REQUIRE(book->undo());
    CHECK(book->build()->repairs.empty());
    CHECK(book->build()->last(Subject::part("R1"))->value == 4.7e3);
}

TEST_CASE("every change of a thing is kept, not the last alone") {
    TestShack shack;
    auto book = shack.begun();
    for (int i = 0; i < 3; ++i) {
        REQUIRE(book->countTurn("T1", "main"));  // no reading lies between two turns: one change
        REQUIRE(book->countTurn("T1", "main"));
        REQUIRE(book->takeReading({0, Subject::coil("T1"), 1e-6, Unit::henry, 0, {}, "typed", 0}));
    }
    REQUIRE(book->bent("T1", 1.0));
    const Build build = *book->build();
    REQUIRE(build.changes.size() == 3);
    CHECK(build.changes[0].how == "wound");
    CHECK(build.changes[2].how == "squeezed or spread");
    CHECK(build.last(Subject::coil("T1")) == nullptr);
}

TEST_CASE("a part that moves to another line takes its reading: both lines keep what was read there") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->takeReading(readingOf("R1", 4.7e3)));
    REQUIRE(book->takeReading(readingOf("R2", 1e3)));
    const std::int64_t taken = shack.now;
    shack.now += 60;
    REQUIRE(book->movePart("R1", "R2", PartKind::resistor));
    const Build build = *book->build();
    CHECK(build.last(Subject::part("R1")) == nullptr);
    CHECK(build.last(Subject::part("R2"))->value == 4.7e3);
    CHECK(build.last(Subject::part("R2"))->at == taken);
    CHECK(build.readings.size() == 3);
    REQUIRE(build.loose.size() == 1);
    CHECK(build.loose[0].value == 1e3);
    REQUIRE(book->undo());
    CHECK(book->build()->last(Subject::part("R1"))->value == 4.7e3);
    CHECK(book->build()->last(Subject::part("R2"))->value == 1e3);
}

TEST_CASE("a notice names what was written, and nothing else") {
    TestShack shack;
    auto book = shack.begun();
    Book::Notice told;
    book->onChange([&](const Book::Notice& notice) { told = notice; });
    REQUIRE(book->takeReading(readingOf("R1", 4.7e3)));
    CHECK(told.added.contains("reading"));
    CHECK_FALSE(told.changed.contains("reading"));
    CHECK_FALSE(told.touches("winding"));
    REQUIRE(book->countTurn("T1", "main"));
    CHECK(told.touches("winding"));
    CHECK_FALSE(told.touches("reading"));
    REQUIRE(book->undo());
    CHECK(told.touches("winding"));
    REQUIRE(book->undo());
    CHECK(told.changed.contains("reading"));
}

TEST_CASE("a build that is brought up to date is the one in the file, through any actions") {
    TestShack shack;
    auto book = shack.begun();
    Build kept = *book->build();
    bool anew = false;
    book->onChange([&](const Book::Notice& notice) {
        if (book->reread(kept, notice)) return;
        anew = true;
        kept = *book->build();
    });
    const auto same = [&] {
        const Build now = *book->build();
        REQUIRE(kept.readings.size() == now.readings.size());
        for (std::size_t i = 0; i < now.readings.size(); ++i) {
            CHECK(kept.readings[i].id == now.readings[i].id);
            CHECK(kept.readings[i].value == now.readings[i].value);
        }
        CHECK(kept.parts == now.parts);
        CHECK(kept.printed == now.printed);
        CHECK(kept.coilChecks == now.coilChecks);
        CHECK(kept.windings.size() == now.windings.size());
        CHECK(kept.winding("T1", "main").turns == now.winding("T1", "main").turns);
        CHECK(kept.changes.size() == now.changes.size());
        CHECK(kept.repairs.size() == now.repairs.size());
        CHECK(kept.steps.size() == now.steps.size());
        CHECK(kept.loose.size() == now.loose.size());
        CHECK(kept.findings.size() == now.findings.size());
        CHECK(kept.order == now.order);
        CHECK(kept.kitText == now.kitText);
        for (const char* ref : {"R1", "R2", "R3"}) {
            const Reading *a = kept.last(Subject::part(ref)), *b = now.last(Subject::part(ref));
            REQUIRE((a == nullptr) == (b == nullptr));
            if (a != nullptr) CHECK(a->id == b->id);
        }
    };
    const std::vector<std::function<Result<void>()>> acts{
        [&] { return book->takeReading(readingOf("R1", 100)); },
        [&] { return book->takeReading(readingOf("R2", 200)); },
        [&] { return book->movePart("R1", "R3", PartKind::resistor); },
        [&] {
            return book->markParts({"R1", "R2"}, PartMark::trusted);
        },
        [&] { return book->readMark("R2", "4k7", true); },
        [&] { return book->countTurn("T1", "main"); },
        [&] { return book->checkCoil("T1/strip", "scraped"); },
        [&] {
            return book->repaired({0, "R2", "broken", "soldered"});
        },
        [&] { return book->doStep("s1"); },
        [&] { return book->found("R1", Finding::What::dry); },
        [&] {
            return book->keepLoose({0, PartKind::diode, "D", NAN, 0});
        },
        [&] { return book->chooseOrder(Order::byKind); },
        [&] { return book->changeKit("{\"x\":1}", "places"); },
        [&] { return book->prefer("hand", "left"); }};
    for (const auto& act : acts) {
        REQUIRE(act());
        same();
    }
    for (std::size_t i = 0; i < acts.size(); ++i) {
        REQUIRE(book->undo());
        same();
    }
    for (std::size_t i = 0; i < acts.size(); ++i) {
        REQUIRE(book->redo());
        same();
    }
    CHECK_FALSE(anew);  // this build all along
    REQUIRE(book->startBuild("Second", "{}"));
    CHECK(anew);
    CHECK(kept.readings.empty());
    REQUIRE(book->undo());
    same();
}

TEST_CASE(
    "an import that is taken back is hidden at once, comes again, and goes when the book is opened next") {
    TestShack shack;
    std::vector<StockLine> lines(5000);
    for (std::size_t i = 0; i < lines.size(); ++i) lines[i].count = int(i);
    {
        auto book = shack.begun();
        REQUIRE(book->addStock({lines[7]}));
        REQUIRE(book->importStock(lines, {}));
        CHECK(book->stockSize() == 5001);
        REQUIRE(book->undo());
        CHECK(book->stockSize() == 1);
        CHECK(book->stock().size() == 1);
        REQUIRE(book->redo());
        CHECK(book->stockSize() == 5001);
        REQUIRE(book->undo());
    }
    {
        auto book = shack.open();  // may still be done again
        CHECK(book->stockSize() == 1);
        REQUIRE(book->redo());
        CHECK(book->stockSize() == 5001);
        REQUIRE(book->undo());
        REQUIRE(book->prefer("hand", "left"));  // from now on not any more
    }
    auto book = shack.open();
    CHECK(book->stockSize() == 1);
    SQLite::Database db(shack.file.string(), SQLite::OPEN_READONLY, 2000);
    CHECK(db.execAndGet("SELECT count(*) FROM stock").getInt() == 1);
}
