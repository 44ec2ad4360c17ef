#include "log/log.h"

#include <spdlog/sinks/rotating_file_sink.h>
#include <spdlog/spdlog.h>

#include <algorithm>
#include <array>
#include <cstdlib>

namespace ombrek {
namespace {

struct Level {
    LogLevel level;
    std::string_view word;
    spdlog::level::level_enum spd;
};
constexpr std::array<Level, 4> kLevels{{{LogLevel::debug, "debug", spdlog::level::debug},
                                        {LogLevel::info, "info", spdlog::level::info},
                                        {LogLevel::warning, "warning", spdlog::level::warn},
                                        {LogLevel::off, "off", spdlog::level::off}}};

spdlog::level::level_enum spdOf(LogLevel level) {
    return std::find_if(kLevels.begin(), kLevels.end(), [&](const Level& l) { return l.level == level; })
        ->spd;
}

std::shared_ptr<spdlog::logger>& logger() {
    static std::shared_ptr<spdlog::logger> the;
    return the;
}

}  // namespace

std::optional<LogLevel> logLevel(std::string_view word) {
    const auto hit =
        std::find_if(kLevels.begin(), kLevels.end(), [&](const Level& l) { return l.word == word; });
    return hit == kLevels.end() ? std::nullopt : std::optional(hit->level);
}

std::filesystem::path usualLogFile() {
    const char* state = std::getenv("XDG_STATE_HOME");
    const char* home = std::getenv("HOME");
    std::filesystem::path folder;
    if (state != nullptr && *state == '/') {
        folder = state;
    } else {
        folder = std::filesystem::path(home != nullptr ? home : ".") / ".local" / "state";
    }
    return folder / "ombrek" / "ombrek.log";
}

Result<void> startLog(const std::filesystem::path& file, LogLevel level) {
    constexpr std::size_t kBytes = 1 << 20, kFiles = 2;  // two older ones beside the one that is written
    logger().reset();
    if (level == LogLevel::off) return {};
    try {
        auto sink = std::make_shared<spdlog::sinks::rotating_file_sink_mt>(file.string(), kBytes, kFiles);
        auto made = std::make_shared<spdlog::logger>("ombrek", std::move(sink));
        made->set_level(spdOf(level));
        made->set_pattern("%Y-%m-%dT%H:%M:%S.%e %l %v");
        made->flush_on(spdlog::level::debug);  // what is not on the disk tells nothing after a crash
        made->set_error_handler(
            [](const std::string&) {});  // a full disk is told by the book, not by its log
        logger() = std::move(made);
    } catch (const std::exception&) {
        return problem(file.string(), "The log cannot be written there; the work goes on without one.");
    }
    return {};
}

void logLine(LogLevel level, std::string_view line) {
    if (logger() != nullptr && level != LogLevel::off) logger()->log(spdOf(level), line);
}

}  // namespace ombrek
