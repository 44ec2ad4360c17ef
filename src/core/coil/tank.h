#pragma once

#include <string>

#include "core/quantity/verdict.h"
#include "core/quantity/working.h"

namespace ombrek {

/// The capacitance across a coil that a trimmer tunes [F].
struct TankCapacitance {
    double fixed = 0.0;
    double stray = 0.0;
    double trimmerLow = 0.0;
    double trimmerHigh = 0.0;

    /// Of the trimmer at a position 0 … 1, with what is fixed [F].
    double at(double position) const {
        return fixed + stray + trimmerLow + position * (trimmerHigh - trimmerLow);
    }
};

/// Resonance [Hz], f = 1/(2π√(LC)). @throws std::domain_error unless both are positive
double resonance(double inductance, double capacitance);

/// Inductance that resonates with a capacitance at a frequency [H].
double inductanceFor(double frequency, double capacitance);

struct TrimmerCover {
    double lowest = 0.0;    ///< frequency with the trimmer full in [Hz]
    double highest = 0.0;   ///< frequency with the trimmer at its least [Hz]
    double position = 0.0;  ///< trimmer position at the target, 0 least to 1 most; beyond that: out of reach
    double turnsToCentre = 0.0;  ///< turns that would put the target at half travel, not rounded
    VerdictState state = VerdictState::notDone;
    std::string sentence;
    Working working;
};

/// Does the trimmer reach from one end of a band to the other with this inductance?
///
/// Pass: both ends of the band are reached and the middle lies between 15 % and 85 % of the travel; doubtful:
/// reached, but nearer to an end; fail: not reached, and the sentence says how many turns to add or remove.
/// What cannot be reckoned with (see `reckonable`) cannot be told.
/// @param inductance  measured or computed [H] @param turns  now on the core, at least 1
/// @param low,high    the band [Hz]
/// Source: Thomson's formula; the 15 % to 85 % rule is common practice.
TrimmerCover trimmerCover(double inductance, int turns, const TankCapacitance& tank, double low, double high);

/// Whether a coil with a trimmer can be reckoned with at all: an inductance, a band and a trimmer's range.
bool reckonable(double inductance, const TankCapacitance& tank, double low, double high);

/// Between 15 % and 85 % of its travel a trimmer has room to both sides (common practice).
inline bool inTheMiddle(double position) { return position >= 0.15 && position <= 0.85; }

/// Whole turns to add (negative: to remove) so that the target comes to half travel; 0 when it lies between
/// 15 % and 85 % already.
int turnsChange(const TrimmerCover& cover, int turns);

}  // namespace ombrek
