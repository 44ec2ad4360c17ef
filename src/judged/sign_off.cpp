#include "judged/sign_off.h"

#include <algorithm>
#include <optional>

#include "core/text/letters.h"
#include "judged/evidence.h"
#include "judged/hold.h"
#include "judged/judged.h"
#include "judged/licence.h"
#include "station/bands.h"
#include "station/board/board.h"
#include "station/board/loupe.h"
#include "station/said.h"
#include "station/subjects.h"
#include "station/winding/winding.h"

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
        out.back().key = Subject::coil(coil.ref).text() + "/trimmer";
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
        out.back().key = Subject::step(step.id).text();
    }
    if (holds) return out;
    for (const Finding* finding : openFindings(build)) {
        out.push_back({finding->ref + ", " + std::string(word(finding->what)), VerdictState::fail,
                       "Found under the loupe and not mended."});
        out.back().key = "finding:" + std::to_string(finding->id);
    }
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
        of(band, judged.proof(band), band.empty() ? "" : ", " + band, out);
    return out;
}

Evidences powerEvidence(const Judged& judged) {
    return onEveryBand(
        judged, [&](const std::string& band, const ProofState& proof, const std::string& on, Evidences& out) {
            out.push_back(withReading(from("Power at the rated supply" + on, proof.powerVerdict), judged,
                                      Subject::power(band)));
        });
}

Evidences frequencyEvidence(const Judged& judged) {
    return onEveryBand(
        judged, [&](const std::string& band, const ProofState& proof, const std::string& on, Evidences& out) {
            const Subject subject = Subject::frequency(band);
            out.push_back(withReading(from("Frequency" + on, proof.frequencyVerdict), judged, subject));
            if (proof.edgeVerdict) {
                out.push_back(withReading(from("Inside the band" + on, *proof.edgeVerdict), judged, subject));
                out.back().key = subject.text() + "/edge";
            }
        });
}

Evidences harmonicEvidence(const Judged& judged) {
    return onEveryBand(
        judged, [&](const std::string& band, const ProofState& proof, const std::string& on, Evidences& out) {
            int order = 2;
            for (const Verdict& verdict : proof.harmonicVerdicts) {
                out.push_back(withReading(from("Harmonic " + std::to_string(order) + on, verdict), judged,
                                          Subject::harmonic(order, band)));
                ++order;
            }
        });
}

/// The builder's word, and the rig against the limits that the builder wrote.
Evidences licenceWords(const Judged& judged) {
    const bool own = judged.build().gates.contains("licence");
    Evidences out{{"The builder's own word", own ? VerdictState::pass : VerdictState::notDone,
                   own ? "Confirmed by the builder." : "Follow your local rules; confirm here."}};
    const Evidences limits = licenceEvidence(judged);
    out.insert(out.end(), limits.begin(), limits.end());
    return out;
}

/// The builder's words on a gate as a whole, and on each of its evidence.
void takeWords(const Build& build, Gate& gate) {
    if (gate.id == "licence") return;  // no reason makes up for one
    const auto record = build.gates.find(gate.id);
    const GateRecord* whole = record == build.gates.end() ? nullptr : &record->second;
    if (whole != nullptr) gate.reason = whole->reason;
    for (Evidence& e : gate.evidence) {
        const auto* own = wordOn(build, gate.id, e);
        if (const GateRecord* word = own != nullptr ? &own->second : whole)
            accept(e, {word->reason, word->basis, word->forbids});
    }
    settle(gate);
}

}  // namespace

std::string evidenceGate(const std::string& gate, const Evidence& evidence) {
    return gate + "/" + evidence.kept();
}

const std::pair<const std::string, GateRecord>* wordOn(const Build& build, const std::string& gate,
                                                       const Evidence& evidence) {
    auto record = build.gates.find(evidenceGate(gate, evidence));
    // Older books have it by its title.
    if (record == build.gates.end()) record = build.gates.find(gate + "/" + evidence.what);
    return record == build.gates.end() ? nullptr : &*record;
}

