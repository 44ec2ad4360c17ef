#pragma once

#include <optional>

#include "core/adjust/peak.h"
#include "core/adjust/setting.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

class Judged;

/// What the readings of one adjustment tell.
struct TuneState {
    std::vector<AdjusterReading> readings;  ///< as read, oldest first
    std::optional<PeakEstimate> peak;       ///< of a peak with a fitted curve; its readings are amplitudes
    double bestPosition = 0.5;              ///< estimated
    double nextPosition = 0.5;              ///< where to read next
    VerdictState state = VerdictState::notDone;
    std::string sentence;
    std::string remedy;  ///< in turns, when the trimmer is at its end
};

/// Peak: estimated from amplitudes (powers are taken as their roots). Null: bracketed. Set: the last reading
/// against target ± tolerance, and the interpolated position. An end stop names the turns to add or remove on
/// the coil.
TuneState tuneState(const Kit& kit, const Adjustment& adjustment, const Build& build);

/// The next adjustment that is not settled, or null.
const Adjustment* nextAdjustment(const Judged& judged);

}  // namespace ombrek
