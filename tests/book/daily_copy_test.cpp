#include <catch2/catch.hpp>
#include <fstream>

#include "book/book.h"
#include "book/daily_copy.h"
#include "folder.h"

using namespace ombrek;

TEST_CASE("a copy a day beside the book, the last ten kept, and one becomes a book of its own") {
    const Folder folder;
    const auto path = folder / "shack.ombrek";
    auto book = Book::open(path).value();
    REQUIRE(book->prefer("who", "Ada"));
    CHECK(dailyCopies(path).empty());
    for (int day = 1; day <= 13; ++day) {
        char name[11];
        std::snprintf(name, sizeof name, "2026-11-%02d", day);
        REQUIRE(copyDaily(path, name));  // while the book is open
        REQUIRE(copyDaily(path, name));  // the second of a day is none
    }
    const auto copies = dailyCopies(path);
    REQUIRE(copies.size() == kDailyCopies);
    CHECK(copies.front().day == "2026-11-13");
    CHECK(copies.back().day == "2026-11-04");
    REQUIRE(book->prefer("who", "Bea"));
    const auto restored = restoreCopy(path, copies[3]);
    REQUIRE(restored);
    CHECK(restored->filename() == "shack.of-2026-11-10.ombrek");
    CHECK(Book::open(*restored).value()->preference("who") == "Ada");
    CHECK(book->preference("who") == "Bea");  // the present one is as it was
    CHECK(restoreCopy(path, copies[3])->filename() == "shack.of-2026-11-10-2.ombrek");
}

TEST_CASE(
    "what is no copy is not shown, and a copy that cannot be written leaves the book and no half file") {
    const Folder folder;
    const auto path = folder / "shack.ombrek";
    auto book = Book::open(path).value();
    REQUIRE(copyDaily(path, "2026-11-26"));
    for (const char* name : {"notes.txt", "2026-11-xx.ombrek", "2026-11-25.ombrek.part-1"})
        std::ofstream(folder / "shack.copies" / name) << "x";
    CHECK(dailyCopies(path).size() == 1);
    CHECK_FALSE(copyBook(path, folder / "nowhere" / "copy.ombrek"));
    CHECK_FALSE(copyBook(path, path));
    CHECK_FALSE(copyBook(folder / "absent.ombrek", folder / "copy.ombrek"));
    std::ofstream(folder / "none.ombrek") << "no book";
    CHECK_FALSE(copyBook(folder / "none.ombrek", folder / "copy.ombrek"));
    CHECK_FALSE(std::filesystem::exists(folder / "copy.ombrek"));
    REQUIRE(book->prefer("who", "Ada"));
}

TEST_CASE("redo is named as undo is") {
    const Folder folder;
    auto book = Book::open(folder / "shack.ombrek").value();
    CHECK(book->redoName().empty());
    REQUIRE(book->prefer("who", "Ada"));
    const std::string name = book->undoName();
    CHECK_FALSE(name.empty());
    REQUIRE(book->undo());
    CHECK(book->undoName().empty());
    CHECK(book->redoName() == name);
}
