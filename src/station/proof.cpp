#include "station/proof.h"

#include <algorithm>
#include <cmath>

#include "core/proof/frequency.h"
#include "station/rests_on.h"

namespace ombrek {

std::vector<LadderElement> lowPassAsBuilt(const Kit& kit, const Build& build) {
    std::vector<LadderElement> out = lowPassOf(kit);
    for (std::size_t i = 0; i < out.size(); ++i) {
        const std::string& ref = kit.lowPass[i].ref;
        const Reading* measured = build.last(kit.coil(ref) ? Subject::coil(ref) : Subject::part(ref));
        if (measured != nullptr && measured->value > 0 && std::isfinite(measured->value))
            out[i].value = measured->value;
    }
    return out;
}

namespace {

/// The supply of a reading [V]: as kept with it, else as read last before it; NaN: a later one says nothing
/// of it.
double supplyOf(const Build& build, const Reading& reading) {
    double out = NAN;
    for (const Reading& r : build.readings) {
        if (r.subject == Subject::supply() && r.id < reading.id) out = r.value;
    }
    return reading.setting(kSupply, out);
}

Verdict toldNot(std::string sentence) {
    Verdict out;
    out.state = VerdictState::cannotTell;
    out.sentence = std::move(sentence);
    return out;
}

void judgePower(const Kit& kit, const Build& build, ProofState& out) {
    const Reading* now = build.last(Subject::supply());
    out.supply = now != nullptr && now->value > 0 ? now->value : kit.ratings.supply;
    const auto reading = lastStanding(kit, build, Subject::power());
    if (!reading) {
        out.powerVerdict.sentence = changedSince(kit, build, Subject::power());
        return;
    }
    out.power = powerOf(*reading, kit.ratings.ohms);
    const double supply = supplyOf(build, *reading);
    out.supplyKnown = supply > 0 && std::isfinite(supply);
    out.supply = out.supplyKnown ? supply : kit.ratings.supply;
    out.powerAtRated = powerAtSupply(out.power->watts, out.supply, kit.ratings.supply);
    if (!out.supplyKnown) {
        out.powerVerdict =
            toldNot("The supply was not read before it: read the supply, then the power again.");
        return;
    }
    const double scale = out.powerAtRated / std::max(out.power->watts, 1e-12);
    out.powerVerdict = judge(out.powerAtRated, {kit.ratings.powerLow, kit.ratings.powerHigh},
                             out.power->uncertainty * scale, build.rule, Unit::watt);
}

/// What keeps the law may still be less than the kit promises.
void holdPromise(const Kit& kit, const Harmonic& harmonic, VerdictRule rule, Verdict& verdict) {
    const double promised = kit.ratings.harmonicsBelow;
    if (promised <= 0 || verdict.state != VerdictState::pass) return;
    const Verdict held =
        judge(harmonic.below, {promised, INFINITY}, harmonic.uncertainty, rule, Unit::decibel);
    if (held.state == VerdictState::pass) return;
    verdict.state = VerdictState::doubtful;
    verdict.sentence = "Within the limit, but the kit promises " +
                       formatQuantity(promised, Unit::decibel, 3) + " below. " + held.sentence;
}

void judgeHarmonics(const Kit& kit, const Build& build, const LimitProfile& profile, ProofState& out) {
    const double watts = out.power && out.power->watts > 0 ? out.power->watts : kit.ratings.power;
    out.required = requiredSuppression(profile, watts);
    for (int order = 2; order <= kit.ratings.harmonics; ++order) {
        const Subject subject = Subject::harmonic(order);
        const auto reading = lastStanding(kit, build, subject);
        out.harmonicVerdicts.emplace_back();
        if (!reading) {
            out.harmonicVerdicts.back().sentence = changedSince(kit, build, subject);
            continue;
        }
        const Harmonic harmonic{order, reading->value, reading->uncertainty};
        out.harmonics.push_back(harmonic);
        out.harmonicVerdicts.back() = judgeHarmonic(harmonic, profile, watts, build.rule);
        holdPromise(kit, harmonic, build.rule, out.harmonicVerdicts.back());
    }
}

}  // namespace

ProofState proofState(const Kit& kit, const Build& build, const LimitProfile& profile) {
    ProofState out;
    if (!kit.ratings.transmits()) return out;
    judgePower(kit, build, out);
    judgeHarmonics(kit, build, profile, out);
    if (const auto reading = lastStanding(kit, build, Subject::frequency())) {
        out.frequency = reading->value;
        out.frequencyVerdict =
            judgeFrequency(reading->value, kit.ratings.frequency, kit.ratings.frequencyTolerance,
                           reading->uncertainty, build.rule);
    } else {
        out.frequencyVerdict.sentence = changedSince(kit, build, Subject::frequency());
    }
    return out;
}

}  // namespace ombrek
