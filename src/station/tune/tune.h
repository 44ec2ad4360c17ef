#pragma once

#include <optional>

#include "core/adjust/bias.h"
#include "core/adjust/by_ear.h"
#include "core/adjust/peak.h"
#include "core/adjust/scale.h"
#include "core/adjust/setting.h"
#include "core/adjust/wand.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// Of a comparison by ear: where the adjuster stood before. Its reading is 1 louder, 0 the same, −1 softer,
/// and has no unit.
inline constexpr std::string_view kBefore = "before";
/// Of something brought near the coil: which Wand. Its reading is 1 louder, 0 the same, −1 softer.
inline constexpr std::string_view kWand = "wand";

/// What the readings of one adjustment tell.
struct TuneState {
    std::vector<AdjusterReading> readings;  ///< as read, oldest first; of marks their ranks
    std::vector<HeardPoint> heard;          ///< by ear, since the last that was a number
    std::vector<WandTest> wands;            ///< what was brought near the coil
    std::optional<PeakEstimate> peak;       ///< of a peak with a fitted curve; its readings are amplitudes
    std::optional<BiasState> bias;
    std::optional<Shares> shares;  ///< of a bias' transistors, one by one
    double bestPosition = 0.5;     ///< estimated
    double nextPosition = 0.5;     ///< where to read next
    bool together = false;         ///< of all readings of its partners, too
    bool ended = false;            ///< it peaks at an end, which no position mends
    bool meterEnds = false;        ///< it stands within its limits, as near as the meter tells
    VerdictState state = VerdictState::notDone;
    std::string sentence;
    std::string remedy;  ///< in turns, when the trimmer is at its end
    std::string other;   ///< id of the partner that is to be turned next instead; empty: this one
};

/// Peak: estimated from amplitudes (powers are taken as their roots), by ear, or by marks; left there, or
/// backed off as the builder chose. Null: bracketed, or by ear; with partners by all their readings together.
/// Set, level, range: the last reading against target ± tolerance, and the interpolated position. Bias: from
/// its safe end up. Contrast: until it is seen. An end stop names the turns to add or remove on the coil.
TuneState tuneState(const Kit& kit, const Adjustment& adjustment, const Build& build);

}  // namespace ombrek
