#pragma once

#include <filesystem>
#include <string>

#include "core/quantity/problem.h"

namespace ombrek {

/// A whole file's bytes, refused when it is larger than `most` bytes or cannot be read.
Result<std::string> readFile(const std::filesystem::path& path, std::uintmax_t most);

/// Write a file whole and through to the disk: to a neighbour first, then renamed over it, so that a full
/// disk or a power cut leaves the old one or the new one.
Result<void> writeFile(const std::filesystem::path& path, const std::string& bytes);

/// The folder of tables and demo kits: $OMBREK_DATA, or beside the program, or where it was built from.
std::filesystem::path dataFolder();

}  // namespace ombrek
