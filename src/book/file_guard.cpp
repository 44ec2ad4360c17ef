#include "book/file_guard.h"

#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cstring>
#include <fstream>

#include "book/schema.h"

namespace ombrek {
namespace fs = std::filesystem;
namespace {

std::uint32_t bigEndian(const unsigned char* bytes) {
    return (std::uint32_t(bytes[0]) << 24) | (std::uint32_t(bytes[1]) << 16) |
           (std::uint32_t(bytes[2]) << 8) | bytes[3];
}

}  // namespace

Result<BookFile> inspectBookFile(const fs::path& path) {
    std::error_code error;
    const std::string name = path.filename().string();
    if (!fs::exists(path, error)) return BookFile::absent;
    if (!fs::is_regular_file(path, error)) return problem(name, "This is not a file that can hold a book.");
    if (fs::file_size(path, error) == 0)
        return problem(name, "This file is empty: not an Ombrek book. Choose another name.");
    // Header of an SQLite 3 database: magic at 0, user_version at 60, application_id at 68 (SQLite file
    // format).
    std::array<unsigned char, 100> header{};
    std::ifstream in(path, std::ios::binary);
    if (!in) return problem(name, "This file cannot be read; check its permissions.");
    in.read(reinterpret_cast<char*>(header.data()), header.size());
    const bool whole = in.gcount() == std::streamsize(header.size());
    if (!whole || std::memcmp(header.data(), "SQLite format 3", 16) != 0) {
        return problem(name, "This file is not an Ombrek book; it was left as it is.");
    }
    if (bigEndian(&header[68]) != std::uint32_t(kApplicationId)) {
        return problem(name,
                       "This is a database of another program, not an Ombrek book; it was left as it is.");
    }
    if (bigEndian(&header[60]) > std::uint32_t(kSchemaVersion)) {
        return problem(name,
                       "This book was written by a newer Ombrek; it was left as it is. Get the newer Ombrek "
                       "to open it.");
    }
    return BookFile::ours;
}

fs::path followLink(const fs::path& path) {
    fs::path out = path;
    std::error_code error;
    for (int i = 0; i < 16 && fs::is_symlink(out, error); ++i) {
        const fs::path target = fs::read_symlink(out, error);
        if (error) break;
        out = target.is_absolute() ? target : out.parent_path() / target;
    }
    return out;
}

std::optional<FileIdentity> identityOf(const fs::path& path) {
    struct stat status {};
    if (::stat(path.c_str(), &status) != 0) return std::nullopt;
    FileIdentity out{std::uint64_t(status.st_dev),
                     std::uint64_t(status.st_ino),
                     false,
                     std::int64_t(status.st_size),
                     status.st_mtim.tv_sec * 1000000000LL + status.st_mtim.tv_nsec,
                     0};
    if (struct stat log{}; ::stat((path.string() + "-wal").c_str(), &log) == 0)
        out.log = std::uint64_t(log.st_ino);
    std::array<unsigned char, 100> header{};
    std::ifstream in(path, std::ios::binary);
    in.read(reinterpret_cast<char*>(header.data()), header.size());
    out.ours = in.gcount() == std::streamsize(header.size()) &&
               std::memcmp(header.data(), "SQLite format 3", 16) == 0 &&
               bigEndian(&header[68]) == std::uint32_t(kApplicationId);
    return out;
}

std::uint64_t fingerprintOf(const fs::path& path) {
    constexpr std::uint64_t kBasis = 14695981039346656037ULL, kPrime = 1099511628211ULL;  // FNV-1a
    constexpr std::int64_t kPiece = 4096, kMost = 1024;
    std::error_code error;
    const auto size = std::int64_t(fs::file_size(path, error));
    std::ifstream in(path, std::ios::binary);
    std::uint64_t out = kBasis;
    std::array<char, kPiece> piece{};
    const std::int64_t pieces = (size + kPiece - 1) / kPiece,
                       step = std::max<std::int64_t>(1, (pieces + kMost - 1) / kMost);
    for (std::int64_t i = 0; i < pieces && !error; i += step) {
        in.seekg(i * kPiece);
        in.read(piece.data(), piece.size());
        // Eight letters at a time: it stands in the way of a key.
        for (std::streamsize at = 0; at + 8 <= in.gcount(); at += 8) {
            std::uint64_t word = 0;
            std::memcpy(&word, piece.data() + at, 8);
            out = (out ^ word) * kPrime;
        }
        in.clear();
    }
    return out;
}

Result<WriterLock> WriterLock::take(const fs::path& book) {
    const fs::path file = book.parent_path() / ("." + book.filename().string() + ".lock");
    int fd = ::open(file.c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0644);
    // One that another user left, as after a start as root, still locks when it can only be read.
    if (fd < 0) fd = ::open(file.c_str(), O_RDONLY | O_CLOEXEC);
    if (fd < 0)
        return problem(
            "", "The lock beside this book, " + file.string() +
                    ", can be neither made nor opened: you can look, not write. Delete it, or make its "
                    "folder writable.");
    if (::flock(fd, LOCK_EX | LOCK_NB) != 0) {
        ::close(fd);
        return problem("", "Another program has this book open: you can look, not write.");
    }
    return WriterLock(fd);
}

WriterLock::WriterLock(WriterLock&& other) noexcept : fd_(other.fd_) { other.fd_ = -1; }

WriterLock::~WriterLock() {
    if (fd_ >= 0) ::close(fd_);
}

}  // namespace ombrek
