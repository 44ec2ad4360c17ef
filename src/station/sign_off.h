#pragma once

#include "core/proof/readiness.h"

namespace ombrek {

class Judged;

/// Every gate between the bag and the air, with its evidence, in the order of the stations.
///
/// Coils and trimmers that a kit does not have are left out, and the proof of one that says that it does not
/// transmit. What fitness means and the kit says nothing about (steps, checks, power) is a gate that cannot
/// be told: it opens by a reason alone. A gate passed knowingly bars again when anything in it became worse
/// since.
Readiness readiness(const Judged& judged);

}  // namespace ombrek
