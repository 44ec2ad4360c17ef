#pragma once

#include <string>
#include <vector>

#include "kit/build.h"
#include "kit/kit.h"
#include "station/parts_in/bag_story.h"

namespace ombrek {

/// One thing behind many readings that are off by one ratio.
struct OneCause {
    enum class What {
        packed,  ///< the parts of one line are all of another value
        scale    ///< everything that is read in this unit is off: the meter, not the parts
    } what = What::packed;
    std::vector<std::string> refs;  ///< the parts whose readings it explains
    double ratio = 1;               ///< reading to nominal
    std::string head;               ///< "All six 22 nF read 33 nF"
    std::string sentence;           ///< why, and what to do
};

/// Causes that explain several readings at once, of the last reading of each part: at least three parts of
/// one line, most of them outside and within a few per cent of one ratio; or at least four parts of two lines
/// or more of one kind, nearly all off by the same ratio, which is the meter's scale and no fault of the bag.
std::vector<OneCause> oneCauses(const Kit& kit, const Build& build);

/// The troubles of a bag with those that have one cause told once, in its words, by its first part.
std::vector<BagTrouble> toldOnce(std::vector<BagTrouble> troubles, const std::vector<OneCause>& causes);

}  // namespace ombrek
