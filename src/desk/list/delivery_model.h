#pragma once

#include <string>
#include <vector>

#include "desk/pieces/lines.h"
#include "judged/judged.h"
#include "lists/packing_list.h"

namespace ombrek {

/// What the Delivery page shows: a packing list set against what the kit ordered.
struct DeliveryView {
    QString now, why;
    std::vector<DeliveryLine> lines;  ///< what is wrong first
    std::vector<StateLine> rows;
    std::size_t row = 0;               ///< brought into what there is
    std::vector<std::string> notCome;  ///< ordered, not come, and nothing is known of them yet
    std::vector<Fact> counts;
    QString title, text;  ///< of the counts
};

/// A packing list beside the kit's, with the row in hand.
DeliveryView deliveryView(const Judged& judged, const std::vector<PackingLine>& packing, std::size_t row);

}  // namespace ombrek
