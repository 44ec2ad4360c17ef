#include "book/left_behind.h"

#include <sys/stat.h>
#include <unistd.h>

#include <ctime>
#include <regex>

namespace ombrek {
namespace fs = std::filesystem;

int removeLeftBehind(const fs::path& folder, std::chrono::hours age) {
    static const std::regex ours("(Ombrek\\.|ombrek-cli\\.|ombrek-(spice-)?)[A-Za-z0-9]{6}");
    const std::time_t before = std::time(nullptr) - std::chrono::seconds(age).count();
    int out = 0;
    std::error_code error;
    for (fs::directory_iterator it(folder, error), end; !error && it != end; it.increment(error)) {
        struct stat status {};
        if (!std::regex_match(it->path().filename().string(), ours) ||
            ::lstat(it->path().c_str(), &status) != 0)
            continue;
        const bool plain = S_ISREG(status.st_mode) || S_ISDIR(status.st_mode);
        if (!plain || status.st_uid != ::geteuid() || status.st_mtime > before) continue;
        std::error_code kept;
        fs::remove_all(it->path(), kept);
        out += !kept;
    }
    return out;
}

}  // namespace ombrek
