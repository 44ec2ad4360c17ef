#include "core/coil/trim.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "core/quantity/quantity.h"
#include "core/text/counted.h"

namespace ombrek {

TurnChange turnsToTarget(int wound, double measured, double target) {
    if (wound < 1 || !(measured > 0) || !(target > 0) || !std::isfinite(measured) || !std::isfinite(target)) {
        throw std::domain_error("turns and inductances are positive");
    }
    const double perTurnSquared = measured / (double(wound) * wound);
    const double exact = std::sqrt(target / perTurnSquared);
    if (exact > 1e6) throw std::domain_error("more than a million turns");
    const int below = std::max(1, static_cast<int>(std::floor(exact)));
    const auto at = [&](int turns) { return perTurnSquared * turns * turns; };
    const int best = std::fabs(at(below) - target) <= std::fabs(at(below + 1) - target) ? below : below + 1;
    return {best - wound, at(best)};
}

namespace {

using Act = TrimAdvice::Act;

double reachOfSqueezing(const MagneticCore& core, double fill) {
    if (core.ferrite() || core.shape == MagneticCore::Shape::twoHole) return 0.0;
    return fill > 0.8 ? 4.0 : 10.0;
}

std::string percent(double value) { return decimals(value, 1, true) + " %"; }

std::string turnWord(int turns) { return counted(turns, "turn"); }

std::string sentenceFor(const TrimAdvice& advice, double target, const TurnChange& change) {
    const std::string off =
        percent(advice.deviationPercent) + " from " + formatQuantity(target, Unit::henry, 3);
    const std::string then = "; expect " + formatQuantity(change.inductance, Unit::henry, 3) + ".";
    switch (advice.act) {
        case Act::leave:
            return "Leave it: " + off + ".";
        case Act::squeeze:
            return "Squeeze the turns together: " + off + ".";
        case Act::spread:
            return "Spread the turns: " + off + ".";
        case Act::addTurns:
            return "Add " + turnWord(advice.turns) + ": " + off + then;
        case Act::removeTurns:
            return "Remove " + turnWord(advice.turns) + ": " + off + then;
        case Act::distrust:
            break;
    }
    return {};
}

}  // namespace

namespace {

constexpr double kBelieved = 3;  ///< times more or less than AL gives: the widest ferrite is within ±30 %

TrimAdvice distrusted(const MagneticCore& core, int wound, double measured) {
    TrimAdvice out;
    out.act = Act::distrust;
    const std::string expected = formatQuantity(core.al * wound * wound, Unit::henry, 2);
    const std::string reads = std::isinf(measured)   ? "It reads open"
                              : std::isnan(measured) ? "The meter gave no number"
                                                     : "It reads " + formatQuantity(measured, Unit::henry, 3);
    out.deviationPercent = 0;
    out.sentence = reads + ", where " + turnWord(wound) + " give about " + expected +
                   ": turns do not mend that. " +
                   (measured > core.al * wound * wound
                        ? "Look for a tail that is not stripped, a broken wire or another core"
                        : "Look for a short, an unstripped tail or another core") +
                   ", and measure again.";
    out.working.lines.push_back(
        {"L = AL·N²", formatQuantity(core.al, Unit::henry, 4) + " × " + std::to_string(wound) + "²",
         expected});
    out.working.source = "definition of AL; common practice";
    return out;
}

}  // namespace

TrimAdvice adviseTrim(const MagneticCore& core, int wound, double measured, double target, double tolerance,
                      double fill) {
    wound = std::max(wound, 1);
    const double expected = core.al * wound * wound;
    const bool believed = measured > 0 && std::isfinite(measured) && target > 0 && expected > 0 &&
                          measured < kBelieved * expected && measured > expected / kBelieved;
    const bool right = target > 0 && std::fabs(measured / target - 1) * 100 <= tolerance;
    if (!believed && !right) return distrusted(core, wound, measured);
    const TurnChange change = turnsToTarget(wound, measured, target);
    TrimAdvice out;
    out.deviationPercent = (measured / target - 1.0) * 100.0;
    const double off = std::fabs(out.deviationPercent);
    const bool low = out.deviationPercent < 0;
    const double reach = reachOfSqueezing(core, fill);
    if (off <= tolerance || (change.turns == 0 && reach == 0.0)) {
        out.act = Act::leave;
    } else if (off <= reach || change.turns == 0) {
        out.act = low ? Act::squeeze : Act::spread;
    } else {
        out.act = change.turns > 0 ? Act::addTurns : Act::removeTurns;
        out.turns = std::abs(change.turns);
    }
    out.sentence = sentenceFor(out, target, change);
    if (out.act == Act::leave && off > tolerance) {
        out.sentence =
            "Leave it: " + percent(out.deviationPercent) + ", and one turn more or less would be worse.";
    }
    out.working.lines.push_back(
        {"N2 = N1·√(L wanted / L measured)",
         std::to_string(wound) + "·√(" + formatQuantity(target, Unit::henry, 4) + " / " +
             formatQuantity(measured, Unit::henry, 4) + ")",
         formatQuantity(wound * std::sqrt(target / measured), Unit::none, 3) + " turns"});
    out.working.lines.push_back({"reach of squeezing or spreading", "", "±" + personNumber(reach) + " %"});
    out.working.source = "definition of AL; reach is common practice";
    return out;
}

}  // namespace ombrek
