#pragma once

#include "station/tune.h"

namespace ombrek {

// How each kind of adjustment is judged: used by tuneState alone. `out` comes with its readings sorted out.

/// A reading as an amplitude: powers are taken as their roots.
double amplitudeOf(double reading, Unit unit);

void settlePeak(const Kit& kit, const Adjustment& adjustment, const Build& build, TuneState& out);
void settleNull(const Kit& kit, const Adjustment& adjustment, const Build& build, TuneState& out);

}  // namespace ombrek
