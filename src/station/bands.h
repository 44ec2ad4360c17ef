#pragma once

#include <string>

#include "kit/kit.h"

namespace ombrek {

/// A band of the kit by name; where it has none of this name, the first.
std::string bandNamed(const Kit& kit, const std::string& name);
/// As a person calls a band of the kit: its name, else the amateur band its frequency lies in, else that.
std::string bandCalled(const Kit& kit, const std::string& band);
bool hasBand(const Kit& kit, const std::string& name);

/// The band behind this one, the first behind the last; itself where there is but one.
std::string bandAfter(const Kit& kit, const std::string& name);

}  // namespace ombrek
