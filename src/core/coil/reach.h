#pragma once

#include <cstdint>

#include "core/coil/tank.h"

namespace ombrek {

/// How far the parts of a tuned circuit may be from what is written on them [%], and the trimmer's ends.
struct TankTolerance {
    double inductance = 5;  ///< of the core, or of the meter once it is measured
    double fixed = 5;       ///< of the fixed capacitors
    double trimmer = 10;    ///< of the trimmer's two ends
    double stray = 50;      ///< nobody knows it well
};

/// Chance that the trimmer tunes the whole band with its middle between 15 % and 85 % of the travel, and that
/// it reaches it at all, over the tolerances.
struct ReachChance {
    double reaches = 0;  ///< 0 … 1
    double healthy = 0;  ///< 0 … 1; also well inside its travel
    int trials = 0;
};

/// Monte Carlo over independent, evenly spread tolerances. The same seed gives the same answer everywhere.
/// @param low,high  the band [Hz] @return no trials when it cannot be reckoned with (see `reckonable`)
ReachChance chanceOfReach(double inductance, const TankCapacitance& tank, const TankTolerance& tolerance,
                          double low, double high, int trials = 20000, std::uint64_t seed = 1);

}  // namespace ombrek
