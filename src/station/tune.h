#pragma once

#include <optional>

#include "core/adjust/by_ear.h"
#include "core/adjust/peak.h"
#include "core/adjust/setting.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

class Judged;

/// Of a comparison by ear: where the adjuster stood before. Its reading is 1 louder, 0 the same, −1 softer,
/// and has no unit.
inline constexpr std::string_view kBefore = "before";

/// What the readings of one adjustment tell.
struct TuneState {
    std::vector<AdjusterReading> readings;  ///< as read, oldest first
    std::vector<HeardPoint> heard;          ///< by ear, since the last that was a number
    std::optional<PeakEstimate> peak;       ///< of a peak with a fitted curve; its readings are amplitudes
    double bestPosition = 0.5;              ///< estimated
    double nextPosition = 0.5;              ///< where to read next
    VerdictState state = VerdictState::notDone;
    std::string sentence;
    std::string remedy;  ///< in turns, when the trimmer is at its end
    std::string other;   ///< id of the partner that is to be turned next instead; empty: this one
};

/// Peak: estimated from amplitudes (powers are taken as their roots), or by ear. Null: bracketed; with
/// partners by all their readings together. Set: the last reading against target ± tolerance, and the
/// interpolated position. An end stop names the turns to add or remove on the coil.
TuneState tuneState(const Kit& kit, const Adjustment& adjustment, const Build& build);

/// The next adjustment that is not settled, or null.
const Adjustment* nextAdjustment(const Judged& judged);

}  // namespace ombrek
