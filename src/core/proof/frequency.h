#pragma once

#include "core/quantity/verdict.h"
#include "core/quantity/working.h"

namespace ombrek {

/// (read − reference)/reference in parts per million. @throws std::domain_error unless reference > 0
double partsPerMillion(double read, double reference);

/// The comparison with its working, for the screen.
Working deviationWorking(double read, double reference, Unit unit = Unit::hertz);

/// A frequency against its rated value: within ±tolerance ppm, with the counter's uncertainty.
/// @param uncertainty  U of the reading [Hz]: ±1 count of the gate and the reference's error, combined
Verdict judgeFrequency(double read, double rated, double tolerancePpm, double uncertainty, VerdictRule rule);

/// Whether all of a signal lies inside a band at its worst error.
/// @param uncertainty  of the reading, with the counter's reference [Hz] @param bandwidth  of the signal [Hz]
/// @param low, high  edges of the band [Hz]
Verdict judgeInsideBand(double read, double uncertainty, double bandwidth, double low, double high);

}  // namespace ombrek
