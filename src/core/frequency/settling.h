#pragma once

#include <cmath>
#include <string>
#include <vector>

#include "core/quantity/quantity.h"
#include "core/quantity/verdict.h"

namespace ombrek {

/// A reading and when it was taken.
struct TimedReading {
    double seconds = 0, value = 0;
};

/// How something that warms up goes on.
struct Settling {
    VerdictState state = VerdictState::notDone;  ///< pass: settled; doubtful: it still moves
    double rate = NAN;                           ///< now [per minute]
    double final = NAN;                          ///< where it will end
    double left = NAN;                           ///< that it will still move
    double minutes = NAN;                        ///< until what is left is allowed; NaN: cannot tell
    std::string sentence;
};

/// One exponential approach is fitted, its time constant between 15 seconds and two hours; it is settled when
/// what is left to go, with its own doubt, is no more than allowed. Source: heating of a body, any physics
/// text; readings every ten seconds are common practice.
/// @param allowed  that it may still move [unit of the readings]
Settling settlingOf(std::vector<TimedReading> readings, double allowed, Unit unit);

}  // namespace ombrek
