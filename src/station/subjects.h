#pragma once

#include "core/proof/readiness.h"
#include "kit/kit.h"
#include "kit/subject.h"

namespace ombrek {

class Judged;

// What there is to say of each kind of subject, from one table.

/// Whether the kit has it.
bool exists(const Kit& kit, const Subject& subject);
/// What it is measured in; Unit::none for what is not measured, or not in the kit.
Unit unitOf(const Kit& kit, const Subject& subject);
/// "T1 antenna transformer", "Power", as a person says it; its text for what the kit does not have.
std::string titleOf(const Kit& kit, const Subject& subject);

/// With what was read of a subject: the figure, the meter and the day.
Evidence withReading(Evidence evidence, const Judged& judged, const Subject& subject);

/// What the readings and records of a build say of it; what the kit does not have is not done.
Evidence evidenceOf(const Subject& subject, const Judged& judged);

}  // namespace ombrek
