#include "station/sign_off.h"

#include <algorithm>

#include "station/board.h"
#include "station/judged.h"
#include "station/loupe.h"
#include "station/subjects.h"
#include "station/winding.h"

namespace ombrek {
namespace {

using Evidences = std::vector<Evidence>;

template <class Records, class SubjectOf>
Evidences evidenceForAll(const Records& records, const Judged& judged, SubjectOf subject) {
    Evidences out;
    for (const auto& record : records) out.push_back(evidenceOf(subject(record), judged));
    return out;
}

Evidences trimmerEvidence(const Kit& kit, const Build& build) {
    Evidences out;
    for (const Coil& coil : kit.coils) {
        if (!coil.tune) continue;
        const auto cover = coilCover(kit, coil, build);
        const bool measured = build.last(Subject::coil(coil.ref)) != nullptr;
        out.push_back({coil.ref + " with " + coil.tune->trimmer,
                       measured ? cover->state : VerdictState::notDone,
                       measured ? cover->sentence : "Coil not measured yet."});
    }
    return out;
}

/// A step that was done; a hold point as far as what it rests on still holds.
Evidence doneEvidence(const Step& step, const StepRecord& record, const Judged& judged) {
    Evidence out{step.title, VerdictState::pass, "Done."};
    const Evidences needs = holdEvidence(step, judged);
    std::vector<VerdictState> states;
    for (const Evidence& e : needs) states.push_back(e.state);
    const VerdictState now = needs.empty() ? VerdictState::pass : worst(states);
    if (now == VerdictState::pass) return out;
    const std::string reason = record.reason.empty() ? "" : " Reason: " + record.reason;
    out.state = now == VerdictState::fail ? VerdictState::fail : VerdictState::doubtful;
    const auto bad =
        std::find_if(needs.begin(), needs.end(), [&](const Evidence& e) { return e.state == now; });
    out.sentence =
        (record.knowingly ? "Passed knowingly, without its evidence: " : "Done, but it holds no more: ") +
        bad->what + ", " + std::string(word(now)) + "." + reason;
    return out;
}

Evidences stepEvidence(const Judged& judged, bool holds) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    Evidences out;
    for (const Step& step : kit.steps) {
        if (step.hold.has_value() != holds) continue;
        const auto record = build.steps.find(step.id);
        out.push_back(record != build.steps.end()
                          ? doneEvidence(step, record->second, judged)
                          : Evidence{step.title, VerdictState::notDone, "Not done yet."});
    }
    if (holds) return out;
    for (const Finding* finding : openFindings(build))
        out.push_back({finding->ref + ", " + std::string(word(finding->what)), VerdictState::fail,
                       "Found under the loupe and not mended."});
    return out;
}

/// What a fit rig must show and this kit says nothing about: unknown, never a pass.
Evidences unknown(const std::string& what, const std::string& sentence) {
    return {{what, VerdictState::cannotTell, sentence}};
}

Evidences orUnknown(Evidences evidence, const std::string& what, const std::string& sentence) {
    if (evidence.empty()) return unknown(what, sentence);
    return evidence;
}

Evidence from(std::string what, const Verdict& verdict) {
    return {std::move(what), verdict.state,
            verdict.sentence.empty() ? "Not measured yet." : verdict.sentence};
}

/// Of every band of the rig, one after the other.
template <class Of>
Evidences onEveryBand(const Judged& judged, Of of) {
    Evidences out;
    for (const std::string& band : judged.kit().ratings.bandNames())
        of(judged.proof(band), band.empty() ? "" : ", " + band, out);
    return out;
}

Evidences harmonicEvidence(const Judged& judged) {
    return onEveryBand(judged, [](const ProofState& proof, const std::string& on, Evidences& out) {
        int order = 2;
        for (const Verdict& verdict : proof.harmonicVerdicts)
            out.push_back(from("Harmonic " + std::to_string(order++) + on, verdict));
    });
}

}  // namespace

Readiness readiness(const Judged& judged) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    Readiness out;
    const auto add = [&](const std::string& id, std::string name, std::string station, Evidences evidence) {
        if (evidence.empty()) return;
        Gate gate{id, std::move(name), std::move(station), std::move(evidence), false, "", ""};
        if (const auto record = build.gates.find(id); record != build.gates.end()) {
            // The reason was given for the evidence of that day.
            gate.lapsed = worseThan(record->second.basis, gate.evidence);
            gate.passedKnowingly = gate.lapsed.empty();
            gate.reason = record->second.reason;
        }
        out.gates.push_back(std::move(gate));
    };
    const auto all = [&](const auto& records, auto subject) {
        return evidenceForAll(records, judged, subject);
    };
    add("parts", "Every part in and right", "Parts in",
        all(kit.parts, [](const Part& p) { return Subject::part(p.ref); }));
    add("coils", "Coils wound and measured", "Winding",
        all(kit.coils, [](const Coil& c) { return Subject::coil(c.ref); }));
    add("trimmers", "Trimmers reach their bands", "Winding", trimmerEvidence(kit, build));
    add("steps", "Every step done", "Board",
        orUnknown(stepEvidence(judged, false), "Steps",
                  "The kit names no steps: nothing shows that it is built."));
    add("holds", "Hold points earned", "Board", stepEvidence(judged, true));
    add("checks", "Voltages and currents right", "First light",
        orUnknown(all(kit.checks, [](const Check& c) { return Subject::check(c.id); }), "Checks",
                  "The kit names no electrical checks: nothing shows that its voltages are right."));
    add("tune", "Every adjustment settled", "Tune",
        all(kit.adjustments, [](const Adjustment& a) { return Subject::adjustment(a.id); }));
    if (!kit.ratings.mayTransmit()) return out;
    if (kit.ratings.transmits()) {
        add("power", "Power as rated", "Proof",
            onEveryBand(judged, [](const ProofState& proof, const std::string& on, Evidences& out) {
                out.push_back(from("Power at the rated supply" + on, proof.powerVerdict));
            }));
        add("frequency", "On frequency", "Proof",
            onEveryBand(judged, [](const ProofState& proof, const std::string& on, Evidences& out) {
                out.push_back(from("Frequency" + on, proof.frequencyVerdict));
                if (proof.edgeVerdict) out.push_back(from("Inside the band" + on, *proof.edgeVerdict));
            }));
        add("harmonics", "Harmonics below the limit", "Proof", harmonicEvidence(judged));
    } else {
        const std::string silent = "The kit does not say whether it transmits, nor its rated ";
        add("power", "Power as rated", "Proof", unknown("Power", silent + "power."));
        add("frequency", "On frequency", "Proof", unknown("Frequency", silent + "frequency."));
        add("harmonics", "Harmonics below the limit", "Proof",
            unknown("Harmonics", silent + "power: nothing shows that what it emits is clean."));
    }
    const bool own = build.gates.contains("licence");
    add("licence", "Band, mode and power are within my licence", "Sign-off",
        {{"The builder's own word", own ? VerdictState::pass : VerdictState::notDone,
          own ? "Confirmed by the builder." : "Follow your local rules; confirm here."}});
    return out;
}

}  // namespace ombrek
