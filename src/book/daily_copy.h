#pragma once

#include <cstdint>
#include <filesystem>
#include <string>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// A copy of a book as it stood on a day, in the folder "shack.copies" beside "shack.ombrek".
struct DailyCopy {
    std::filesystem::path file;
    std::string day;  ///< "2026-11-26"
};

/// How many are kept of a book.
inline constexpr std::size_t kDailyCopies = 10;

/// The copies of a book, the newest first.
std::vector<DailyCopy> dailyCopies(const std::filesystem::path& book);

/// A whole copy of a book at this moment, with SQLite's backup call, on a connection of its own: may be
/// called from any thread while the book is open. The copy is one file, and is there whole or not at all; a
/// file that is there already is replaced.
Result<void> copyBook(const std::filesystem::path& book, const std::filesystem::path& copy);

/// Today's copy, unless there is one; then the oldest above kDailyCopies go. @param day  "2026-11-26"
Result<void> copyDaily(const std::filesystem::path& book, const std::string& day);

/// A copy becomes a book of its own beside the one it was made of, which stays as it is.
/// @return the new book's file, "shack.of-2026-11-25.ombrek" or the first of its like that is free
Result<std::filesystem::path> restoreCopy(const std::filesystem::path& book, const DailyCopy& copy);

}  // namespace ombrek
