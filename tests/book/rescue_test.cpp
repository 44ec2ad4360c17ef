#include <SQLiteCpp/SQLiteCpp.h>

#include <catch2/catch.hpp>
#include <fstream>

#include "book/left_behind.h"
#include "shack.h"

using namespace ombrek;
namespace fs = std::filesystem;

// A rescue copy has what can be read, and says of the rest how much and why: nothing is lost in silence.

namespace {

constexpr int kReadings = 300;

/// A book with so many readings, closed; all in its one file.
void filled(TestShack& shack) {
    auto book = shack.begun();
    Reading reading;
    reading.subject = Subject::check("supply");
    reading.unit = Unit::volt;
    reading.method = "multimeter";
    for (int i = 0; i < kReadings; ++i) {
        reading.value = 5 + 0.001 * i;
        REQUIRE(book->takeReading(reading));
    }
}

void lieStill(const fs::path& file) {
    SQLite::Database db(file.string(), SQLite::OPEN_READWRITE, 2000);
    db.exec("PRAGMA wal_checkpoint(TRUNCATE)");
}

std::size_t savedOf(const Rescued& rescued, const std::string& name) {
    for (const RescuedRecord& r : rescued.records) {
        if (r.name == name) return r.saved;
    }
    return 0;
}

}  // namespace

TEST_CASE("rows that no Ombrek writes are left out, counted, and stand as text beside the copy") {
    TestShack shack;
    filled(shack);
    lieStill(shack.file);
    {
        SQLite::Database db(shack.file.string(), SQLite::OPEN_READWRITE, 2000);
        db.exec("UPDATE reading SET unit='zork'");
    }
    const fs::path copy = shack.folder / "copy.ombrek";
    const auto rescued = Book::rescue(shack.file, copy);
    REQUIRE(rescued);
    CHECK_FALSE(rescued->complete());
    CHECK(savedOf(*rescued, "reading") == 0);
    CHECK(rescued->sentence().find("300 left out") != std::string::npos);
    std::ifstream beside(rescued->leftOutFile);
    int lines = 0;
    bool values = false;
    for (std::string line; std::getline(beside, line); ++lines)
        values = values || line.find("5.299") != std::string::npos;
    CHECK(lines == kReadings);
    CHECK(values);
}

TEST_CASE(
    "a row of a build that is not there is no row of a book: it is told, and left out of a rescue copy") {
    TestShack shack;
    filled(shack);
    lieStill(shack.file);
    {
        SQLite::Database db(shack.file.string(), SQLite::OPEN_READWRITE, 2000);
        db.exec("UPDATE reading SET build=77 WHERE id IN (SELECT id FROM reading LIMIT 2)");
    }
    const auto refused = Book::open(shack.file);
    REQUIRE_FALSE(refused);
    CHECK(refused.error().sentence.find("of a build that is not there") != std::string::npos);
    const fs::path copy = shack.folder / "copy.ombrek";
    const auto rescued = Book::rescue(shack.file, copy);
    REQUIRE(rescued);
    CHECK(savedOf(*rescued, "reading") == kReadings - 2);
    CHECK(rescued->sentence().find("2 left out: the build that it is of is not there") != std::string::npos);
    const auto book = Book::open(copy);
    REQUIRE(book);
    CHECK((*book)->build()->readings.size() == kReadings - 2);
}

TEST_CASE("what killed programs left among the temporary files goes, nobody else's and nothing young") {
    TestShack shack;
    const auto old = [&](const std::string& name, int hours) {
        const fs::path path = shack.folder / name;
        if (name.ends_with("f0ld3r")) {
            fs::create_directory(path);
            std::ofstream(path / "inside") << "x";
        } else {
            std::ofstream(path) << "x";
        }
        fs::last_write_time(path, fs::file_time_type::clock::now() - std::chrono::hours(hours));
        return path;
    };
    const fs::path pages = old("Ombrek.a1B2c3", 30), look = old("ombrek-f0ld3r", 30),
                   young = old("Ombrek.zzzzzz", 2), book = old("ombrek-book.ombrek", 30),
                   other = old("Other.a1B2c3", 30), link = shack.folder / "Ombrek.l1nk00";
    fs::create_symlink(other, link);
    CHECK(removeLeftBehind(shack.folder) == 2);
    CHECK_FALSE(fs::exists(pages));
    CHECK_FALSE(fs::exists(look));
    for (const fs::path& stays : {young, book, other, link}) CHECK(fs::exists(stays));
    CHECK(removeLeftBehind(shack.folder / "nowhere") == 0);
}

