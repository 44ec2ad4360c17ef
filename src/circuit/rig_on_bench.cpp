#include "circuit/rig_on_bench.h"

#include "judged/judged.h"

namespace ombrek {
namespace {

/// States of the rig up to the first gate that was read and does not pass; behind it nothing is powered.
std::set<std::string> statesBefore(const RigOnBench& rig, const Build& build) {
    const Judged judged(rig.kit, build);
    std::set<std::string> out;
    for (const Check& check : rig.kit.checks) {
        if (const auto probe = probeOf(rig.circuit, rig.kit, check)) out.insert(probe->state);
        if (check.gate && judged.check(check).state == VerdictState::fail) return out;
    }
    return {};
}

}  // namespace

Result<SharedRig> rigOf(const Kit& kit, const Build& build, const std::string& models,
                        const FaultPriors& priors) {
    auto circuit = readKitCircuit(kit.circuit, models);
    if (!circuit) return tl::make_unexpected(circuit.error());
    auto rig = std::make_shared<RigOnBench>();
    rig->kit = kit;
    rig->circuit = std::move(*circuit);
    rig->finder = std::make_unique<FaultFinder>(rig->circuit, benchOf(rig->circuit, kit, build), &rig->kit,
                                                boardFaults(rig->circuit, kit), priors);
    return rig;
}

Result<SharedRig> judgeRig(SharedRig rig, std::vector<TakenReading> taken, const Build& build,
                           const std::function<bool(double)>& goOn) {
    std::vector<CircuitReading> readings;
    for (const TakenReading& t : taken) readings.push_back(t.reading);
    if (const auto done = rig->finder->simulateFor(readings, goOn); !done)
        return tl::make_unexpected(done.error());
    rig->finder->weighBy(seenBefore(rig->kit, build));
    rig->suspicion = rig->finder->rank(readings, statesBefore(*rig, build));
    if (rig->suspicion.next.node.empty() && !readings.empty())
        rig->suspicion.next = rig->finder->nextOhms(readings, rig->suspicion);
    rig->taken = std::move(taken);
    return rig;
}

}  // namespace ombrek
