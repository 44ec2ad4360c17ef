#pragma once

#include <optional>

#include "formats/list_text.h"
#include "formats/table_csv.h"

namespace ombrek {

/// What a column of a parts list holds.
enum class Column { none, refs, quantity, kind, value, description, tolerance, package, volts, mark, code };
inline constexpr int kColumns = 11;
/// "Designator", "Quantity", … as the preview shows it.
std::string_view word(Column column);

/// How a list's columns are to be read.
struct ListShape {
    std::vector<Column> columns;
    std::size_t headerRows = 0;  ///< rows before the parts
    /// The header's words, which name the shape of a file from the same source; empty without a header.
    std::string key;
};

/// The columns by their heading and by what stands in them; wordings of several languages.
ListShape guessShape(const CsvTable& table);

/// The rows of a table as parts-list lines. A row without a designator is refused with its line.
PartsList readListTable(const CsvTable& table, const ListShape& shape, const Progress& progress = {});

/// A shape in text, to remember it, and back.
std::string shapeText(const ListShape& shape);
std::optional<ListShape> readShape(const std::string& text);

/// Whether bytes are rather a table than pasted text: most lines have equally many cells and one column is
/// designators.
bool looksLikeTable(const std::string& bytes);

}  // namespace ombrek
