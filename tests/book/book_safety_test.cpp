#include <fcntl.h>
#include <signal.h>
#include <sys/resource.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>
#include <fstream>
#include <thread>

#include "core/quantity/shown.h"
#include "shack.h"

using namespace ombrek;
namespace fs = std::filesystem;

namespace {

/// Do something in a child that may write nothing outside what it is given, also where the tests run as root.
/// @return its exit code
int asNobody(const std::function<int()>& act) {
    const pid_t child = ::fork();
    if (child == 0) {
        if (::geteuid() == 0 && (::setgid(65534) != 0 || ::setuid(65534) != 0)) ::_exit(90);
        ::_exit(act());
    }
    int status = 0;
    ::waitpid(child, &status, 0);
    return WIFEXITED(status) ? WEXITSTATUS(status) : -WTERMSIG(status);
}

/// A book that was killed with turns still in its write-ahead log.
void killedWithTurns(TestShack& shack, int turns) {
    shack.begun();
    const pid_t child = ::fork();
    if (child == 0) {
        auto book = Book::open(shack.file);
        if (!book) ::_exit(1);
        for (int i = 0; i < turns; ++i) (void)(*book)->countTurn("T1", "main");
        ::kill(::getpid(), SIGKILL);
    }
    int status = 0;
    ::waitpid(child, &status, 0);
    REQUIRE(WIFSIGNALED(status));
    REQUIRE(fs::file_size(shack.file.string() + "-wal") > 0);
}

void damage(const fs::path& file, const std::string& sql) {
    SQLite::Database db(file.string(), SQLite::OPEN_READWRITE, 2000);
    db.exec(sql);
}

const Reading kReading{0, Subject::part("R1"), 4.7e3, Unit::ohm, 40, {}, "typed", 0};

}  // namespace

TEST_CASE("overloads and bounds are kept, through undo and redo") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->takeReading({0, Subject::check("a"), INFINITY, Unit::ohm, 0, {}, "typed", 0, true}));
    REQUIRE(book->takeReading({0, Subject::check("b"), 20e6, Unit::ohm, 0, {}, "typed", 0, true}));
    for (int round = 0; round < 2; ++round) {
        CHECK(std::isinf(book->build()->last(Subject::check("a"))->value));
        CHECK(book->build()->last(Subject::check("b"))->beyond);
        CHECK(book->build()->last(Subject::check("b"))->value == 20e6);
        REQUIRE(book->undo());
        REQUIRE(book->undo());
        CHECK(book->build()->readings.empty());
        REQUIRE(book->redo());
        REQUIRE(book->redo());
    }
}

TEST_CASE("a slip that an older book kept is no number any more") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->takeReading({0, Subject::coil("T1"), 1e-20, Unit::henry, 0, {}, "typed", 0}));
    REQUIRE(book->takeReading(
        {0, Subject::power(), 4000, Unit::dbm, -1, {{"attenuation", NAN}}, "attenuator", 0}));
    CHECK(std::isnan(book->build()->last(Subject::coil("T1"))->value));
    const Reading power = *book->build()->last(Subject::power());
    CHECK(std::isnan(power.value));
    CHECK(power.settings.empty());
    CHECK(power.uncertainty >= 0);
}

TEST_CASE("what is changed ends what was read of it: nothing is deleted") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->setTurns("T1", "main", 18));
    REQUIRE(book->finishWinding("T1", "main"));
    REQUIRE(book->checkCoil("T1/strip", "scrape"));
    REQUIRE(book->takeReading({0, Subject::coil("T1"), 1e-6, Unit::henry, 0, {{"turns", 18}}, "typed", 0}));
    REQUIRE(book->finishWinding("T1", "main", false));
    CHECK(book->build()->last(Subject::coil("T1")) == nullptr);
    CHECK(book->build()->readings.size() == 1);
    CHECK_FALSE(book->build()->coilChecks.contains("T1/strip"));
    REQUIRE(book->undo());
    CHECK(book->build()->last(Subject::coil("T1")) != nullptr);
    CHECK(book->build()->coilChecks.contains("T1/strip"));
    REQUIRE(book->bent("T1", 1.03));
    REQUIRE(book->bent("T1", 0.99));
    CHECK(book->build()->last(Subject::coil("T1")) == nullptr);
    CHECK(book->build()->practice.at("coil:T1") == Approx(1.03 * 0.99));
}

