#pragma once

#include "lists/columns.h"
#include "lists/parts.h"

namespace ombrek {

/// The rows of a table as parts-list lines. A row without a designator is hardware, a heading or the rest of
/// the row above, or is refused with its line. A second header begins a second section.
/// @param variant  which of the kit's variants is built; empty: not chosen, what differs is a doubt
PartsList readListTable(const CsvTable& table, const ListShape& shape, const Progress& progress = {},
                        const std::string& variant = {});

/// A table whose heading stands twice or more beside itself, its columns below each other: one row a block.
CsvTable unfolded(CsvTable table);

/// A variant's name, for comparing: "40 m" and "40m" are one.
std::string plainVariant(std::string_view name);

/// Text set in columns with blanks, below a heading: a table by the places where its columns begin. Nothing
/// when there is no such heading or the rows do not keep to it.
std::optional<CsvTable> tableByPlace(const std::string& text);

/// Whether a table of text is one: most lines have equally many cells and one column is designators.
bool looksLikeTable(const CsvTable& table);
bool looksLikeTable(const std::string& bytes);

}  // namespace ombrek
