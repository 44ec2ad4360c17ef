#pragma once

#include <string>
#include <vector>

#include "judged/judged.h"

namespace ombrek {

/// What nobody measured of this rig, as sentences: what waits, what was taken on trust, and what Ombrek asks
/// of no rig. A report says it, so that nobody reads a pass into it.
std::vector<std::string> notMeasured(const Judged& judged);

}  // namespace ombrek
