#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "formats/table_csv.h"

namespace ombrek {

/// What a column of a parts list holds. Kept in books by number: new ones come last.
enum class Column {
    none,
    refs,
    quantity,
    kind,
    value,
    description,
    tolerance,
    package,
    volts,
    mark,
    code,
    mpn,
    remark,
    fitted,
    notFitted,
    variant,     ///< the value in one variant of the kit, "40 m"
    forVariant,  ///< which variant the row is for
    winding      ///< of a coil: its core, turns, wire or length
};
inline constexpr int kColumns = 18;
/// "Designator", "Quantity", … as the preview shows it.
std::string_view word(Column column);

/// How a list's columns are to be read.
struct ListShape {
    std::vector<Column> columns;
    std::vector<std::string> headings;  ///< as they stand; empty without a header
    std::size_t headerRows = 0;         ///< rows before the parts
    /// The header's words, which name the shape of a file from the same source; empty without a header.
    std::string key;
};

/// How many cells of a row are headings of a parts list.
std::size_t headingsIn(const CsvRow& row);
/// A row that names columns: two headings or more, one of them of designators or of values.
bool isHeader(const CsvRow& row);

/// The columns by their heading and by what stands in them; wordings of several languages.
ListShape guessShape(const CsvTable& table);

/// Names of the variants that a shape has columns for.
std::vector<std::string> variantsOf(const ListShape& shape);

/// "40m", "80 m", "7 MHz", "Version B", "Value 40m": a heading for one variant of a kit.
bool isVariantWord(std::string_view cell);

/// The prefix that a heading gives to bare numbers: "p" of "Value (pF)"; empty: none.
std::string prefixOf(std::string_view heading);

/// What a bare number under a heading of windings counts: "turns" of "Windungen", "AWG" of "Wire (AWG)", "cm"
/// of "Length cm"; empty: nothing that is said.
std::string countedBy(std::string_view heading);

/// A shape in text, to remember it, and back.
std::string shapeText(const ListShape& shape);
std::optional<ListShape> readShape(const std::string& text);

}  // namespace ombrek
