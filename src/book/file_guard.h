#pragma once

#include <cstdint>
#include <filesystem>
#include <optional>

#include "core/quantity/problem.h"

namespace ombrek {

/// What a file is, judged by its first bytes alone, so that nothing is opened that should not be touched.
enum class BookFile { absent, ours };
/// @return a Problem for a file that is not a book, is of a newer version, or cannot be read
Result<BookFile> inspectBookFile(const std::filesystem::path& path);

/// Where a name leads when it is a link, also one whose target is not there yet.
std::filesystem::path followLink(const std::filesystem::path& path);

/// Which file lies at a path now, so that one notices when it was moved, deleted or written over.
struct FileIdentity {
    std::uint64_t device = 0, inode = 0;
    bool ours = false;         ///< its header is an Ombrek book's
    std::int64_t size = 0;     ///< [bytes]
    std::int64_t changed = 0;  ///< when it was written last [ns]
    std::uint64_t log = 0;     ///< the inode of the "-wal" beside it; 0: there is none
    bool operator==(const FileIdentity&) const = default;
};
/// A hash over up to 4 MB of a file, spread over the whole of it.
std::uint64_t fingerprintOf(const std::filesystem::path& path);
/// Nothing when there is no file.
std::optional<FileIdentity> identityOf(const std::filesystem::path& path);

/// Whether a program has this file open as a book under another name of it (a hard link): then its log lies
/// beside that name, and what is seen under this one is of before.
bool openUnderAnotherName(const std::filesystem::path& book);

/// Holds the right to write one book for this program: by an advisory lock on a file beside it, and by a
/// name of the machine's that stands for the file itself, under whatever other name (hard link) it is opened.
/// Both go with the process, however it ends.
class WriterLock {
 public:
    /// @return a lock, or why there is none, as a sentence: another program has it, or the lock's file cannot
    /// be opened
    static Result<WriterLock> take(const std::filesystem::path& book);
    WriterLock(WriterLock&& other) noexcept;
    WriterLock& operator=(WriterLock&&) = delete;
    ~WriterLock();

 private:
    WriterLock(int beside, int itself) : beside_(beside), itself_(itself) {}
    int beside_, itself_;  ///< descriptors; −1: none
};

}  // namespace ombrek
