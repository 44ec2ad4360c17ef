#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include <catch2/catch.hpp>
#include <filesystem>
#include <functional>
#include <memory>
#include <set>
#include <string>

#include "book/book.h"
#include "book/file_guard.h"

namespace ombrek {

/// A folder of its own that goes with the test, and a clock that is set by hand.
struct TestShack {
    TestShack() {
        std::string name = (std::filesystem::temp_directory_path() / "ombrek-book-XXXXXX").string();
        REQUIRE(mkdtemp(name.data()) != nullptr);
        folder = name;
        file = folder / "shack.ombrek";
    }
    ~TestShack() {
        std::error_code error;
        std::filesystem::remove_all(folder, error);
    }
    std::unique_ptr<Book> open() {
        auto book = Book::open(file, [this] { return now; });
        if (!book) FAIL(book.error().text());
        return std::move(*book);
    }
    std::unique_ptr<Book> begun() {
        auto book = open();
        REQUIRE(book->startBuild("Tiny", "{}"));
        return book;
    }
    std::filesystem::path folder, file;
    std::int64_t now = 1000000;
};

/// Every row of every record table in a book's file, as text: what undo must bring back, whatever is added
/// later.
inline std::string everything(const std::filesystem::path& file) {
    SQLite::Database db(file.string(), SQLite::OPEN_READONLY, 2000);
    SQLite::Statement tables(db, "SELECT name FROM sqlite_master WHERE type='table' ORDER BY name");
    const std::set<std::string> aside{"action",     "action_in_hand", "undo_step",      "sitting",
                                      "photo_data", "kit_text",       "pending_import", "sqlite_sequence"};
    std::string out;
    while (tables.executeStep()) {
        const std::string name = tables.getColumn(0).getString();
        if (aside.contains(name)) continue;
        SQLite::Statement rows(db, "SELECT * FROM " + name + " ORDER BY id");
        while (rows.executeStep()) {
            out += name;
            for (int i = 0; i < rows.getColumnCount(); ++i)
                out += "|" + (rows.getColumn(i).isNull() ? "NULL" : rows.getColumn(i).getString());
            out += "\n";
        }
    }
    return out;
}

}  // namespace ombrek
