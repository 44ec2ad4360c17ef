#pragma once

#include "formats/table_csv.h"
#include "kit/stock.h"

namespace ombrek {

/// What was read of a stock file.
struct StockFile {
    std::vector<StockLine> lines;
    std::vector<RefusedLine> refused;
};

/// The drawers from a table with the columns drawer, kind, value, tolerance, volts, watts, what, count, in
/// any order and dialect (docs/formats/stock.md). A line without a kind takes it from the value's unit.
Result<StockFile> readStock(const std::string& bytes, const Progress& progress = {});

/// The same columns back.
std::string writeStock(const std::vector<StockLine>& stock);

}  // namespace ombrek
