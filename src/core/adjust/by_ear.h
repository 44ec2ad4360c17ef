#pragma once

#include <vector>

#include "core/adjust/peak.h"

namespace ombrek {

/// What was heard: at `position` against `before`, where the adjuster stood; −1 softer, 0 the same, 1 louder.
struct HeardPoint {
    double before = 0, position = 0;
    int louder = 0;
};

/// "louder", "the same", "softer".
const char* heardWord(int louder);

/// What is compared, and what is sought.
struct Hearing {
    bool marks = false;  ///< marks of a scale, that can be compared with the highest without going back to it
    bool least = false;  ///< the least is sought, a null
};

/// Where it is loudest, from comparisons alone: no loudness is ever a number.
///
/// The loudest place so far is kept between softer ones on either side, and the wider side is cut (Kiefer
/// 1953). Places that sound the same lie on both sides of the peak: once their edges are known, it stands in
/// their middle. The level that an ear tells apart cancels out of it. Loudest at an end is an end stop.
/// @param heard  oldest first, so that it stands at the last position
PeakEstimate peakByEar(const std::vector<HeardPoint>& heard, Hearing hearing = {});

}  // namespace ombrek
