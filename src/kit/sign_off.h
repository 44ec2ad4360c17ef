#pragma once

#include "core/proof/harmonics.h"
#include "core/proof/readiness.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// Every gate between the bag and the air, with its evidence, in the order of the stations.
///
/// Gates that a kit does not have (coils for a kit without coils, power for one that does not transmit) are
/// left out.
Readiness readiness(const Kit& kit, const Build& build, const LimitProfile& profile);

}  // namespace ombrek
