#pragma once

#include "judged/judged.h"

namespace ombrek {

/// The next adjustment that is not settled, in the order in use, or null.
const Adjustment* nextAdjustment(const Judged& judged);

}  // namespace ombrek
