#pragma once

#include "station/tune/tune.h"

namespace ombrek {

// How each kind of adjustment is judged: used by tuneState alone. `out` comes with its readings sorted out.

/// A reading as an amplitude: powers are taken as their roots.
double amplitudeOf(double reading, Unit unit);

/// Of a peak, with a fitted curve, by ear or by marks.
void settlePeak(const Kit& kit, const Adjustment& adjustment, const Build& build, TuneState& out);
/// Of a null, alone or with its partners.
void settleNull(const Kit& kit, const Adjustment& adjustment, const Build& build, TuneState& out);

}  // namespace ombrek
