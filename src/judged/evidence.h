#pragma once

#include "judged/judged.h"

namespace ombrek {

/// With what was read of a subject: the figure, the meter and the day.
Evidence withReading(Evidence evidence, const Judged& judged, const Subject& subject);

/// What the readings and records of a build say of it; what the kit does not have is not done.
Evidence evidenceOf(const Subject& subject, const Judged& judged);

}  // namespace ombrek
