#pragma once

#include <string>
#include <vector>

#include "judged/judged.h"

namespace ombrek {

/// What goes on a card in the rig's lid.
struct RigCard {
    std::string title;
    struct Band {
        std::string name, frequency, power;  ///< "40m", "7.030 MHz", "3.1 W at 13.8 V"
        bool proved = false;                 ///< everything of it passes
    };
    std::vector<Band> bands;
    struct Line {
        std::string what, text;
    };
    std::vector<Line> lines;  ///< supply, fuse, jumpers, offsets, dial; "not said" where nobody said it
    std::vector<std::string> defects;  ///< what known defects forbid
};

/// What is known of the rig, for its lid.
RigCard rigCard(const Judged& judged);

}  // namespace ombrek
