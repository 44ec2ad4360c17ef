#include "book/file_guard.h"

#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>

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

std::optional<WriterLock> WriterLock::take(const fs::path& book) {
    const fs::path file = book.parent_path() / ("." + book.filename().string() + ".lock");
    const int fd = ::open(file.c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0644);
    if (fd < 0) return std::nullopt;
    if (::flock(fd, LOCK_EX | LOCK_NB) != 0) {
        ::close(fd);
        return std::nullopt;
    }
    return WriterLock(fd);
}

WriterLock::WriterLock(WriterLock&& other) noexcept : fd_(other.fd_) { other.fd_ = -1; }

WriterLock::~WriterLock() {
    if (fd_ >= 0) ::close(fd_);
}

}  // namespace ombrek
