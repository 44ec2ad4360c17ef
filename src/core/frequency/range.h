#pragma once

#include <string>
#include <vector>

#include "core/coil/tank.h"

namespace ombrek {

/// What a tuning range should be.
struct WantedRange {
    double low = 0, high = 0;  ///< [Hz]
};

/// What would bring the start of a range to where it is wanted.
struct RangeMove {
    double hertz = 0;        ///< that the low end has to move; below nothing: down
    double capacitance = 0;  ///< more (or, below nothing, less) across the coil [F]
    double turns = 0;        ///< more, or fewer, on the coil, not rounded
};

/// From the low end as it is to the one wanted, by f = 1/(2π√(LC)), with the tank at half travel of its
/// trimmer. @param turns  on the coil now
RangeMove moveStart(double lowNow, double lowWanted, const TankCapacitance& tank, int turns);

/// A range that was measured against the one that is wanted.
struct RangeVerdict {
    VerdictState state = VerdictState::notDone;
    double covered = 0;           ///< of the wish, 0 … 1
    double below = 0, above = 0;  ///< of what is tuned beyond the wish, on either side [Hz]
    std::string sentence;
};
/// @param edge  true: beyond the wish nothing may be transmitted, as at the edge of a band
RangeVerdict judgeRange(double low, double high, const WantedRange& wanted, bool edge);

}  // namespace ombrek
