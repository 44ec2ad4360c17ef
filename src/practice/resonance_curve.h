#pragma once

#include <cmath>

namespace ombrek {

/// Amplitude of a tuned circuit of the practice rig off resonance, 0 … 1; loaded Q of 25.
inline double resonanceCurve(double frequency, double tuned) {
    constexpr double kLoadedQ = 25.0;
    const double x = kLoadedQ * (frequency / tuned - tuned / frequency);
    return 1.0 / std::sqrt(1.0 + x * x);
}

}  // namespace ombrek
