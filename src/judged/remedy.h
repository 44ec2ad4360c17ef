#pragma once

#include <string>
#include <vector>

#include "core/parts/substitute.h"
#include "judged/judged.h"
#include "kit/stock.h"

namespace ombrek {

/// Where a part that was not found may still hide.
struct LookPlace {
    std::string where, why;
};

/// Likeliest first: loose parts that may be it, parts taken for another line, like-looking parts that were
/// never measured, bags not yet gone through, and then where small parts usually hide (common practice).
std::vector<LookPlace> lookAgain(const Judged& judged, const std::string& ref);

/// What in the builder's drawers, free of other kits' promises, can stand for a line; best first.
std::vector<Substitute> fromDrawers(const Part& part, const std::vector<StockLine>& stock,
                                    const std::vector<Promise>& promises, std::int64_t build,
                                    std::size_t most = 8);

/// "68 nF and 33 nF in parallel, drawer B3".
/// @param withDrawer  say also where it lies
std::string describe(const Substitute& substitute, const std::vector<StockLine>& stock,
                     bool withDrawer = true);

/// One line to buy: like parts together.
struct ShoppingLine {
    std::vector<std::string> refs;
    int quantity = 0;
    PartKind kind = PartKind::other;
    std::string value, tolerance, rating, code;
};

/// Every line that is missing or wrong and not settled from a drawer or by another type.
std::vector<ShoppingLine> shoppingList(const Judged& judged);
}  // namespace ombrek
