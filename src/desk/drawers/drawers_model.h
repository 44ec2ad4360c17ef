#pragma once

#include <QString>
#include <vector>

#include "desk/pieces/lines.h"
#include "kit/stock.h"

namespace ombrek {

/// The line of stock in hand, as the Drawers page shows it.
struct DrawerLineView {
    QString title, what, promised;
    int count = 0;
};
/// One line of the drawers, with what is kept back of it.
DrawerLineView drawerLineView(const StockLine& line, const std::vector<Promise>& promises);

/// A line of the list: a mark while any of it is free.
StateLine drawerRow(const StockLine& line, const std::vector<Promise>& promises, bool current);

/// What the page says and how many lines fit.
struct DrawersView {
    QString now, why, found;
};
/// What is said over the lines. @param fit  lines that the search lets pass
DrawersView drawersView(std::size_t fit, std::size_t all);

/// Parts over of a kit, as lines of the drawer "spares". @param ids  set to the loose parts' numbers
class Judged;
std::vector<StockLine> sparesOf(const Judged& judged, std::vector<std::int64_t>& ids);

}  // namespace ombrek
