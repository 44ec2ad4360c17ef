#include "core/coil/which_core.h"

#include <algorithm>
#include <cmath>

#include "core/coil/loss.h"
#include "core/coil/winding.h"
#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

constexpr double kWrongPaint = 0.02;

double logNormal(double value, double mean, double sigma) {
    const double z = (value - mean) / sigma;
    return -z * z / 2 - std::log(sigma);
}

double logLikelihood(const CoreClues& clues, const MagneticCore& core) {
    double out = 0;
    const auto size = [&](double measured, double nominal) {
        if (measured > 0) out += logNormal(measured, nominal, std::hypot(clues.callipers, 0.01 * nominal));
    };
    size(clues.outerDiameter, core.outerDiameter);
    size(clues.innerDiameter, core.innerDiameter);
    size(clues.height, core.height);
    if (!clues.paint.empty()) {
        const bool bare = clues.paint == "none";
        const bool same = bare ? core.paint.empty() : core.paint.find(clues.paint) != std::string::npos;
        out += std::log(same ? 1 - kWrongPaint : kWrongPaint);
    }
    if (clues.inductance > 0 && clues.trialTurns > 0) {
        const double expected = inductance(core, clues.trialTurns);
        // The tolerance is a share of AL, so deviations are weighed as logarithms.
        const double sigma = std::hypot(core.alTolerancePercent / 300, clues.error / 2 / clues.inductance);
        out += logNormal(std::log(clues.inductance / expected), 0, std::max(sigma, 0.005));
    }
    return out;
}

std::string worseThan(const MagneticCore& own, const OtherCore& other, double ownQ, double frequency,
                      const CoreDuty& duty) {
    std::string out;
    const auto add = [&](const std::string& what) { out += (out.empty() ? "" : ", ") + what; };
    if (other.fill > 1) add("the turns do not fit in one layer");
    if (std::fabs(other.offPercent) > 5)
        add("the inductance is off by " + formatQuantity(other.offPercent, Unit::percent, 2));
    const MagneticCore& core = *other.core;
    if (core.ferrite() && !own.ferrite() && duty.tuned)
        add("it is a ferrite: its own loss, not the copper, sets the Q, and a tuned circuit may lose much of "
            "it");
    if (duty.tuned && core.qHigh > 0 && (frequency < core.qLow || frequency > core.qHigh))
        add("its Q is best from " + formatQuantity(core.qLow, Unit::hertz, 2) + " to " +
            formatQuantity(core.qHigh, Unit::hertz, 2));
    if (duty.volts > 0 && !core.ferrite()) {
        const double flux = fluxDensity(core, other.turns, duty.volts, frequency),
                     most = fluxCeiling(frequency);
        if (flux > most)
            add("it warms at this power: " + formatQuantity(flux * 1e3, Unit::none, 2) + " of " +
                formatQuantity(most * 1e3, Unit::none, 2) + " mT");
    }
    if (duty.volts > 0 && core.ferrite() && !own.ferrite())
        add("how warm a ferrite gets at this power is not reckoned");
    if (duty.tuned && other.copperQ < 0.9 * ownQ)
        add("the copper Q falls to " + formatQuantity(other.copperQ, Unit::none, 2));
    if (std::fabs(other.core->tempco) > 1.5 * std::fabs(own.tempco) + 1)
        add("it drifts more with temperature");
    if (other.core->alTolerancePercent > own.alTolerancePercent + 1) add("its AL is less certain");
    if (other.core->outerDiameter > own.outerDiameter * 1.15) add("it is larger than the place for it");
    return out;
}

}  // namespace

std::vector<CoreGuess> whichCore(const CoreClues& clues, const std::vector<MagneticCore>& cores) {
    std::vector<CoreGuess> out;
    double best = -1e300;
    for (const MagneticCore& core : cores) {
        if (core.shape != MagneticCore::Shape::ring) continue;
        out.push_back({&core, logLikelihood(clues, core)});
        best = std::max(best, out.back().odds);
    }
    double sum = 0;
    for (CoreGuess& g : out) sum += g.odds = std::exp(g.odds - best);
    for (CoreGuess& g : out) g.odds /= sum;
    std::stable_sort(out.begin(), out.end(), [](auto& a, auto& b) { return a.odds > b.odds; });
    return out;
}

std::vector<OtherCore> otherCores(const MagneticCore& own, double wanted, const Wire& wire, double frequency,
                                  const std::vector<MagneticCore>& atHand, const CoreDuty& duty) {
    const auto qOf = [&](const MagneticCore& core, int turns) {
        return copperQ(inductance(core, turns), wire, wireOnCore(core, wire, turns), frequency);
    };
    const double ownQ = qOf(own, turnsFor(own, wanted));
    std::vector<OtherCore> out;
    for (const MagneticCore& core : atHand) {
        if (core.shape != MagneticCore::Shape::ring || core.designation == own.designation) continue;
        OtherCore other;
        other.core = &core;
        other.turns = turnsFor(core, wanted);
        if (other.turns > 500) continue;
        other.inductance = inductance(core, other.turns);
        other.offPercent = (other.inductance / wanted - 1) * 100;
        const int fit = turnsThatFit(core, wire);
        other.fill = fit > 0 ? other.turns * (1 + duty.othersPerTurn) / fit : 99;
        other.copperQ = qOf(core, other.turns);
        other.worse = worseThan(own, other, ownQ, frequency, duty);
        out.push_back(std::move(other));
    }
    const auto rank = [](const OtherCore& o) {
        return (o.fill > 1 ? 4 : 0) + (std::fabs(o.offPercent) > 5 ? 2 : 0) + (o.worse.empty() ? 0 : 1);
    };
    std::stable_sort(out.begin(), out.end(), [&](const OtherCore& a, const OtherCore& b) {
        return rank(a) != rank(b) ? rank(a) < rank(b) : a.copperQ > b.copperQ;
    });
    return out;
}

}  // namespace ombrek
