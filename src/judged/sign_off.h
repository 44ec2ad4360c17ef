#pragma once

#include <string>
#include <vector>

#include "core/proof/readiness.h"
#include "kit/build.h"

namespace ombrek {

class Judged;

/// Every gate between the bag and the air, with its evidence, in the order of the stations.
///
/// Coils and trimmers that a kit does not have are left out, and the proof of one that says that it does not
/// transmit. What fitness means and the kit says nothing about (steps, checks, power) is a gate that cannot
/// be told: it opens by a reason alone. What was passed knowingly bars again when it became worse since, or
/// was read anew and is something else.
Readiness readiness(const Judged& judged);

/// The gate under which the builder's word on one evidence of a gate is kept.
std::string evidenceGate(const std::string& gate, const Evidence& evidence);
/// The builder's word on it in this build: the gate it is kept under and what was said; null: none.
const std::pair<const std::string, GateRecord>* wordOn(const Build& build, const std::string& gate,
                                                       const Evidence& evidence);

/// What the rig is fit for.
struct FitFor {
    std::string what;  ///< "receiving", "the dummy load", "the air on 40m"
    std::string band;  ///< of the last
    bool fit = false;
    bool knowingly = false;  ///< something in it was passed knowingly
    std::string why;         ///< what bars it, "Power as rated: Power at the rated supply, 40m and 2 more"
};
/// What the rig is fit for: load, receiving, each band on the air.
std::vector<FitFor> fitFor(const Judged& judged);

/// A known defect that was accepted, with what it forbids.
struct KnownDefect {
    std::string gate, what, reason, forbids;
};
/// What was passed knowingly, with the builder's reason.
std::vector<KnownDefect> knownDefects(const Readiness& readiness);

}  // namespace ombrek
