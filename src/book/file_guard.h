#pragma once

#include <filesystem>
#include <optional>

#include "core/quantity/problem.h"

namespace ombrek {

/// What a file is, judged by its first bytes alone, so that nothing is opened that should not be touched.
enum class BookFile { absent, ours };
/// @return a Problem for a file that is not a book, is of a newer version, or cannot be read
Result<BookFile> inspectBookFile(const std::filesystem::path& path);

/// Holds the right to write one book for this program, by an advisory lock on a file beside it. The lock goes
/// with the process, however it ends.
class WriterLock {
 public:
    /// @return a lock, or nothing when another program holds it or the folder cannot be written
    static std::optional<WriterLock> take(const std::filesystem::path& book);
    WriterLock(WriterLock&& other) noexcept;
    WriterLock& operator=(WriterLock&&) = delete;
    ~WriterLock();

 private:
    explicit WriterLock(int fd) : fd_(fd) {}
    int fd_;
};

}  // namespace ombrek
