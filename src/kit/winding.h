#pragma once

#include <optional>

#include "core/coil/tank.h"
#include "core/coil/trim.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// The winding of a coil that is being wound now: the first not done, or nothing.
std::optional<std::size_t> windingInHand(const Coil& coil, const Build& build);
bool wound(const Coil& coil, const Build& build);

/// Turns on the core of the first (resonant) winding: counted, or the kit's figure before counting.
int mainTurns(const Coil& coil, const Build& build);

/// All windings' turns over those that fit in one layer, 0 to 1 and beyond; 0 for a core that is not a ring.
double coreFill(const Coil& coil);

/// Advice from the measured inductance; nothing before it is measured.
std::optional<TrimAdvice> coilAdvice(const Coil& coil, const Build& build);

/// Whether the trimmer reaches the band: with the measured inductance, else the kit's target. Nothing if the
/// coil is not tuned.
std::optional<TrimmerCover> coilCover(const Kit& kit, const Coil& coil, const Build& build);

/// Measured inductance against the target, with the meter's error; not done until wound and measured.
Verdict coilVerdict(const Coil& coil, const Build& build);

/// The coil to go on with: one that is begun, else the first to wind or to measure; null when there is none.
const Coil* nextCoil(const Kit& kit, const Build& build);

}  // namespace ombrek
