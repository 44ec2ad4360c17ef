#include "kit/proof.h"

#include <algorithm>
#include <cmath>

#include "core/proof/frequency.h"

namespace ombrek {

const std::vector<PowerMethod>& powerMethods() {
    static const std::vector<PowerMethod> methods{
        {"attenuator", "through attenuator", Unit::dbm, "attenuation", Unit::decibel, kBenchAttenuation},
        {"peak-to-peak", "scope, peak-to-peak", Unit::volt, "", Unit::none, 0},
        {"diode-probe", "diode probe", Unit::volt, "diode drop", Unit::volt, 0.35},
        {"wattmeter", "wattmeter", Unit::watt, "correction", Unit::none, 1},
    };
    return methods;
}

const PowerMethod& powerMethod(std::string_view id) {
    const auto& all = powerMethods();
    const auto hit = std::find_if(all.begin(), all.end(), [&](const PowerMethod& m) { return m.id == id; });
    return hit == all.end() ? all.front() : *hit;
}

Power powerOf(const Reading& r, double ohms) {
    if (r.method == "peak-to-peak") return powerFromPeakToPeak(r.value, r.uncertainty, ohms);
    // A small silicon or germanium diode's drop is known to about a tenth of a volt (common practice).
    if (r.method == "diode-probe") return powerFromDiodeProbe(r.value, r.uncertainty, r.setting, 0.1, ohms);
    // A hobby wattmeter is good to 10 % (common practice).
    if (r.method == "wattmeter") return powerFromWattmeter(r.value, r.setting, 10.0);
    return powerThroughAttenuator(r.value, r.setting, r.uncertainty);
}

Reading inWatts(Reading reading) {
    const Power power = powerThroughAttenuator(reading.value, kBenchAttenuation, reading.uncertainty);
    reading.value = power.watts;
    reading.uncertainty = power.uncertainty;
    reading.unit = Unit::watt;
    return reading;
}

std::vector<LadderElement> lowPassAsBuilt(const Kit& kit, const Build& build) {
    std::vector<LadderElement> out = lowPassOf(kit);
    for (std::size_t i = 0; i < out.size(); ++i) {
        const std::string& ref = kit.lowPass[i].ref;
        const Reading* measured = build.last((kit.coil(ref) ? "coil:" : "part:") + ref);
        if (measured != nullptr && measured->value > 0) out[i].value = measured->value;
    }
    return out;
}

namespace {

void judgePower(const Kit& kit, const Build& build, ProofState& out) {
    const Reading* supply = build.last("proof:supply");
    out.supply = supply != nullptr && supply->value > 0 ? supply->value : kit.ratings.supply;
    const Reading* reading = build.last("proof:power");
    if (reading == nullptr) return;
    out.power = powerOf(*reading, kit.ratings.ohms);
    out.powerAtRated = powerAtSupply(out.power->watts, out.supply, kit.ratings.supply);
    const double scale = out.powerAtRated / std::max(out.power->watts, 1e-12);
    out.powerVerdict = judge(out.powerAtRated, {kit.ratings.powerLow, kit.ratings.powerHigh},
                             out.power->uncertainty * scale, build.rule, Unit::watt);
}

void judgeHarmonics(const Kit& kit, const Build& build, const LimitProfile& profile, ProofState& out) {
    const double watts = out.power && out.power->watts > 0 ? out.power->watts : kit.ratings.power;
    out.required = requiredSuppression(profile, watts);
    for (int order = 2; order <= kit.ratings.harmonics; ++order) {
        const Reading* reading = build.last("proof:harmonic:" + std::to_string(order));
        if (reading == nullptr) {
            out.harmonicVerdicts.emplace_back();
            continue;
        }
        const Harmonic harmonic{order, reading->value, reading->uncertainty};
        out.harmonics.push_back(harmonic);
        out.harmonicVerdicts.push_back(judgeHarmonic(harmonic, profile, watts, build.rule));
    }
}

}  // namespace

ProofState proofState(const Kit& kit, const Build& build, const LimitProfile& profile) {
    ProofState out;
    if (!kit.ratings.transmits()) return out;
    judgePower(kit, build, out);
    judgeHarmonics(kit, build, profile, out);
    if (const Reading* reading = build.last("proof:frequency")) {
        out.frequency = reading->value;
        out.frequencyVerdict =
            judgeFrequency(reading->value, kit.ratings.frequency, kit.ratings.frequencyTolerance,
                           reading->uncertainty, build.rule);
    }
    return out;
}

}  // namespace ombrek
