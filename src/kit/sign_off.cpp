#include "kit/inspection.h"
#include "kit/sign_off.h"

#include "kit/board.h"
#include "kit/proof.h"
#include "kit/winding.h"

namespace ombrek {
namespace {

using Evidences = std::vector<Evidence>;

template <class Records, class Subject>
Evidences evidenceForAll(const Records& records, Subject subject, const Kit& kit, const Build& build) {
    Evidences out;
    for (const auto& record : records) out.push_back(evidenceOf(subject(record), kit, build));
    return out;
}

Evidences trimmerEvidence(const Kit& kit, const Build& build) {
    Evidences out;
    for (const Coil& coil : kit.coils) {
        if (!coil.tune) continue;
        const auto cover = coilCover(kit, coil, build);
        const bool measured = build.last("coil:" + coil.ref) != nullptr;
        out.push_back({coil.ref + " with " + coil.tune->trimmer,
                       measured ? cover->state : VerdictState::notDone,
                       measured ? cover->sentence : "Coil not measured yet."});
    }
    return out;
}

Evidences stepEvidence(const Kit& kit, const Build& build, bool holds) {
    Evidences out;
    for (const Step& step : kit.steps) {
        if (step.hold.has_value() != holds) continue;
        const auto record = build.steps.find(step.id);
        const bool done = record != build.steps.end();
        Evidence e{step.title, done ? VerdictState::pass : VerdictState::notDone,
                   done ? "Done." : "Not done yet."};
        if (done && record->second.knowingly && !holdEarned(step, kit, build)) {
            e.state = VerdictState::doubtful;
            e.sentence = "Passed knowingly, without its evidence.";
        }
        out.push_back(e);
    }
    if (holds) return out;
    for (const Finding* finding : openFindings(build))
        out.push_back({finding->ref + ", " + std::string(word(finding->what)), VerdictState::fail,
                       "Found under the loupe and not mended."});
    return out;
}

Evidence from(std::string what, const Verdict& verdict) {
    return {std::move(what), verdict.state,
            verdict.sentence.empty() ? "Not measured yet." : verdict.sentence};
}

Evidences harmonicEvidence(const ProofState& proof) {
    Evidences out;
    int order = 2;
    for (const Verdict& verdict : proof.harmonicVerdicts)
        out.push_back(from("Harmonic " + std::to_string(order++), verdict));
    return out;
}

}  // namespace

Readiness readiness(const Kit& kit, const Build& build, const LimitProfile& profile) {
    Readiness out;
    const auto add = [&](std::string id, std::string name, std::string station, Evidences evidence) {
        if (evidence.empty()) return;
        Gate gate{id, std::move(name), std::move(station), std::move(evidence), false, ""};
        if (const auto record = build.gates.find(id); record != build.gates.end()) {
            gate.passedKnowingly = true;
            gate.reason = record->second.reason;
        }
        out.gates.push_back(std::move(gate));
    };
    const auto all = [&](const auto& records, auto subject) {
        return evidenceForAll(records, subject, kit, build);
    };
    add("parts", "Every part in and right", "Parts in",
        all(kit.parts, [](const Part& p) { return "part:" + p.ref; }));
    add("coils", "Coils wound and measured", "Winding",
        all(kit.coils, [](const Coil& c) { return "coil:" + c.ref; }));
    add("trimmers", "Trimmers reach their bands", "Winding", trimmerEvidence(kit, build));
    add("steps", "Every step done", "Board", stepEvidence(kit, build, false));
    add("holds", "Hold points earned", "Board", stepEvidence(kit, build, true));
    add("checks", "Voltages and currents right", "First light",
        all(kit.checks, [](const Check& c) { return "check:" + c.id; }));
    add("tune", "Every adjustment settled", "Tune",
        all(kit.adjustments, [](const Adjustment& a) { return "adjust:" + a.id; }));
    if (kit.ratings.transmits()) {
        const ProofState proof = proofState(kit, build, profile);
        add("power", "Power as rated", "Proof", {from("Power at the rated supply", proof.powerVerdict)});
        add("frequency", "On frequency", "Proof", {from("Frequency", proof.frequencyVerdict)});
        add("harmonics", "Harmonics below the limit", "Proof", harmonicEvidence(proof));
        const bool own = build.gates.contains("licence");
        add("licence", "Band, mode and power are within my licence", "Sign-off",
            {{"The builder's own word", own ? VerdictState::pass : VerdictState::notDone,
              own ? "Confirmed by the builder." : "Follow your local rules; confirm here."}});
    }
    return out;
}

}  // namespace ombrek