TEST_CASE("what is replaced from a drawer becomes a part over, whatever its kind") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->addStock({{0, "A1", PartKind::capacitor, 22e-9, Unit::farad, 5, 50, 0, "", 3}}));
    REQUIRE(book->takeReading({0, Subject::part("C2"), 33e-9, Unit::farad, 1e-10, {}, "typed", 0}));
    REQUIRE(book->readMark("C2", "333", false));
    REQUIRE(book->promise("C2", {1}, "from A1"));
    REQUIRE(book->takePromised("C2", PartKind::capacitor));
    REQUIRE(book->build()->loose.size() == 1);
    const LoosePart over = book->build()->loose[0];
    CHECK(over.kind == PartKind::capacitor);
    CHECK(over.value == 33e-9);
    CHECK(over.printed == "333");
    CHECK(book->build()->last(Subject::part("C2")) == nullptr);  // the new one waits to be measured
    REQUIRE(book->markPart("Q1", PartMark::seen));
    REQUIRE(book->readMark("Q1", "NPN 45", false));
    REQUIRE(book->takePromised("Q1", PartKind::transistor));
    CHECK(book->build()->loose.back().kind == PartKind::transistor);
    CHECK(book->build()->loose.back().printed == "NPN 45");
    REQUIRE(book->markPart("R9", PartMark::missing));
    REQUIRE(book->takePromised("R9", PartKind::resistor));  // nothing lay there
    CHECK(book->build()->loose.size() == 2);
}

TEST_CASE("a list draft is kept with what was said of it, until the kit begins: undo brings it back") {
    TestShack shack;
    {
        auto book = shack.open();
        REQUIRE(book->keepListDraft({"lamp", "clipboard", std::string("R1 4k7\0x", 8), {}}));
        REQUIRE(book->editListDraft({1000, "again", "R1 4k7 5%"}));
        REQUIRE(book->editListDraft({2000, "right", ""}));
        REQUIRE(book->editListDraft({1000, "out", ""}));
    }
    auto book = shack.open();
    const auto draft = book->listDraft();
    REQUIRE(draft);
    CHECK(draft->source.size() == 8);
    REQUIRE(draft->edits.size() == 2);
    CHECK(draft->edits[1].how == "out");
    REQUIRE(book->startBuild("lamp", "{}"));
    CHECK_FALSE(book->listDraft());
    REQUIRE(book->undo());
    CHECK(book->listDraft()->edits.size() == 2);
}

TEST_CASE("books with missing tables, columns or choices that no Ombrek makes are refused, and rescued") {
    const std::vector<std::string> wounds{"DROP TABLE gate",
                                          "DROP TABLE stock",
                                          "DROP TABLE chosen",
                                          "DROP TABLE sitting",
                                          "DROP TABLE undo_step",
                                          "DROP TABLE action_in_hand",
                                          "DROP TABLE epoch",
                                          "DROP TABLE meter",
                                          "DROP TABLE preference",
                                          "UPDATE build SET build_order=99",
                                          "UPDATE build SET way=-1",
                                          "UPDATE build SET depth='deep'",
                                          "UPDATE reading SET unit=77",
                                          "UPDATE part SET mark=9",
                                          "UPDATE finding SET what=-4",
                                          "UPDATE remedy SET how=12",
                                          "UPDATE stock SET kind=1000",
                                          "ALTER TABLE photo RENAME COLUMN data TO other"};
    for (const std::string& wound : wounds) {
        INFO(wound);
        TestShack shack;
        {
            auto book = shack.begun();
            REQUIRE(book->takeReading(kReading));
            REQUIRE(book->markPart("J1", PartMark::seen));
            REQUIRE(book->found("R1", Finding::What::dry));
            REQUIRE(book->decide("R1", {Remedy::How::shopping, ""}));
            REQUIRE(book->addStock({{0, "A1", PartKind::resistor, 1, Unit::ohm, 5, 0, 0, "", 1}}));
        }
        damage(shack.file, wound);
        const auto book = Book::open(shack.file);
        REQUIRE_FALSE(book);
        CHECK(book.error().sentence.find("damaged") != std::string::npos);
        CHECK(book.error().sentence.find("-wal") != std::string::npos);
        const fs::path copy = shack.folder / "copy.ombrek";
        const auto rows = Book::rescue(shack.file, copy);
        REQUIRE(rows);
        CHECK(rows->rows() > 3);
        const auto rescued = Book::open(copy);
        REQUIRE(rescued);
        REQUIRE((*rescued)->build());
        CHECK((*rescued)->countTurn("T1", "main"));
        const bool readings = wound.find("reading") == std::string::npos;
        if (readings) CHECK((*rescued)->build()->readings.size() == 1);
        CHECK_FALSE(Book::rescue(shack.file, copy));  // never over a file
    }
    TestShack shack;
    std::ofstream(shack.file) << "no book at all";
    CHECK_FALSE(Book::rescue(shack.file, shack.folder / "none.ombrek"));
    CHECK_FALSE(fs::exists(shack.folder / "none.ombrek"));
}

