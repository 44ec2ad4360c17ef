#pragma once

#include <cmath>
#include <string>
#include <vector>

#include "core/adjust/resonance.h"
#include "core/coil/tank.h"
#include "core/quantity/verdict.h"

namespace ombrek {

/// One reading at one position of an adjuster; position 0 … 1 is its travel from least to most.
struct AdjusterReading {
    double position = 0.0;
    double reading = 0.0;
    double error = 0.0;  ///< a standard deviation [unit of the reading]; 0: not said
};

/// What the readings say about where the peak is.
struct PeakEstimate {
    enum class Kind { tooFew, inside, atLeast, atMost, twoHumps };
    Kind kind = Kind::tooFew;
    double position = 0.0;      ///< of the peak; outside 0 … 1 when it is beyond an end stop
    double low = 0, high = 1;   ///< between which it lies, 19 of 20 times [travel]
    double reading = 0.0;       ///< to be expected there
    double halfWidth = 0.0;     ///< from the peak to 0.707 of it [travel]; 0 when no curve could be fitted
    double nextPosition = 0.0;  ///< the reading that would tell most, 0 … 1
    double loss = NAN;          ///< where it stands, against the peak [dB]; NaN: cannot tell
    VerdictState state = VerdictState::notDone;
    std::string sentence;
};

/// How much may be lost where the adjuster is left [dB].
inline constexpr double kSettledLoss = 0.1;

/// What readings scatter by themselves when nobody says so, as a share of each (common practice: a steady
/// meter).
inline constexpr double kUsualNoise = 0.005;

/// Where a tuned circuit peaks, from at least three readings at different positions.
///
/// All curves of one tuned circuit, and of two that are coupled, that the readings leave possible are weighed
/// (see resonance.h). It is settled (pass) when the adjuster *stands* where at most 0.1 dB is lost, nine
/// times of ten, and falls on both sides; until then `nextPosition` is the reading that would tell most. A
/// peak within 3 % of an end, or beyond it, is an end stop once that end was read: the coil is wrong, not the
/// trimmer. Source: response of a single tuned circuit, 10·log10(1 + (off/half width)²) dB; the end-stop rule
/// is common practice.
/// @param readings  amplitudes (volts), positive; powers must be given as their square roots; oldest first,
///                  so that the adjuster stands where the last was taken
/// @param noise     of one reading, as a share of it; NaN: not known
PeakEstimate estimatePeak(const std::vector<AdjusterReading>& readings, double noise = kUsualNoise);

/// The fitted response at a position. @param peak  with a halfWidth above 0
double responseAt(const PeakEstimate& peak, double position);

/// Off the peak where the power has just fallen by a share, for one tuned circuit: P goes as
/// 1/(1 + (off/half width)²). @return how far [travel]
double backOff(const PeakEstimate& peak, double share);

/// Turns that would bring a peak found beyond an end stop to the middle of the trimmer's travel.
///
/// C at the (extrapolated) peak tells the inductance that resonates; half travel tells the one wanted.
/// @return turns to add (negative: to remove), at least one either way
int endStopRemedy(const PeakEstimate& peak, const TankCapacitance& tank, int turns);

}  // namespace ombrek
