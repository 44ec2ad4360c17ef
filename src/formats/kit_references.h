#pragma once

#include "kit/kit.h"

namespace ombrek {

/// Everything that one record of a kit says of another must exist, no name twice, and its steps can be put in
/// an order. @throws JsonFault with the place
void checkReferences(const Kit& kit);

}  // namespace ombrek
