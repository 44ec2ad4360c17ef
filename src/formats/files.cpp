#include "formats/files.h"

#include <fcntl.h>
#include <unistd.h>

#include <cerrno>
#include <cstdlib>
#include <fstream>
#include <system_error>

namespace ombrek {
namespace fs = std::filesystem;

Result<std::string> readFile(const fs::path& path, std::uintmax_t most) {
    std::error_code error;
    if (!fs::is_regular_file(path, error)) return problem(path.string(), "There is no such file.");
    const auto size = fs::file_size(path, error);
    if (error) return problem(path.string(), "This file cannot be read: " + error.message() + ".");
    if (size > most) {
        return problem(path.string(), "This file has " + std::to_string(size / 1000000) + " MB; at most " +
                                          std::to_string(most / 1000000) + " MB are read.");
    }
    std::ifstream in(path, std::ios::binary);
    std::string out(static_cast<std::size_t>(size), '\0');
    if (!in || !in.read(out.data(), static_cast<std::streamsize>(size))) {
        return problem(path.string(), "This file cannot be read; check its permissions.");
    }
    return out;
}

namespace {

/// Write and push to the disk. @return errno, 0 when all of it is there
int writeThrough(const fs::path& path, const std::string& bytes) {
    const int fd = ::open(path.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0644);
    if (fd < 0) return errno;
    int error = 0;
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

Result<void> writeFile(const fs::path& path, const std::string& bytes) {
    const fs::path beside = path.string() + ".part-" + std::to_string(::getpid());
    std::error_code error;
    if (writeThrough(beside, bytes) != 0) {
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
