#include "book/file_guard.h"

#include <fcntl.h>
#include <sys/file.h>
#include <sys/socket.h>
#include <sys/stat.h>
#include <sys/un.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cerrno>
#include <cstddef>
#include <cstring>
#include <fstream>
#include <utility>

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

namespace {

/// A socket bound to a name made of the file's device and inode, in the kernel's own space of names: nobody
/// else can bind it while this process lives, and nothing of it stays behind.
/// @return its descriptor; −1: another has the name; −2: there is no such file or no socket to be had
int bindItself(const fs::path& book) {
    struct stat status {};
    if (::stat(book.c_str(), &status) != 0) return -2;
    const int fd = ::socket(AF_UNIX, SOCK_DGRAM | SOCK_CLOEXEC, 0);
    if (fd < 0) return -2;
    sockaddr_un address{};
    address.sun_family = AF_UNIX;
    const std::string name =
        "ombrek-book-" + std::to_string(status.st_dev) + "-" + std::to_string(status.st_ino);
    std::memcpy(address.sun_path + 1, name.data(), name.size());
    const auto length = socklen_t(offsetof(sockaddr_un, sun_path) + 1 + name.size());
    if (::bind(fd, reinterpret_cast<const sockaddr*>(&address), length) == 0) return fd;
    const bool taken = errno == EADDRINUSE;
    ::close(fd);
    return taken ? -1 : -2;
}

fs::path lockBeside(const fs::path& book) {
    return book.parent_path() / ("." + book.filename().string() + ".lock");
}

}  // namespace

bool openUnderAnotherName(const fs::path& book) {
    std::error_code none;
    if (fs::hard_link_count(book, none) < 2 || none) return false;
    const int itself = bindItself(book);
    if (itself >= 0) ::close(itself);
    if (itself != -1) return false;
    const int beside = ::open(lockBeside(book).c_str(), O_RDONLY | O_CLOEXEC);
    const bool free = beside < 0 || ::flock(beside, LOCK_EX | LOCK_NB) == 0;
    if (beside >= 0) ::close(beside);
    return free;
}

Result<WriterLock> WriterLock::take(const fs::path& book) {
    const fs::path file = lockBeside(book);
    int fd = ::open(file.c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0644);
    // One that another user left, as after a start as root, still locks when it can only be read.
    if (fd < 0) fd = ::open(file.c_str(), O_RDONLY | O_CLOEXEC);
    if (fd < 0)
        return problem("", "You can look, not write: make this book's folder writable, or delete " +
                               file.filename().string() +
                               " in it. That lock can be neither made nor opened.");
    if (::flock(fd, LOCK_EX | LOCK_NB) != 0) {
        ::close(fd);
        return problem("", "Another program has this book open: you can look, not write.");
    }
    const int itself = bindItself(book);
    if (itself == -1) {
        ::close(fd);
        return problem("", "Another program has this book open under another name: you can look, not write.");
    }
    return WriterLock(fd, itself);
}

WriterLock::WriterLock(WriterLock&& other) noexcept
    : beside_(std::exchange(other.beside_, -1)), itself_(std::exchange(other.itself_, -1)) {}

WriterLock::~WriterLock() {
    for (const int fd : {beside_, itself_}) {
        if (fd >= 0) ::close(fd);
    }
}

}  // namespace ombrek
