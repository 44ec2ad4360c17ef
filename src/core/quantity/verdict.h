#pragma once

#include <limits>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/quantity.h"

namespace ombrek {

/// Where a value must lie; either end may be infinite.
struct Limits {
    double low = -std::numeric_limits<double>::infinity();
    double high = std::numeric_limits<double>::infinity();

    bool holds(double value) const { return value >= low && value <= high; }
    double halfWidth() const { return (high - low) / 2.0; }
};

/// nominal ± percent, in order also for a negative nominal.
Limits limitsAround(double nominal, double tolerancePercent);

enum class VerdictState { pass, doubtful, fail, cannotTell, notDone };

/// Significant figures that tell the limits apart and place a reading between them: 4, or more for a narrow
/// band (15.997 MHz to 16.003 MHz needs 6).
int figuresFor(const Limits& limits);

/// The word shown beside the verdict's shape: "pass", "doubtful", "fail", "cannot tell", "not done".
std::string_view word(VerdictState state);

/// How strictly a reading near a limit is taken; builders differ.
enum class VerdictRule {
    guardBand,  ///< the meter's error counts: near a limit the verdict is doubtful (JCGM 106, ILAC-G8)
    simple      ///< inside is pass, outside is fail
};

/// "4.75 V to 5.25 V", "at least 500 Ω", "at most 0.3 V".
std::string limitsText(const Limits& limits, Unit unit);

/// One judgement, the same everywhere: a state, the sentence why, and the numbers behind it.
struct Verdict {
    VerdictState state = VerdictState::notDone;
    std::string sentence;
    double reading = std::numeric_limits<double>::quiet_NaN();
    Limits limits;
    double uncertainty = 0.0;  ///< expanded, U = 2u
    Unit unit = Unit::none;
};

/// Judge a reading against limits with the meter's expanded uncertainty U.
///
/// Guard band: pass inside by more than U, fail outside by more than U, otherwise doubtful; if U exceeds half
/// the tolerance band and the reading is not clearly outside, cannot tell, and the sentence says which meter
/// could. Source: JCGM 106, ILAC-G8 (guard band); the simple rule is common practice.
/// @param uncertainty  U [unit of the reading]; negative, no number or beyond 1e100: it cannot be told
Verdict judge(double reading, const Limits& limits, double uncertainty, VerdictRule rule, Unit unit);

/// Judge a reading of which no more is known than that it is `least` or more (an overload, ">20 MΩ"): above
/// an upper limit it fails, at or above a lower limit that stands alone it passes, else it cannot tell.
Verdict judgeBeyond(double least, const Limits& limits, Unit unit);

/// The worst of several, for a gate: fail, then cannot tell, doubtful, not done, pass. Empty: not done.
VerdictState worst(const std::vector<VerdictState>& states);

}  // namespace ombrek
