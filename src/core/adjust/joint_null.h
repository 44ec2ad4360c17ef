#pragma once

#include <cmath>
#include <string>
#include <vector>

namespace ombrek {

/// What is left of what is nulled, with several adjusters as they stand.
struct NullReading {
    std::vector<double> at;  ///< positions, 0 … 1 each
    double db = 0;           ///< lower is better
};

/// What all readings say together of a null that adjusters reach with each other.
struct JointNull {
    std::vector<double> best;  ///< where all of them together should stand
    double floor = NAN;        ///< what should be left there [dB]; NaN: cannot tell
    double stands = NAN;       ///< what was left at the last reading [dB]
    int adjuster = 0;          ///< to be turned next, from 0; −1: none
    double position = 0.5;     ///< to which
    bool converged = false;    ///< it stands within a decibel or so of what can be reached
    std::string sentence;
};

/// What is left near a null grows with the square of how far each adjuster is off, and with their products
/// where they pull each other: a quadratic in power is fitted to all readings, the low ones counting most,
/// with a belief beforehand that no adjuster matters much more than another. One adjuster is turned at a
/// time: the one, and to where, from which most can be hoped. Source: response surfaces, any text on
/// experiments; a lower confidence bound for where to look (Cox and John 1992, from memory).
/// @param readings  oldest first; each with `adjusters` positions; others are left out
/// @param adjusters  1 to 4
JointNull jointNull(const std::vector<NullReading>& readings, std::size_t adjusters);

/// Rejection of the unwanted side of a quadrature receiver or exciter [dB] with an error of phase and
/// amplitude; infinite without any. Source: 10·log10((1 + 2k·cos φ + k²)/(1 − 2k·cos φ + k²)), any text on
/// the phasing method.
double quadratureRejection(double phaseDegrees, double amplitudeDb);

}  // namespace ombrek
