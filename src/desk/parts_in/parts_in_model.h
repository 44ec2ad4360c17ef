#pragma once

#include <string>
#include <vector>

#include "kit/build.h"
#include "kit/kit.h"

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
    std::vector<Row> rows;  ///< the bag by kind
    struct Trouble {
        std::string head, sentence;
        VerdictState state = VerdictState::fail;
    };
    std::vector<Trouble> troubles;  ///< what the bag is telling
    std::string counts;             ///< "61 of 104 in · 2 missing"
};

/// @param wanted  designator the builder chose; empty: the first that nothing is known of
/// @param shown   designator to show; empty: the part last read, or else `wanted`
PartsInView partsInView(const Kit& kit, const Build& build, const std::string& wanted,
                        const std::string& shown);

}  // namespace ombrek
