#pragma once

#include <filesystem>
#include <optional>
#include <string_view>

#include "core/quantity/problem.h"

namespace ombrek {

// A log for finding out afterwards what went wrong: start, books opened, what was refused, talk with
// instruments. Never what the builder wrote (remarks, reasons) and nothing that leaves this machine.

enum class LogLevel { debug, info, warning, off };

/// "debug", "info", "warning" or "off"; nothing for any other word.
std::optional<LogLevel> logLevel(std::string_view word);

/// The user's state folder: $XDG_STATE_HOME/ombrek/ombrek.log, or ~/.local/state in its place.
std::filesystem::path usualLogFile();

/// Begin to write: three files of a megabyte at most, the oldest goes. Before it, and when it fails, nothing
/// is written. May be called again.
Result<void> startLog(const std::filesystem::path& file, LogLevel level);

/// One line, from any thread.
void logLine(LogLevel level, std::string_view line);

}  // namespace ombrek
