#pragma once

#include "core/coil/tank.h"

namespace ombrek {

/// Where a peak is believed to lie on a trimmer's travel, beyond its ends too.
struct PeakBelief {
    double position = 0.5;
    double deviation = 0.1;  ///< a standard deviation [travel]
};

/// What is done to a circuit that peaks at an end.
struct CircuitChange {
    double inductance = 1;   ///< becomes this many times what it was
    double capacitance = 0;  ///< put across it; negative: taken away [F]
};

/// Where the peak is believed to lie afterwards: the capacitance that resonates goes as 1/L.
PeakBelief changed(const PeakBelief& peak, const TankCapacitance& tank, const CircuitChange& change);

/// Odds that the trimmer then reaches it with room to both sides, 3 % of its travel at least; of a normal
/// belief.
double reachOdds(const PeakBelief& peak);

}  // namespace ombrek
