#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "judged/judged.h"

namespace ombrek {

/// One label, tray or line to pick: like parts together.
struct PartLabel {
    std::string group;  ///< "Resistors", or the step that fits them
    std::vector<std::string> refs;
    std::string value;  ///< "4.7 kΩ ±5 %"
    std::string mark;   ///< the mark to expect
    PartKind kind = PartKind::other;
};

/// What a way of working prints.
struct LabelSheet {
    BagWay way = BagWay::byKind;
    std::string title;  ///< "Lantern 15, tray map"
    std::vector<PartLabel> labels;
};

/// "tray map", "bag labels", "picking list".
std::string_view labelsName(BagWay way);

/// By kind: one tray a value. By the plan: one label for the like parts of each step, in the plan's order.
/// Before fitting: the same for the steps that are not done yet.
LabelSheet labelSheet(const Judged& judged);

}  // namespace ombrek
