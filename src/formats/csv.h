#pragma once

#include <string>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

using CsvRow = std::vector<std::string>;

/// Rows of comma-separated text (RFC 4180, by libcsv), a byte-order mark taken off.
Result<std::vector<CsvRow>> readCsv(const std::string& text);

/// One row as RFC 4180 with a line end. A cell that a spreadsheet would take for a formula (begins with = + -
/// @ or a control character, and is no number) is preceded by an apostrophe.
std::string csvLine(const CsvRow& cells);

}  // namespace ombrek
