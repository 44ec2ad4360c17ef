#pragma once

#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// The last reading of a check against its limits, with the meter's error. One that was taken before a part
/// it rests on was changed is to be made again.
Verdict checkVerdict(const Kit& kit, const Check& check, const Build& build);

/// What feeds a check, as the kit says (`from`), and how that stands: the check that is made at it, or null
/// when none is.
const Check* feedOf(const Kit& kit, const Check& check);

/// Whether the current through a gap was read and is right, and the builder has not said since that the gap
/// is closed: until then the check does not pass.
bool gapOpen(const Kit& kit, const Check& check, const Build& build);
/// Under which name the builder's word for it is kept among the gates.
std::string bridgeGate(const Check& check);

/// The check that was read last, by id; empty before the first.
std::string lastChecked(const Build& build);

}  // namespace ombrek
