#pragma once

#include <string>
#include <vector>

#include "core/coil/tank.h"
#include "core/quantity/verdict.h"

namespace ombrek {

/// One reading at one position of an adjuster; position 0 … 1 is its travel from least to most.
struct AdjusterReading {
    double position = 0.0;
    double reading = 0.0;
};

/// What the readings say about where the peak is.
struct PeakEstimate {
    enum class Kind { tooFew, inside, atLeast, atMost };
    Kind kind = Kind::tooFew;
    double position = 0.0;      ///< of the peak; outside 0 … 1 when it is beyond an end stop
    double reading = 0.0;       ///< to be expected there
    double halfWidth = 0.0;     ///< from the peak to 0.707 of it [travel]; 0 when no curve could be fitted
    double nextPosition = 0.0;  ///< the reading that would tell most, 0 … 1
    VerdictState state = VerdictState::notDone;
    std::string sentence;
};

/// How much may be lost where the adjuster is left [dB].
inline constexpr double kSettledLoss = 0.1;

/// Where a tuned circuit peaks, from at least three readings at different positions.
///
/// Near resonance the response y falls as 1/y² = a + b·(x − x0)², so a parabola is fitted to 1/y² of the
/// readings above a third of the best one (all, when there are fewer than three such), each weighted by the
/// error it then has (y³, for equal errors of y). It is settled (pass) when the adjuster *stands* where at
/// most 0.1 dB is lost, shown by a reading there, with lower ones near on both sides; until then
/// `nextPosition` is the one that is lacking. A peak within 3 % of an end, or beyond it, is an end stop: the
/// coil is wrong, not the trimmer. Source: response of a single tuned circuit, 10·log10(1 + (off/half
/// width)²) dB; the end-stop rule is common practice.
/// @param readings  amplitudes (volts), positive; powers must be given as their square roots; oldest first,
///                  so that the adjuster stands where the last was taken
PeakEstimate estimatePeak(const std::vector<AdjusterReading>& readings);

/// The fitted response at a position. @param peak  with a halfWidth above 0
double responseAt(const PeakEstimate& peak, double position);

/// Turns that would bring a peak found beyond an end stop to the middle of the trimmer's travel.
///
/// C at the (extrapolated) peak tells the inductance that resonates; half travel tells the one wanted.
/// @return turns to add (negative: to remove), at least one either way
int endStopRemedy(const PeakEstimate& peak, const TankCapacitance& tank, int turns);

}  // namespace ombrek
