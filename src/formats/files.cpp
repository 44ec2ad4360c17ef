#include "formats/files.h"

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

Result<void> writeFile(const fs::path& path, const std::string& bytes) {
    fs::path beside = path;
    beside += ".part";
    std::error_code error;
    {
        std::ofstream out(beside, std::ios::binary | std::ios::trunc);
        out.write(bytes.data(), static_cast<std::streamsize>(bytes.size()));
        out.flush();
        if (!out) {
            fs::remove(beside, error);
            return problem(path.string(),
                           "This file cannot be written; is the folder there, writable and not full?");
        }
    }
    fs::rename(beside, path, error);
    if (error) {
        const std::string why = error.message();
        fs::remove(beside, error);
        return problem(path.string(), "This file cannot be replaced: " + why + ".");
    }
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