TEST_CASE(
    "a name with signs of a web address is a name like any other, also in a folder that cannot be written") {
    TestShack shack;
    const fs::path folder = shack.folder / "read only";
    fs::create_directory(folder);
    ::chmod(shack.folder.c_str(), 0755);
    for (const char* name : {"what?.ombrek", "no#1.ombrek", "50%25.ombrek", "a b&c=d.ombrek", "ü.ombrek"}) {
        INFO(name);
        shack.file = folder / name;
        shack.begun();
        ::chmod(shack.file.c_str(), 0644);
        for (const char* beside : {"-wal", "-shm"}) fs::remove(shack.file.string() + beside);
        ::chmod(folder.c_str(), 0555);
        CHECK(asNobody([&] {
                  const auto book = Book::open(shack.file);
                  if (!book) return 1;
                  if (!(*book)->readOnly() ||
                      (*book)->readOnlyReason().find("folder cannot be written") == std::string::npos)
                      return 2;
                  return (*book)->build() ? 0 : 3;
              }) == 0);
        ::chmod(folder.c_str(), 0755);
    }
}

TEST_CASE("turns that a crash left in the log are seen in a folder that cannot be written") {
    TestShack shack;
    killedWithTurns(shack, 4);
    ::chmod(shack.file.c_str(), 0644);
    ::chmod((shack.file.string() + "-wal").c_str(), 0644);
    fs::remove(shack.file.string() + "-shm");
    ::chmod(shack.folder.c_str(), 0555);
    const int code = asNobody([&] {
        const auto book = Book::open(shack.file);
        if (!book) return 1;
        if (!(*book)->readOnly()) return 2;
        return 10 + (*book)->build()->winding("T1", "main").turns;
    });
    ::chmod(shack.folder.c_str(), 0755);
    CHECK(code == 14);
}

TEST_CASE("a lock that somebody else left does not lock for ever") {
    TestShack shack;
    shack.begun();
    const fs::path lock = shack.folder / ".shack.ombrek.lock";
    REQUIRE(fs::exists(lock));
    ::chmod(lock.c_str(), 0444);
    ::chmod(shack.file.c_str(), 0666);
    ::chmod(shack.folder.c_str(), 0777);
    CHECK(asNobody([&] {
              const auto book = Book::open(shack.file);
              if (!book) return 1;
              return (*book)->readOnly() ? 2 : (*book)->countTurn("T1", "main") ? 0 : 3;
          }) == 0);
    ::chmod(lock.c_str(), 0000);
    CHECK(asNobody([&] {
              const auto book = Book::open(shack.file);
              if (!book) return 1;
              return (*book)->readOnlyReason().find(".lock") != std::string::npos ? 0 : 2;
          }) == 0);
}

TEST_CASE("a hard link is the same book: under its other name it is not opened while it is open") {
    TestShack shack;
    shack.begun();
    const fs::path other = shack.folder / "linked" / "twin.ombrek";
    fs::create_directory(other.parent_path());
    fs::create_hard_link(shack.file, other);
    {
        const auto first = Book::open(shack.file);
        REQUIRE(first);
        REQUIRE_FALSE((*first)->readOnly());
        const auto second = Book::open(other);
        REQUIRE_FALSE(second);
        CHECK(second.error().sentence.find("under another name") != std::string::npos);
        const auto again = Book::open(shack.file);  // the same name can be looked at
        REQUIRE(again);
        CHECK((*again)->readOnly());
        CHECK((*first)->countTurn("T1", "main"));
    }
    const auto later = Book::open(other);
    REQUIRE(later);
    CHECK_FALSE((*later)->readOnly());
    CHECK((*later)->build()->winding("T1", "main").turns == 1);
}

