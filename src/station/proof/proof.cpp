#include "station/proof/proof.h"

#include <algorithm>
#include <cmath>

#include "core/proof/frequency.h"
#include "core/quantity/earned.h"
#include "station/expected.h"
#include "station/phrases.h"
#include "station/proof/frequencies.h"
#include "station/rests_on.h"

namespace ombrek {

std::vector<LadderElement> lowPassAsBuilt(const Kit& kit, const Build& build, const std::string& band) {
    std::vector<LadderElement> out = lowPassOf(kit, band);
    for (std::size_t i = 0; i < out.size(); ++i) {
        const std::string& ref = kit.lowPassOn(band)[i].ref;
        const Reading* measured = build.last(kit.coil(ref) ? Subject::coil(ref) : Subject::part(ref));
        if (measured != nullptr && measured->value > 0 && std::isfinite(measured->value))
            out[i].value = measured->value;
    }
    return out;
}

double supplyOf(const Build& build, const Reading& reading) {
    double out = NAN;
    for (const Reading& r : build.readings) {
        if (r.subject == Subject::supply() && r.id < reading.id) out = r.value;
    }
    return reading.setting(kSupply, out);
}

namespace {

/// A band with what is promised on it.
struct Band {
    const std::string& name;
    Ratings ratings;
};

/// Of the readings that stand, the one at the supply nearest to the promise's, of those alike the last: a rig
/// is promised at that supply, and scaling from far away is a guess.
std::optional<Reading> nearestToRated(const Kit& kit, const Build& build, const Subject& subject,
                                      double rated) {
    constexpr double kAlike = 0.02;
    std::optional<Reading> out;
    double away = INFINITY;
    for (const Reading& r : standing(kit, build, subject)) {
        const double supply = supplyOf(build, r);
        const double by = supply > 0 && rated > 0 ? std::abs(std::log(supply / rated)) : INFINITY;
        if (out && by > away + kAlike) continue;
        out = r;
        away = std::min(away, by);
    }
    return out;
}

void judgePower(const Kit& kit, const Band& band, const Build& build, ProofState& out) {
    const Reading* now = build.last(Subject::supply());
    out.supply = now != nullptr && now->value > 0 ? now->value : band.ratings.supply;
    const Subject subject = Subject::power(band.name);
    const auto reading = nearestToRated(kit, build, subject, band.ratings.supply);
    if (!reading) {
        out.powerVerdict.sentence = changedSince(kit, build, subject);
        return;
    }
    out.power = powerOf(*reading, band.ratings.ohms);
    const double supply = supplyOf(build, *reading);
    out.supplyKnown = supply > 0 && std::isfinite(supply);
    out.supply = out.supplyKnown ? supply : band.ratings.supply;
    out.powerAtRated = powerAtSupply(out.power->watts, out.supply, band.ratings.supply);
    if (!out.supplyKnown) {
        out.powerVerdict =
            toldNot("The supply was not read before it: read the supply, then the power again.");
        return;
    }
    const double scale = out.powerAtRated / std::max(out.power->watts, 1e-12);
    out.powerVerdict = judge(out.powerAtRated, {band.ratings.powerLow, band.ratings.powerHigh},
                             out.power->uncertainty * scale, build.rule, Unit::watt);
    constexpr double kFar = 0.01;
    if (std::abs(scale - 1) > kFar)
        out.powerVerdict.sentence = earnedText(out.power->watts, out.power->uncertainty, Unit::watt) +
                                    " at " + formatQuantity(out.supply, Unit::volt, 3) + " is as much as " +
                                    earnedText(out.powerAtRated, out.power->uncertainty * scale, Unit::watt) +
                                    " at " + formatQuantity(band.ratings.supply, Unit::volt, 3) + ". " +
                                    out.powerVerdict.sentence;
    holdAgainst(kit, *reading, out.powerVerdict);
}

/// The supply is what it is; it passes as known when it can be, and is not above what the kit bears.
void judgeSupply(const Kit& kit, const Build& build, ProofState& out) {
    const Reading* supply = build.last(Subject::supply());
    if (supply == nullptr) return;
    const double rated = kit.ratings.supply;
    out.supplyVerdict = judge(supply->value, {0, INFINITY}, 0, VerdictRule::simple, Unit::volt);
    if (rated > 0) out.supplyVerdict.limits.high = 1.25 * rated;
    if (out.supplyVerdict.state == VerdictState::pass && rated > 0 && supply->value > 1.25 * rated) {
        out.supplyVerdict.state = VerdictState::doubtful;
        out.supplyVerdict.sentence =
            "More than the " + formatQuantity(rated, Unit::volt, 3) + " that the kit is rated at.";
    }
    holdAgainst(kit, *supply, out.supplyVerdict);
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

void judgeHarmonics(const Kit& kit, const Band& band, const Build& build, const LimitProfile& profile,
                    ProofState& out) {
    const double watts = out.power && out.power->watts > 0 ? out.power->watts : band.ratings.power;
    out.required = requiredSuppression(profile, watts);
    for (int order = 2; order <= kit.ratings.harmonics; ++order) {
        const Subject subject = Subject::harmonic(order, band.name);
        const auto reading = lastStanding(kit, build, subject);
        out.harmonicVerdicts.emplace_back();
        if (!reading) {
            out.harmonicVerdicts.back().sentence = changedSince(kit, build, subject);
            continue;
        }
        const Harmonic harmonic{order, reading->value, reading->uncertainty};
        out.harmonics.push_back(harmonic);
        if (!profile.speaksOf(band.ratings.frequency)) {
            out.harmonicVerdicts.back() = toldNot("The chosen limit does not speak of carriers at " +
                                                  formatQuantity(band.ratings.frequency, Unit::hertz, 3) +
                                                  ": choose another, ask your own rules.");
            continue;
        }
        out.harmonicVerdicts.back() = judgeHarmonic(harmonic, profile, watts, build.rule);
        holdPromise(kit, harmonic, build.rule, out.harmonicVerdicts.back());
        holdAgainst(kit, *reading, out.harmonicVerdicts.back());
    }
}

/// With the counter's own reference as far as it was told, and the width of a Morse signal.
void judgeEdge(const Kit& kit, const Band& band, const Build& build, const Reading& reading,
               ProofState& out) {
    constexpr double kMorse = 500;  ///< [Hz] (common practice)
    const BandRating* edges = kit.ratings.band(band.name);
    if (edges == nullptr || !(edges->high > edges->low)) return;
    const double ppm = worstPpm(counterOf(build));
    const double reference = std::isfinite(ppm) ? ppm * 1e-6 * reading.value : 0;
    out.edgeVerdict =
        judgeInsideBand(reading.value, reading.uncertainty + reference, kMorse, edges->low, edges->high);
}

/// How far it ran in the ten minutes before the last reading.
void findDrift(const Kit& kit, const Build& build, const Reading& last, ProofState& out) {
    constexpr std::int64_t kLong = 600;
    for (const Reading& r : standing(kit, build, last.subject)) {
        if (last.at - r.at > kLong || last.at <= r.at) continue;
        out.drift = last.value - r.value;
        out.driftOver = double(last.at - r.at);
        return;
    }
}

}  // namespace

ProofState proofState(const Kit& kit, const Build& build, const LimitProfile& profile,
                      const std::string& name) {
    ProofState out;
    if (!kit.ratings.transmits()) return out;
    const Band band{name, kit.ratings.on(name)};
    judgeSupply(kit, build, out);
    judgePower(kit, band, build, out);
    judgeHarmonics(kit, band, build, profile, out);
    const Subject frequency = Subject::frequency(name);
    if (const auto reading = lastStanding(kit, build, frequency)) {
        out.frequency = reading->value;
        out.frequencyVerdict =
            judgeFrequency(reading->value, band.ratings.frequency, band.ratings.frequencyTolerance,
                           reading->uncertainty, build.rule);
        holdAgainst(kit, *reading, out.frequencyVerdict);
        judgeEdge(kit, band, build, *reading, out);
        findDrift(kit, build, *reading, out);
    } else {
        out.frequencyVerdict.sentence = changedSince(kit, build, frequency);
    }
    return out;
}

}  // namespace ombrek
