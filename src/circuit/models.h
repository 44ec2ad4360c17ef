#pragma once

#include <string>

#include "circuit/fault.h"

namespace ombrek {

/// The models that ship with the application, data/models/models.lib; empty when they are not there.
std::string shippedModels();

/// How usual faults are, data/models/faults.csv; empty when it is not there.
FaultPriors shippedPriors();

}  // namespace ombrek
