#pragma once

#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "core/coil/core.h"
#include "lists/list_table.h"
#include "lists/list_text.h"

namespace ombrek {

/// What was made of a file or of pasted text.
struct ListSource {
    bool table = false;
    CsvTable cells;   ///< of a table
    ListShape shape;  ///< of a table
    PartsList list;
};

/// A parts list however it comes: CSV of any dialect, a table set in columns with blanks or bars, or text
/// pasted from a manual. Where it may be a table or text, the reading in which more is understood is taken.
/// @param remembered  a shape the user corrected for files with this header; may be empty
/// @param variant     which of the kit's variants is built; empty: not chosen
/// @return a Problem when nothing in it is a part, or `progress` says stop
Result<ListSource> readPartsList(
    const std::string& bytes, const Progress& progress = {},
    const std::function<std::optional<ListShape>(const std::string& key)>& remembered = {},
    const std::string& variant = {});

/// A sentence when a list does not come in the variant that is named.
std::optional<Problem> unknownVariant(const PartsList& list, const std::string& variant);

/// The largest list file read.
inline constexpr std::uintmax_t kLargestList = 64000000;

/// Whether anything of a list is to be built, so that a kit can be made of it.
bool anyFitted(const PartsList& list);

/// A kit one can build, as kit JSON (docs/formats/kit.md): one part a designator, and the steps of a plan
/// made from the parts alone. Parts that are not fitted are left out.
/// Coils whose core is in the table and whose turns are said come with their windings.
std::string kitFromList(const PartsList& list, const std::string& name,
                        const std::vector<MagneticCore>& cores);

}  // namespace ombrek
