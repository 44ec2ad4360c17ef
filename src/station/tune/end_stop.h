#pragma once

#include <string>
#include <vector>

#include "kit/stock.h"
#include "station/tune/tune.h"

namespace ombrek {

/// One way out of a peak at an end of the travel.
struct EndStopWay {
    std::string what;  ///< "Add 3 turns on T1", "22 pF across C11, from drawer B2"
    double odds = 0;   ///< that the trimmer then reaches the peak with room to both sides
};

/// Turns first, then what the drawers hold: a capacitor across the fixed one, or a smaller one in its place;
/// by falling odds, three of them at most. Empty when nothing can be reckoned: not at an end, no coil with a
/// known circuit, or the peak was not found from numbers.
/// @param drawers  the builder's stock; only capacitors of which there are any count
std::vector<EndStopWay> waysFromEndStop(const Kit& kit, const Adjustment& adjustment, const Build& build,
                                        const TuneState& state, const std::vector<StockLine>& drawers);

}  // namespace ombrek
