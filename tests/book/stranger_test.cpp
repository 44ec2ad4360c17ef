#include <fstream>

#include "book/trust.h"
#include "shack.h"

// A book is a file that clubs pass on: what a stranger wrote into it is never run.

using namespace ombrek;
namespace fs = std::filesystem;

namespace {

void write(const fs::path& file, const std::string& sql) {
    SQLite::Database db(file.string(), SQLite::OPEN_READWRITE, 2000);
    db.exec(sql);
}

void readOne(Book& book) {
    REQUIRE(book.takeReading({0, Subject::part("R1"), 4.7e3, Unit::ohm, 40, {}, "typed", 0}));
}

std::int64_t count(const fs::path& file, const std::string& table) {
    SQLite::Database db(file.string(), SQLite::OPEN_READONLY, 2000);
    return db.execAndGet("SELECT count(*) FROM " + table).getInt64();
}

}  // namespace

TEST_CASE("undo runs no statement of a stranger") {
    const std::string evil = GENERATE(
        as<std::string>{}, "DROP TABLE reading", "DELETE FROM undo_step", "UPDATE action SET name='x'",
        "PRAGMA user_version=99", "ATTACH DATABASE '/tmp/ombrek-stranger' AS o",
        "INSERT INTO kit_text(text) VALUES('x')", "CREATE TABLE stranger(id)",
        "CREATE TRIGGER x AFTER INSERT ON reading BEGIN DELETE FROM reading; END",
        "UPDATE remark SET text=load_extension('x')", "UPDATE remark SET text=(SELECT text FROM kit_text)",
        "DELETE FROM reading WHERE length(subject) > 0", "VACUUM INTO '/tmp/ombrek-stranger'",
        "INSERT INTO remark(text) SELECT name FROM sqlite_master");
    INFO(evil);
    TestShack shack;
    { readOne(*shack.begun()); }
    {
        SQLite::Database db(shack.file.string(), SQLite::OPEN_READWRITE, 2000);
        SQLite::Statement q(db, "INSERT INTO undo_step(action, sql) SELECT max(id), ? FROM action");
        q.bind(1, evil);
        q.exec();
    }
    const std::string before = everything(shack.file);
    auto book = shack.open();
    const auto undone = book->undo();
    REQUIRE_FALSE(undone);
    CHECK_THAT(undone.error().sentence, Catch::Contains("nothing was changed"));
    CHECK(everything(shack.file) == before);
    CHECK_FALSE(fs::exists("/tmp/ombrek-stranger"));
    // The book is usable, and takes back what is its own again.
    readOne(*book);
    REQUIRE(book->undo());
    CHECK(everything(shack.file) == before);
}

TEST_CASE("a book with a trigger, view, index or table of a stranger is refused, and rescued without it") {
    const std::string evil = GENERATE(
        as<std::string>{}, "CREATE TRIGGER club AFTER INSERT ON reading BEGIN DELETE FROM build; END",
        "CREATE TRIGGER \"x; DROP TABLE build\" AFTER INSERT ON step BEGIN SELECT 1; END",
        "CREATE VIEW club AS SELECT * FROM reading", "CREATE INDEX club ON reading(abs(value))",
        "CREATE TABLE club(id)", "CREATE TABLE \"x') ; DROP TABLE build\"(id)",
        "CREATE VIRTUAL TABLE club USING fts5(text)",
        "DROP TRIGGER reading_INSERT; CREATE TRIGGER reading_INSERT AFTER INSERT ON "
        "reading BEGIN INSERT INTO undo_step(action, sql) VALUES (1, 'DROP TABLE build'); END",
        "ALTER TABLE remark ADD COLUMN twice AS (text || text)");
    INFO(evil);
    TestShack shack;
    { readOne(*shack.begun()); }
    write(shack.file, evil);
    const auto size = fs::file_size(shack.file);
    const auto opened = Book::open(shack.file);
    REQUIRE_FALSE(opened);
    CHECK_THAT(opened.error().sentence, Catch::Contains("not Ombrek's") && Catch::Contains("rescue copy"));
    CHECK(fs::file_size(shack.file) == size);
    CHECK(count(shack.file, "build") == 1);

    const fs::path copy = shack.folder / "copy.ombrek";
    REQUIRE(Book::rescue(shack.file, copy));
    auto book = Book::open(copy);
    REQUIRE(book);
    CHECK((*book)->build()->readings.size() == 1);
    SQLite::Database db(copy.string(), SQLite::OPEN_READONLY, 2000);
    CHECK(foreignIn(db).empty());
}

TEST_CASE("a trigger of a stranger in a book of an older version never runs") {
    TestShack shack;
    fs::copy_file(fs::path(OMBREK_BOOKS) / "version-4.ombrek", shack.file);
    write(shack.file, "CREATE TRIGGER club AFTER UPDATE ON build BEGIN DELETE FROM reading; END");
    const auto opened = Book::open(shack.file);
    REQUIRE_FALSE(opened);
    CHECK_THAT(opened.error().sentence, Catch::Contains("\"club\""));
    const fs::path copy = shack.folder / "copy.ombrek";
    REQUIRE(Book::rescue(shack.file, copy));
    auto book = Book::open(copy);
    REQUIRE(book);
    CHECK((*book)->build()->readings.size() > 50);
}

TEST_CASE("a book marked with an older version than it is gets a sentence, not the database's") {
    TestShack shack;
    { readOne(*shack.begun()); }
    const int version = GENERATE(1, 2, 3, 4, 5);
    write(shack.file, "PRAGMA user_version=" + std::to_string(version));
    const auto opened = Book::open(shack.file);
    REQUIRE_FALSE(opened);
    INFO(opened.error().sentence);
    CHECK_THAT(opened.error().sentence, Catch::Contains("version " + std::to_string(version)));
    CHECK_THAT(opened.error().sentence, !Catch::Contains("column"));
    CHECK(count(shack.file, "reading") == 1);
}

TEST_CASE("every stored book of an older version holds nothing foreign") {
    const int version = GENERATE(1, 2, 3, 4, 5, 6);
    INFO("version " << version);
    SQLite::Database db(
        (fs::path(OMBREK_BOOKS) / ("version-" + std::to_string(version) + ".ombrek")).string(),
        SQLite::OPEN_READONLY, 2000);
    CHECK(foreignIn(db).empty());
}