TEST_CASE("a book cut short by a page is filled up and read") {
    TestShack shack;
    filled(shack);
    lieStill(shack.file);
    fs::resize_file(shack.file, fs::file_size(shack.file) - 4096);
    const auto rescued = Book::rescue(shack.file, shack.folder / "copy.ombrek");
    REQUIRE(rescued);
    const std::size_t saved = savedOf(*rescued, "reading");
    CHECK(saved > kReadings - 60);  // a page of 4 kB holds no more rows
    CHECK((saved == kReadings || !rescued->complete()));
}

TEST_CASE("a book whose description of its own tables is damaged gives all its rows, and says so") {
    TestShack shack;
    filled(shack);
    lieStill(shack.file);
    std::string bytes;
    {
        std::ifstream in(shack.file, std::ios::binary);
        bytes.assign(std::istreambuf_iterator<char>(in), {});
    }
    int mended = 0;
    // A trigger's text, a table's, and the first page behind the header.
    for (const char* said :
         {"CREATE TRIGGER reading_UPDATE", "CREATE TABLE winding", "CREATE TRIGGER part_DELETE"}) {
        INFO(said);
        const std::size_t at = bytes.find(said);
        REQUIRE(at != std::string::npos);
        std::string hurt = bytes;
        hurt.replace(at, 12, "CREXTE ZRIG~");
        const fs::path file = shack.folder / "hurt.ombrek",
                       copy = shack.folder / ("mended-" + std::to_string(++mended) + ".ombrek");
        std::ofstream(file, std::ios::binary) << hurt;
        CHECK_FALSE(Book::open(file));
        const auto rescued = Book::rescue(file, copy);
        REQUIRE(rescued);
        CHECK(savedOf(*rescued, "reading") == kReadings);
        CHECK(rescued->schemaMended);
        CHECK_FALSE(rescued->complete());
        CHECK(rescued->sentence().find("that of a new book") != std::string::npos);
        CHECK(Book::open(copy));
    }
}

TEST_CASE("with any one page zeroed, what is missing is said") {
    TestShack shack;
    filled(shack);
    lieStill(shack.file);
    const auto pages = fs::file_size(shack.file) / 4096;
    REQUIRE(pages > 20);
    const auto whole = Book::rescue(shack.file, shack.folder / "whole.ombrek");
    REQUIRE(whole);
    CHECK(whole->complete());
    int refused = 0, fewer = 0;
    for (std::size_t page = 1; page < pages; ++page) {
        INFO(page);
        const fs::path hurt = shack.folder / "hurt.ombrek",
                       copy = shack.folder / ("copy-" + std::to_string(page) + ".ombrek");
        fs::copy_file(shack.file, hurt, fs::copy_options::overwrite_existing);
        {
            std::fstream file(hurt, std::ios::binary | std::ios::in | std::ios::out);
            file.seekp(std::streamoff(page * 4096));
            file << std::string(4096, '\0');
        }
        const auto rescued = Book::rescue(hurt, copy);
        refused += !rescued;
        if (!rescued) continue;
        for (const RescuedRecord& r : whole->records) {
            INFO(r.name);
            const bool less = savedOf(*rescued, r.name) < r.saved;
            fewer += less;
            CHECK((!less || !rescued->complete()));
        }
        CHECK(Book::open(copy));
    }
    INFO(refused << " refused, " << fewer << " tables with fewer rows, of " << pages << " pages");
    CHECK(refused == 0);
    CHECK(fewer > 0);
}

TEST_CASE(
    "a book written over by a book while it is open is noticed at once; one that was only touched is not") {
    TestShack shack;
    filled(shack);
    lieStill(shack.file);
    const fs::path copy = shack.folder / "yesterday.ombrek";
    fs::copy_file(shack.file, copy);
    auto book = shack.open();
    REQUIRE(book->countTurn("T1", "main"));
    // Many writes of our own, with what goes from the log into the file, are no strangers'.
    for (int i = 0; i < 400; ++i) REQUIRE(book->countTurn("T1", "main"));
    CHECK(book->lookForFile());
    fs::last_write_time(shack.file, fs::file_time_type::clock::now());
    CHECK(book->lookForFile());
    REQUIRE(book->countTurn("T1", "main"));
    {
        std::ifstream in(copy, std::ios::binary);
        std::ofstream over(shack.file, std::ios::binary | std::ios::trunc);
        over << in.rdbuf();
    }
    CHECK_FALSE(book->countTurn("T1", "main"));
    CHECK(book->readOnlyReason().find("written over") != std::string::npos);
}

TEST_CASE(
    "a log that is deleted under an open book is noticed, and work goes on in a rescue copy or stops with a "
    "sentence") {
    TestShack shack;
    auto book = shack.begun();
    for (int i = 0; i < 11; ++i) REQUIRE(book->countTurn("T1", "main"));
    fs::remove(shack.file.string() + "-wal");
    const auto done = book->countTurn("T1", "main");
    CHECK((!done || !book->rescuedTo().empty()));
    CHECK((!done || book->build()->windings.size() > 0));
}
