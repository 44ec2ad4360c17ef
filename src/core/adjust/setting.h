#pragma once

#include <vector>

#include "core/adjust/peak.h"

namespace ombrek {

/// Where to set an adjuster so that it reads a wanted value (a frequency, a current), from readings so far.
struct SettingEstimate {
    bool reachable = true;      ///< false: the readings at both ends stay on one side of the target
    double position = 0.0;      ///< estimate, 0 … 1
    double nextPosition = 0.0;  ///< where to read next, 0 … 1
    std::string sentence;
};

/// Linear interpolation between the two readings that bracket the target; if none do, an end not yet read is
/// proposed, and when both ends have been read the target is out of reach.
/// @param unit  of the readings, for the sentence
SettingEstimate estimateSetting(const std::vector<AdjusterReading>& readings, double target, Unit unit);

}  // namespace ombrek
