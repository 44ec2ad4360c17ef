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

/// A reading and how it speaks of one suspect.
struct EvidenceRow {
    std::string text;   ///< what was read, "VFO drain"
    std::string word;   ///< "8 V, not 6.46 V: against"
    double weight = 0;  ///< how much it speaks at all
    VerdictState state = VerdictState::notDone;
};

/// What the page "What is wrong" shows.
struct SuspectsView {
    std::string now, why;
    std::vector<Suspect> suspects;  ///< the few that are believed at all
    std::size_t at = 0;             ///< in hand
    std::vector<EvidenceRow> evidence;
    Subject next;  ///< to be read next; of unknown kind: nothing
    Unit nextUnit = Unit::volt;
    std::string touch;  ///< where
    std::string state;  ///< while the rig does what
    std::vector<std::string> nextParts;
    bool settled = false;  ///< one suspect is enough ahead
};
/// What Suspects shows with the row `at` in hand.
SuspectsView suspectsView(const RigOnBench& rig, std::size_t at);

/// "R25 open", "nothing: a sound rig".
std::string suspectName(const Suspect& suspect);
/// What it would look like, and what to do, in a sentence.
std::string suspectLooks(const Kit& kit, const Suspect& suspect);
/// A percentage for a person, "93 %", "under 1 %".
std::string oddsText(double odds);

}  // namespace ombrek
