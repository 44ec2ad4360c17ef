#pragma once

#include "core/coil/core.h"
#include "core/coil/wire.h"
#include "core/quantity/working.h"

namespace ombrek {

/// Inductance of a winding [H]: L = AL·N².
/// @param turns  at least 1 @throws std::domain_error
/// Source: definition of AL.
double inductance(const MagneticCore& core, int turns);

struct InductanceRange {
    double low = 0.0;
    double high = 0.0;
};
/// The inductance at the two ends of the core's AL tolerance [H].
InductanceRange inductanceRange(const MagneticCore& core, int turns);

/// Whole turns nearest to an inductance [H], at least 1. @throws std::domain_error unless inductance > 0
int turnsFor(const MagneticCore& core, double inductance);

/// Working of L = AL·N² for a winding, for the screen.
Working inductanceWorking(const MagneticCore& core, int turns);

/// Turns that fit in one layer, wire touching wire at the hole; 0 if the wire does not pass the hole.
///
/// N = ⌊π / asin(d/(ID − d))⌋ with d over the enamel. Geometry of circles on a circle; agrees with the
/// handbook table.
/// @throws std::domain_error for a core that is not a ring
int turnsThatFit(const MagneticCore& core, const Wire& wire);

/// Turns that lie in one layer over 300° of the ring, so that the ends stay apart (common practice).
int turnsOver300(const MagneticCore& core, const Wire& wire);

/// Wire on the core, without tails [m].
///
/// Per turn the perimeter of the section rounded by the wire, 2h + (OD − ID) + πd, stretched by the advance
/// along the ring at its mean radius when the turns are spread over 330°. A two-hole core uses its stated
/// turn length.
double wireOnCore(const MagneticCore& core, const Wire& wire, int turns);

/// Length to cut [m]: wire on the core and two tails, plus 12.5 %, rounded up to a full centimetre (common
/// practice).
double wireToCut(const MagneticCore& core, const Wire& wire, int turns, double tail);

}  // namespace ombrek
