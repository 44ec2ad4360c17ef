#include "log/log.h"

#include <catch2/catch.hpp>
#include <cstdlib>
#include <fstream>
#include <sstream>

using namespace ombrek;

namespace {

struct Folder {
    std::filesystem::path path = [] {
        std::string name = (std::filesystem::temp_directory_path() / "ombrek-log-XXXXXX").string();
        return std::filesystem::path(mkdtemp(name.data()));
    }();
    ~Folder() {
        (void)startLog({}, LogLevel::off);
        std::filesystem::remove_all(path);
    }
};

std::string textOf(const std::filesystem::path& file) {
    std::ostringstream out;
    out << std::ifstream(file).rdbuf();
    return out.str();
}

}  // namespace

TEST_CASE("the log holds what is asked for, a line each, and nothing less") {
    const Folder folder;
    const auto file = folder.path / "deep" / "ombrek.log";
    REQUIRE(startLog(file, LogLevel::info));
    logLine(LogLevel::debug, "too small");
    logLine(LogLevel::info, "opened {} %s");
    logLine(LogLevel::warning, "refused");
    const std::string text = textOf(file);
    CHECK(text.find("too small") == std::string::npos);
    CHECK(text.find(" info opened {} %s\n") != std::string::npos);
    CHECK(text.find(" warning refused\n") != std::string::npos);
    REQUIRE(startLog(file, LogLevel::debug));
    logLine(LogLevel::debug, "now it counts");
    CHECK(textOf(file).find("now it counts") != std::string::npos);
    CHECK(textOf(file).find("refused") != std::string::npos);
    REQUIRE(startLog(file, LogLevel::off));
    logLine(LogLevel::warning, "unheard");
    CHECK(textOf(file).find("unheard") == std::string::npos);
}

TEST_CASE("a log that cannot be written is a sentence, and the work goes on") {
    const Folder folder;
    std::ofstream(folder.path / "taken") << "a file, no folder";
    const auto begun = startLog(folder.path / "taken" / "ombrek.log", LogLevel::debug);
    REQUIRE_FALSE(begun);
    CHECK(begun.error().sentence.find("goes on without") != std::string::npos);
    logLine(LogLevel::warning, "to nobody");
}

TEST_CASE("the log never grows beyond three files of a megabyte") {
    const Folder folder;
    REQUIRE(startLog(folder.path / "ombrek.log", LogLevel::info));
    const std::string line(1000, 'x');
    for (int i = 0; i < 5000; ++i) logLine(LogLevel::info, line);
    std::uintmax_t bytes = 0;
    int files = 0;
    for (const auto& entry : std::filesystem::directory_iterator(folder.path)) {
        bytes += entry.file_size();
        ++files;
    }
    CHECK(files == 3);
    CHECK(bytes <= 3u << 20);
    CHECK(bytes > 2u << 20);
}

TEST_CASE("words for the level") {
    CHECK(logLevel("debug") == LogLevel::debug);
    CHECK(logLevel("off") == LogLevel::off);
    CHECK_FALSE(logLevel("loud"));
    setenv("XDG_STATE_HOME", "/somewhere", 1);
    CHECK(usualLogFile() == "/somewhere/ombrek/ombrek.log");
    setenv("XDG_STATE_HOME", "not/absolute",
           1);  // XDG Base Directory Specification: relative ones are ignored
    CHECK(usualLogFile().is_absolute());
    unsetenv("XDG_STATE_HOME");
}