TEST_CASE("a full disk is no damage: the book can be looked at, with what was written last") {
    const bool index = GENERATE(true, false);  // of the log, which a new start would have to make again
    CAPTURE(index);
    TestShack shack;
    killedWithTurns(shack, 2);
    if (!index) fs::remove(shack.file.string() + "-shm");
    const pid_t child = ::fork();
    if (child == 0) {
        ::signal(SIGXFSZ, SIG_IGN);
        const rlimit none{1, RLIM_INFINITY};
        ::setrlimit(RLIMIT_FSIZE, &none);
        const auto book = Book::open(shack.file);
        if (!book) ::_exit(book.error().sentence.find("damaged") != std::string::npos ? 1 : 2);
        if (!(*book)->build()) ::_exit(3);
        ::_exit((*book)->build()->winding("T1", "main").turns == 2 ? 0 : 4);
    }
    int status = 0;
    ::waitpid(child, &status, 0);
    CHECK(WEXITSTATUS(status) == 0);
    const auto later = Book::open(shack.file);  // with room again
    REQUIRE(later);
    CHECK_FALSE((*later)->readOnly());
    CHECK((*later)->build()->winding("T1", "main").turns == 2);
}

TEST_CASE("a book that is moved, deleted or replaced while open goes on in a rescue copy") {
    for (const std::string how : {"moved", "deleted", "replaced"}) {
        INFO(how);
        TestShack shack;
        auto book = shack.begun();
        for (int i = 0; i < 3; ++i) REQUIRE(book->countTurn("T1", "main"));
        CHECK(book->lookForFile());
        int told = 0;
        book->onChange([&](const Book::Notice&) { ++told; });
        if (how == "moved") fs::rename(shack.file, shack.folder / "elsewhere.ombrek");
        if (how == "deleted") fs::remove(shack.file);
        if (how == "replaced") {
            std::ofstream(shack.folder / "other") << "something else";
            fs::rename(shack.folder / "other", shack.file);
        }
        // A turn counted before anybody looked is not lost either.
        REQUIRE(book->countTurn("T1", "main"));
        CHECK(book->rescuedTo().find("rescued") != std::string::npos);
        CHECK(book->path() != shack.file);
        CHECK_FALSE(book->readOnly());
        REQUIRE(book->countTurn("T1", "main"));
        CHECK(book->lookForFile());
        CHECK(told >= 2);
        const fs::path copy = book->path();
        book.reset();
        const auto again = Book::open(copy);
        REQUIRE(again);
        CHECK((*again)->build()->winding("T1", "main").turns == 5);
        CHECK((*again)->undo());
    }
}

TEST_CASE("a book that is written over while open says so and nothing throws") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->countTurn("T1", "main"));
    std::ofstream(shack.file, std::ios::binary | std::ios::trunc) << std::string(20000, 'x');
    CHECK_FALSE(book->lookForFile());
    CHECK(book->readOnly());
    CHECK(book->readOnlyReason().find("written over") != std::string::npos);
    CHECK_FALSE(book->countTurn("T1", "main"));
    CHECK_NOTHROW(book->build());
    CHECK_NOTHROW(book->stock());
    CHECK_NOTHROW(book->builds());
    CHECK_NOTHROW(book->meters());
    CHECK_NOTHROW(book->promises());
    CHECK_NOTHROW(book->preference("hand"));
    CHECK_NOTHROW(book->undoName());
    CHECK_NOTHROW(book->photo(1));
    CHECK_NOTHROW(book->listDraft());
}

TEST_CASE("counting goes on while a long import runs, and both are kept") {
    TestShack shack;
    auto book = shack.begun();
    std::vector<StockLine> lines(20000, {0, "A1", PartKind::resistor, 1, Unit::ohm, 5, 0, 0, "", 1});
    std::atomic<bool> done{false};
    Result<void> imported;
    std::thread work([&] {
        imported = book->importStock(lines, [](double) { return true; });
        done = true;
    });
    int turns = 0;
    std::size_t seen = 0;
    while (!done || turns < 5) {
        REQUIRE(book->countTurn("T1", "main"));
        ++turns;
        if (!done) seen = std::max(seen, book->stockSize());
    }
    work.join();
    REQUIRE(imported);
    CHECK((seen == 0 || seen == lines.size()));  // nothing half-way is shown
    CHECK(book->stockSize() == lines.size());
    CHECK(book->build()->winding("T1", "main").turns == turns);
    // Turns and import are taken back one by one, in the order of their ends.
    int undone = 0;
    while (book->stockSize() > 0) {
        REQUIRE(book->undo());
        ++undone;
    }
    CHECK(book->build()->winding("T1", "main").turns == turns - (undone - 1));
    CHECK(book->stockSize() == 0);
}

