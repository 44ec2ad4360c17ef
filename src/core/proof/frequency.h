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

}  // namespace ombrek
