#pragma once

#include "kit/kit.h"
#include "kit/subject.h"

namespace ombrek {

// What there is to say of each kind of subject, from one table.

/// Whether the kit has it.
bool exists(const Kit& kit, const Subject& subject);
/// What it is measured in; Unit::none for what is not measured, or not in the kit.
Unit unitOf(const Kit& kit, const Subject& subject);
/// "T1 antenna transformer", "Power", as a person says it; its text for what the kit does not have.
std::string titleOf(const Kit& kit, const Subject& subject);

/// The order of a harmonic by its id; 0 when it is none that the kit's limit speaks of.
int harmonicOrder(const Kit& kit, const std::string& id);

}  // namespace ombrek
