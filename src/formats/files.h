#pragma once

#include <filesystem>
#include <string>

#include "core/quantity/problem.h"

namespace ombrek {

/// A whole file's bytes, refused when it is larger than `most` bytes or cannot be read. Pipes and "-", the
/// standard input, are read where the program has said so.
Result<std::string> readFile(const std::filesystem::path& path, std::uintmax_t most);

/// Said once at the start of a program that may wait: a pipe's end comes when it comes.
void readPipesToo();

/// Whether two names are one file, by links too.
bool sameFile(const std::filesystem::path& a, const std::filesystem::path& b);

/// Write a file whole and through to the disk: to a neighbour first, then renamed over it, so that a full
/// disk or a power cut leaves the old one or the new one. A link is followed, who may read it stays.
/// @return a Problem for a book of Ombrek's or another database, and for whatever is there and no plain file
Result<void> writeFile(const std::filesystem::path& path, const std::string& bytes);

/// The folder of tables and demo kits: $OMBREK_DATA, or beside the program, or where it was built from.
std::filesystem::path dataFolder();

}  // namespace ombrek
