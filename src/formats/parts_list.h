#pragma once

#include <filesystem>

#include "formats/list_csv.h"

namespace ombrek {

/// What was made of a file or of pasted text.
struct ListSource {
    bool table = false;
    CsvTable cells;   ///< of a table
    ListShape shape;  ///< of a table
    PartsList list;
};

/// A parts list however it comes: CSV of any dialect, or text pasted from a manual.
/// @param remembered  a shape the user corrected for files with this header; may be empty
/// @return a Problem when nothing in it is a part, or `progress` says stop
Result<ListSource> readPartsList(
    const std::string& bytes, const Progress& progress = {},
    const std::function<std::optional<ListShape>(const std::string& key)>& remembered = {});

/// The largest list file read.
inline constexpr std::uintmax_t kLargestList = 64000000;

/// A kit one can build, as kit JSON (docs/formats/kit.md): one part a designator, and the steps of a plan
/// made from the parts alone. Lines without a value to go by are taken as described parts.
std::string kitFromList(const PartsList& list, const std::string& name);

}  // namespace ombrek
