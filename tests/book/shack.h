#pragma once

#include <catch2/catch.hpp>
#include <filesystem>
#include <functional>
#include <memory>

#include "book/book.h"
#include "book/file_guard.h"

namespace ombrek {

/// A folder of its own that goes with the test, and a clock that is set by hand.
struct Shack {
    Shack() {
        std::string name = (std::filesystem::temp_directory_path() / "ombrek-book-XXXXXX").string();
        REQUIRE(mkdtemp(name.data()) != nullptr);
        folder = name;
        file = folder / "shack.ombrek";
    }
    ~Shack() {
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

}  // namespace ombrek