TEST_CASE("an import that is stopped or killed leaves nothing behind") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->addStock({{0, "own", PartKind::resistor, 1, Unit::ohm, 5, 0, 0, "", 1}}));
    const std::vector<StockLine> lines(5000, {0, "A1", PartKind::resistor, 1, Unit::ohm, 5, 0, 0, "", 1});
    CHECK_FALSE(book->importStock(lines, [](double share) { return share < 0.3; }));
    CHECK(book->stockSize() == 1);
    book.reset();
    const pid_t child = ::fork();
    if (child == 0) {
        auto own = Book::open(shack.file);
        (void)(*own)->importStock(lines, [](double share) {
            if (share > 0.4) ::kill(::getpid(), SIGKILL);
            return true;
        });
        ::_exit(0);
    }
    int status = 0;
    ::waitpid(child, &status, 0);
    REQUIRE(WIFSIGNALED(status));
    book = shack.open();
    CHECK(book->stockSize() == 1);
    REQUIRE(book->addStock({{0, "own", PartKind::resistor, 2, Unit::ohm, 5, 0, 0, "", 1}}));
    CHECK(book->stock().size() == 2);
    CHECK(book->importStock(lines, {}));
    CHECK(book->stockSize() == 5002);
}

TEST_CASE("a photograph taken back and deleted does not make the book larger by twice its size") {
    TestShack shack;
    auto book = shack.begun();
    const std::string jpeg(1000000, '\xd8');
    const auto size = [&] {
        SQLite::Database db(shack.file.string(), SQLite::OPEN_READONLY, 2000);
        return double(db.execAndGet("PRAGMA page_count").getInt64()) *
               double(db.execAndGet("PRAGMA page_size").getInt64());
    };
    const double before = size();
    REQUIRE(book->keepPhoto("s1", false, jpeg));
    REQUIRE(book->undo());
    REQUIRE(book->redo());
    const std::int64_t id = book->build()->photos.front().id;
    CHECK(book->photo(id) == jpeg);
    REQUIRE(book->removePhoto(id));
    REQUIRE(book->undo());
    CHECK(book->photo(id) == jpeg);
    CHECK(size() - before < 1.2 * double(jpeg.size()));
}

TEST_CASE("two starts at once on a new book: both get it, one to write") {
    for (int round = 0; round < 20; ++round) {
        TestShack shack;
        std::vector<pid_t> children;
        int opened[2], go[2];  // each child tells that it has the book, and holds it until all have
        REQUIRE(::pipe(opened) == 0);
        REQUIRE(::pipe(go) == 0);
        for (int i = 0; i < 3; ++i) {
            const pid_t child = ::fork();
            if (child == 0) {
                ::close(go[1]);
                const auto book = Book::open(shack.file);
                const bool writes = book && !(*book)->readOnly();
                char byte = 0;
                (void)!::write(opened[1], &byte, 1);
                (void)!::read(go[0], &byte, 1);
                ::_exit(!book ? 1 : writes ? 20 : 21);
            }
            children.push_back(child);
        }
        char byte = 0;
        for (std::size_t i = 0; i < children.size(); ++i) REQUIRE(::read(opened[0], &byte, 1) == 1);
        for (const int end : {go[0], go[1], opened[0], opened[1]}) ::close(end);
        int writers = 0, readers = 0;
        for (const pid_t child : children) {
            int status = 0;
            ::waitpid(child, &status, 0);
            writers += WEXITSTATUS(status) == 20;
            readers += WEXITSTATUS(status) == 21;
        }
        INFO("round " << round);
        CHECK(writers + readers == 3);
        CHECK(writers == 1);
        int left = 0;
        for (const auto& file : fs::directory_iterator(shack.folder))
            left += file.path().string().find(".new-") != std::string::npos;
        CHECK(left == 0);
    }
}

TEST_CASE("a link whose target is not there yet is followed, and stays a link") {
    TestShack shack;
    fs::create_directory(shack.folder / "real");
    fs::create_symlink("real/book.ombrek", shack.file);
    {
        auto book = shack.begun();
        REQUIRE(book->countTurn("T1", "main"));
    }
    CHECK(fs::is_symlink(shack.file));
    CHECK(fs::is_regular_file(shack.folder / "real/book.ombrek"));
    CHECK(shack.open()->build()->winding("T1", "main").turns == 1);
}
