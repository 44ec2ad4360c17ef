#include "formats/files.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <array>
#include <cerrno>
#include <cstdlib>
#include <cstring>
#include <fstream>
#include <optional>
#include <system_error>

namespace ombrek {
namespace fs = std::filesystem;

namespace {

bool pipesToo = false;

Result<std::string> tooLarge(const fs::path& path, std::uintmax_t size, std::uintmax_t most) {
    return problem(path.string(), "This file has " + std::to_string(size / 1000000) + " MB; at most " +
                                      std::to_string(most / 1000000) + " MB are read.");
}

/// To its end, which is when whoever writes has written all.
Result<std::string> readPipe(const fs::path& path, std::uintmax_t most) {
    const bool own = path == "-";
    const int fd = own ? STDIN_FILENO : ::open(path.c_str(), O_RDONLY | O_CLOEXEC);
    std::string out;
    std::array<char, 65536> buffer;
    ssize_t got = fd < 0 ? -1 : 1;
    while (got > 0 && out.size() <= most) {
        got = ::read(fd, buffer.data(), buffer.size());
        if (got < 0 && errno == EINTR)
            got = 1;
        else if (got > 0)
            out.append(buffer.data(), std::size_t(got));
    }
    if (!own && fd >= 0) ::close(fd);
    if (got < 0) return problem(path.string(), "This cannot be read; check its permissions.");
    if (out.size() > most) return tooLarge(path, out.size(), most);
    return out;
}

bool isPipe(const fs::path& path) {
    std::error_code error;
    const auto type = fs::status(path, error).type();
    return path == "-" || type == fs::file_type::fifo || type == fs::file_type::socket ||
           (type == fs::file_type::character && path.string().starts_with("/dev/"));
}

}  // namespace

void readPipesToo() { pipesToo = true; }

bool sameFile(const fs::path& a, const fs::path& b) {
    std::error_code error;
    return fs::equivalent(a, b, error);
}

Result<std::string> readFile(const fs::path& path, std::uintmax_t most) {
    std::error_code error;
    if (pipesToo && isPipe(path)) return readPipe(path, most);
    if (!fs::is_regular_file(path, error)) return problem(path.string(), "There is no such file.");
    const auto size = fs::file_size(path, error);
    if (error) return problem(path.string(), "This file cannot be read: " + error.message() + ".");
    if (size > most) return tooLarge(path, size, most);
    std::ifstream in(path, std::ios::binary);
    std::string out(static_cast<std::size_t>(size), '\0');
    if (!in || !in.read(out.data(), static_cast<std::streamsize>(size))) {
        return problem(path.string(), "This file cannot be read; check its permissions.");
    }
    return out;
}

namespace {

/// Write and push to the disk. @return errno, 0 when all of it is there
int writeThrough(const fs::path& path, const std::string& bytes, std::optional<mode_t> mode) {
    const int fd = ::open(path.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0644);
    if (fd < 0) return errno;
    int error = mode && ::fchmod(fd, *mode) != 0 ? errno : 0;
    for (std::size_t at = 0; at < bytes.size() && error == 0;) {
        const ssize_t written = ::write(fd, bytes.data() + at, bytes.size() - at);
        if (written > 0) at += std::size_t(written);
        if (written < 0 && errno != EINTR) error = errno;
    }
    if (error == 0 && ::fsync(fd) != 0) error = errno;
    if (::close(fd) != 0 && error == 0) error = errno;
    return error;
}

/// The new name itself is on the disk only when its folder is.
void syncFolder(const fs::path& folder) {
    const int fd = ::open(folder.empty() ? "." : folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
    if (fd < 0) return;
    ::fsync(fd);
    ::close(fd);
}

}  // namespace

namespace {

/// What may not be written over, as a sentence; empty when it may.
std::string notToBeReplaced(const fs::path& path) {
    std::error_code error;
    const auto status = fs::status(path, error);
    if (!fs::exists(status)) return "";
    if (!fs::is_regular_file(status))
        return "This is no plain file: it is left as it is. Choose another name.";
    std::array<char, 16> head{};
    std::ifstream in(path, std::ios::binary);
    in.read(head.data(), head.size());
    // The first bytes of every database of SQLite's, with its closing zero (SQLite file format).
    if (in.gcount() == 16 && std::memcmp(head.data(), "SQLite format 3", 16) == 0)
        return "This is a book of Ombrek's, or another database: it is left as it is. Choose another name.";
    return "";
}

}  // namespace

Result<void> writeFile(const fs::path& named, const std::string& bytes) {
    std::error_code none;
    const fs::path path = fs::exists(named, none) ? fs::canonical(named, none) : named;
    if (const std::string why = notToBeReplaced(path); !why.empty()) return problem(named.string(), why);
    const fs::path beside = path.string() + ".part-" + std::to_string(::getpid());
    std::error_code error;
    std::optional<mode_t> mode;
    struct stat before {};
    if (::stat(path.c_str(), &before) == 0) mode = before.st_mode & 07777;
    if (writeThrough(beside, bytes, mode) != 0) {
        fs::remove(beside, error);
        return problem(path.string(),
                       "This file cannot be written; is the folder there, writable and not full?");
    }
    fs::rename(beside, path, error);
    if (error) {
        const std::string why = error.message();
        fs::remove(beside, error);
        return problem(path.string(), "This file cannot be replaced: " + why + ".");
    }
    syncFolder(path.parent_path());
    return {};
}

fs::path dataFolder() {
    if (const char* named = std::getenv("OMBREK_DATA")) return named;
    std::error_code error;
    const fs::path program = fs::read_symlink("/proc/self/exe", error);
    const fs::path installed = program.parent_path().parent_path() / "share" / "ombrek" / "data";
    if (!error && fs::exists(installed / "cores.csv", error)) return installed;
    return OMBREK_SOURCE_DATA;
}

}  // namespace ombrek
