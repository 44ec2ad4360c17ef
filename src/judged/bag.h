#pragma once

#include "judged/judged.h"

namespace ombrek {

/// The bag as it stands; `Judged::bag` reckons it once.
BagCount countBag(const Judged& judged);

/// Every part in the order of the chosen way: by kind and value, or as the plan fits them.
std::vector<const Part*> partsInOrder(const Judged& judged);

/// The part to ask for next, or null. Before fitting, only parts of the step that is next on the board.
const Part* nextPart(const Judged& judged);

/// What to do with a part, by the chosen depth.
struct PartAsk {
    enum class How {
        measure,
        look,  ///< at its mark, or only for it
        count  ///< all of a like line at once, on trust
    };
    How how = How::look;
    std::vector<std::string> refs;  ///< the part, or all of the like line that are still open
    std::string reason;             ///< why it is measured though only doubtful parts are; may be empty
};
/// What is asked of a part. @param part  one of the kit's
PartAsk askFor(const Judged& judged, const Part& part);

}  // namespace ombrek
