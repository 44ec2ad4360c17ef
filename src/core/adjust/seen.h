#pragma once

#include <vector>

#include "core/adjust/peak.h"

namespace ombrek {

/// Whether it was seen with the adjuster there.
struct SeenPoint {
    double position = 0;
    bool seen = false;
};

/// Of what is seen or not: settled where it is seen; until then the middle of the widest stretch that was not
/// looked at yet. Not seen anywhere, a twentieth of the travel apart, is another fault.
PeakEstimate seekSeen(const std::vector<SeenPoint>& looked);

}  // namespace ombrek
