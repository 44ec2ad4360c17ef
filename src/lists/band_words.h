#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "formats/table_csv.h"

namespace ombrek {

/// What a row says for one band: "100p (40 m)".
struct SaidFor {
    std::string variant;  ///< "40 m"
    std::string text;     ///< "100p"
};

/// A row that says its value for each band in words: "100p (40 m), 47p (20 m)", "220p on 40m; 100p on 20m",
/// "40m: 20 turns, 20m: 12 turns on T37-6". What stands behind "on" in the last holds for all. Empty where
/// fewer than two bands are named so.
std::vector<SaidFor> saidForBands(std::string_view words);

/// A table whose rows are bands and whose columns are designators, turned round: "Band C1 C2 L1" and below it
/// a row a band.
struct BandTable {
    CsvTable table;    ///< a row a designator, a column a band
    std::string rest;  ///< the text without it; its lines are blank, so that the others keep their numbers
};
/// A table of parts by band; nothing when there is none.
std::optional<BandTable> bandTableIn(const std::string& text);

}  // namespace ombrek
