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

/// The end of an adjuster's travel at which its reading does no harm; none: it can do no harm anywhere.
enum class SafeEnd { none, low, high };

/// The same for an adjuster whose reading can do harm, as the bias of a final stage: from its safe end, never
/// beyond what has been read to be below the target by more than a step that cannot overshoot, and down at
/// once when it reads above.
///
/// A step is at most 2 % of the travel (with 5 V across the trimmer 100 mV, less than two decades of a
/// junction's current: common practice), and no more than the reading would need to grow to the target if it
/// went on as steeply, in per cent, as between the last two positions: safe for every curve whose growth
/// slows down, as a threshold with a straight, square or exponential rise.
/// @param readings  oldest first: it stands where the last was taken
/// @param safe      low or high
SettingEstimate approachSafely(const std::vector<AdjusterReading>& readings, double target, double tolerance,
                               Unit unit, SafeEnd safe);

}  // namespace ombrek
