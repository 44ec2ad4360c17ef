#pragma once

#include "core/meter/sample.h"
#include "kit/kit.h"
#include "kit/subject.h"

namespace ombrek {

/// Which kind of current a reading is of. Volts and amperes are DC, unless the check's or adjustment's own
/// words say AC, RF, audio, RMS or peak to peak; of all else it does not matter. What is not said is DC: a
/// meter on AC is then refused, never taken.
Flow flowWanted(const Kit& kit, const Subject& subject, Unit unit);

}  // namespace ombrek
