#pragma once

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "circuit/build_circuit.h"
#include "circuit/suspects.h"

namespace ombrek {

/// A rig with its circuit and what was read on it, held together for work off the window's thread.
struct RigOnBench {
    Kit kit;
    KitCircuit circuit;
    std::unique_ptr<FaultFinder> finder;
    std::vector<TakenReading> taken;
    Suspicion suspicion;  ///< of `taken`
};
using SharedRig = std::shared_ptr<RigOnBench>;

/// What a build's book says of its rig. @return a Problem when its circuit cannot be read
Result<SharedRig> rigOf(const Kit& kit, const Build& build, const std::string& models,
                        const FaultPriors& priors);
/// Simulate what the readings want, and rank; the long part. Readings that the rig cannot have are left out.
/// @param build  says what was seen of the parts, and which gate does not pass: no reading is advised behind
/// it
Result<SharedRig> judgeRig(SharedRig rig, std::vector<TakenReading> taken, const Build& build,
                           const std::function<bool(double)>& goOn);

}  // namespace ombrek
