#pragma once

#include "kit/stock.h"

namespace ombrek {

/// A line of stock as it is typed: drawer first, then value, ratings and words in any order, the count with
/// an x: "B3 22n 5% 100V film x4", "S1 transistor NPN small signal x9".
/// @return the line, or a sentence on what is missing
Result<StockLine> readStockText(std::string_view text);

/// The same back, to be changed by the builder.
std::string stockText(const StockLine& line);

}  // namespace ombrek
