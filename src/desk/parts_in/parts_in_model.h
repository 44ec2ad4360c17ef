#pragma once

#include <string>
#include <vector>

#include "judged/bag.h"
#include "judged/judged.h"

namespace ombrek {

/// What the Parts in page shows, worked out from the book alone.
struct PartsInView {
    const Part* wanted = nullptr;  ///< the next on the clips, or null when the bag is through
    const Part* shown = nullptr;   ///< whose reading stands large
    std::string now, why;
    Verdict verdict;     ///< of `shown`
    std::string beside;  ///< "4.7 kΩ ±5 %"

    struct Dot {
        std::string ref;
        VerdictState state = VerdictState::notDone;
    };
    struct Row {
        std::string name;
        std::vector<Dot> dots;
    };
    std::vector<Row> rows;             ///< the bag by kind
    std::vector<BagTrouble> troubles;  ///< what the bag is telling
    std::string
        decider;  ///< the one measurement that would settle the closest call, or that it is being weighed
    std::string counts;                 ///< "61 of 104 in · 2 missing"
    PartAsk ask;                        ///< what to do with `wanted`
    std::vector<std::string> remedies;  ///< decided already, by line of `troubles`; empty where not
};

/// @param wanted  designator the builder chose; empty: the first that nothing is known of
/// @param shown   designator to show; empty: the part last read, or else `wanted`
/// @param zeroTaken  whether the stray of the L/C meter's clips is known
PartsInView partsInView(const Judged& judged, const std::string& wanted, const std::string& shown,
                        bool zeroTaken = true);

}  // namespace ombrek