Readiness readiness(const Judged& judged) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    Readiness out;
    const auto add = [&](const std::string& id, std::string name, Station station, Evidences evidence) {
        if (evidence.empty()) return;
        Gate gate{id, std::move(name), station, std::move(evidence)};
        takeWords(build, gate);
        out.gates.push_back(std::move(gate));
    };
    const auto all = [&](const auto& records, auto subject) {
        return evidenceForAll(records, judged, subject);
    };
    add("parts", "Every part in and right", Station::partsIn,
        all(kit.parts, [](const Part& p) { return Subject::part(p.ref); }));
    add("coils", "Coils wound and measured", Station::winding,
        all(kit.coils, [](const Coil& c) { return Subject::coil(c.ref); }));
    add("trimmers", "Trimmers reach their bands", Station::winding, trimmerEvidence(kit, build));
    add("steps", "Every step done", Station::board,
        orUnknown(stepEvidence(judged, false), "Steps",
                  "The kit names no steps: nothing shows that it is built."));
    add("holds", "Hold points earned", Station::board, stepEvidence(judged, true));
    add("checks", "Voltages and currents right", Station::firstLight,
        orUnknown(all(kit.checks, [](const Check& c) { return Subject::check(c.id); }), "Checks",
                  "The kit names no electrical checks: nothing shows that its voltages are right."));
    add("tune", "Every adjustment settled", Station::tune,
        all(kit.adjustments, [](const Adjustment& a) { return Subject::adjustment(a.id); }));
    if (!kit.ratings.mayTransmit()) return out;
    if (kit.ratings.transmits()) {
        add("power", "Power as rated", Station::proof, powerEvidence(judged));
        add("frequency", "On frequency", Station::proof, frequencyEvidence(judged));
        add("harmonics", "Harmonics below the limit", Station::proof, harmonicEvidence(judged));
    } else {
        const std::string silent = "The kit does not say whether it transmits, nor its rated ";
        add("power", "Power as rated", Station::proof, unknown("Power", silent + "power."));
        add("frequency", "On frequency", Station::proof, unknown("Frequency", silent + "frequency."));
        add("harmonics", "Harmonics below the limit", Station::proof,
            unknown("Harmonics", silent + "power: nothing shows that what it emits is clean."));
    }
    add("licence", "Band, mode and power are within my licence", Station::signOff, licenceWords(judged));
    return out;
}

namespace {

/// What each use of the rig asks for.
struct Use {
    const char* what;
    std::vector<std::string> gates;
};
const std::vector<Use>& uses() {
    static const std::vector<Use> all{
        {"receiving", {"parts", "coils", "trimmers", "steps", "holds", "checks", "tune"}},
        {"the dummy load", {"parts", "coils", "steps", "holds", "checks"}}};
    return all;
}

/// Whether what a defect forbids speaks of a word.
bool speaksOf(const std::string& forbids, const std::string& word) {
    if (word.empty()) return false;
    const std::vector<std::string> all = wordsSaid(lowered(forbids));
    return std::any_of(all.begin(), all.end(), [&](const std::string& w) {
        return w == lowered(word) || w == lowered(word) + "." || w == lowered(word) + ",";
    });
}

/// A known defect that forbids a band by its name, or to transmit at all.
bool forbidden(const Evidence& e, const Kit& kit, const std::string& band) {
    if (!e.knownDefect()) return false;
    if (speaksOf(e.forbids, bandCalled(kit, band))) return true;
    const auto names = kit.ratings.bandNames();
    const bool another = std::any_of(names.begin(), names.end(), [&](const std::string& name) {
        return speaksOf(e.forbids, bandCalled(kit, name));
    });
    return !another && lowered(e.forbids).find("transmit") != std::string::npos;
}

/// Hold one gate against a use of the rig; of its evidence only that of a band. What fails the limit of what
/// it emits, and what a known defect forbids, bars the air whatever else is said.
void countGate(const Gate& gate, const Kit& kit, const std::string& band, bool air, FitFor& out) {
    std::string first;
    std::size_t bars = 0;
    for (const Evidence& e : gate.evidence) {
        const bool mine = !air || e.band.empty() || e.band == band;
        const bool unlawful = mine && gate.id == "harmonics" && e.state == VerdictState::fail;
        const bool forbids = air && forbidden(e, kit, band);
        if (!mine && !forbids) continue;
        out.knowingly |= e.accepted;
        if ((e.bars() || forbids || (air && unlawful)) && bars++ == 0)
            first = forbids ? e.what + " forbids it" : e.what;
    }
    if (bars == 0 && !gate.evidence.empty()) return;
    if (out.fit)
        out.why = gate.name + ": " + first + (bars > 1 ? " and " + std::to_string(bars - 1) + " more" : "");
    out.fit = false;
}

}  // namespace

std::vector<FitFor> fitFor(const Judged& judged) {
    const Readiness& ready = judged.readiness();
    std::vector<FitFor> out;
    for (const Use& use : uses()) {
        if (!judged.kit().ratings.mayTransmit() && &use != &uses().front()) continue;
        FitFor fit{use.what, "", true, false, ""};
        for (const Gate& gate : ready.gates) {
            if (std::find(use.gates.begin(), use.gates.end(), gate.id) != use.gates.end())
                countGate(gate, judged.kit(), "", false, fit);
        }
        out.push_back(std::move(fit));
    }
    if (!judged.kit().ratings.mayTransmit()) return out;
    for (const std::string& band : judged.kit().ratings.bandNames()) {
        FitFor fit{"the air on " + bandCalled(judged.kit(), band), band, true, false, ""};
        for (const Gate& gate : ready.gates) countGate(gate, judged.kit(), band, true, fit);
        out.push_back(std::move(fit));
    }
    return out;
}

std::vector<KnownDefect> knownDefects(const Readiness& readiness) {
    std::vector<KnownDefect> out;
    for (const Gate& gate : readiness.gates) {
        for (const Evidence& e : gate.evidence) {
            if (e.knownDefect()) out.push_back({gate.name, e.what, e.reason, e.forbids});
        }
    }
    return out;
}

const Readiness& Judged::readiness() const {
    return readiness_.of([&] { return ombrek::readiness(*this); });
}

}  // namespace ombrek
