#pragma once

#include <cmath>
#include <string>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// What is heard in a recording of two carriers against each other.
struct Beat {
    double tone = NAN;  ///< the strongest note [Hz]: the difference itself when only one carrier is heard
    double toneError = NAN;  ///< half of its interval [Hz]
    double slow = NAN;       ///< the rate at which its strength goes up and down [Hz]; NaN: it does not
    double slowError = NAN;
    std::string sentence;
};

/// The note by a Fourier transform with a Hann window and the parabola through the top of its logarithm; the
/// slow beat by the same of its strength. Source: spectral peak interpolation, any text on it; two tones
/// within a hertz are told by their slow beat (common practice).
/// @param samples  mono @param rate  a second
/// @return a Problem when it is too short, or nothing but noise
Result<Beat> beatOf(const std::vector<float>& samples, double rate);

}  // namespace ombrek
