#include "core/coil/transformer.h"

#include <cmath>
#include <numbers>
#include <stdexcept>

#include "core/coil/winding.h"
#include "core/quantity/quantity.h"

namespace ombrek {

TransformerCheck checkTransformer(const MagneticCore& core, int first, int second, double impedance,
                                  double lowest) {
    if (second < 1 || !(impedance > 0) || !(lowest > 0))
        throw std::domain_error("turns, impedance and frequency are positive");
    TransformerCheck out;
    const double ratio = double(first) / second;
    out.impedanceRatio = ratio * ratio;
    out.secondary = impedance / out.impedanceRatio;
    const double henry = inductance(core, first);
    out.reactance = 2 * std::numbers::pi * lowest * henry;
    out.times = out.reactance / impedance;
    const std::string at =
        formatQuantity(out.reactance, Unit::ohm, 3) + " at " + formatQuantity(lowest, Unit::hertz, 4);
    const std::string times = decimals(out.times, 1) + " times " + formatQuantity(impedance, Unit::ohm, 3);
    if (out.times >= 5) {
        out.state = VerdictState::pass;
        out.sentence = "The winding has " + at + ", " + times + ": enough.";
    } else if (out.times >= 4) {
        out.state = VerdictState::doubtful;
        out.sentence = "The winding has " + at + ", only " + times + ": a turn more would be safer.";
    } else {
        out.state = VerdictState::fail;
        const int needed = int(std::ceil(first * std::sqrt(4 / out.times) - 1e-9));
        out.sentence = "The winding has " + at + ", only " + times + ": it wants at least " +
                       std::to_string(needed) + " turns.";
    }
    out.working.lines = {
        {"Z1/Z2 = (N1/N2)²", "(" + std::to_string(first) + "/" + std::to_string(second) + ")²",
         ratioText(out.impedanceRatio)},
        {"X = 2π·f·AL·N²",
         formatQuantity(lowest, Unit::hertz, 4) + ", " + formatQuantity(henry, Unit::henry, 3), at}};
    out.working.source = "turns ratio; reactance four to five times the impedance is common practice";
    return out;
}

std::string ratioText(double ratio) {
    const auto plain = [](double value) {
        return value >= 1000 ? decimals(value, 0) : formatQuantity(value, Unit::none, 3);
    };
    return ratio >= 1 ? plain(ratio) + " to 1" : "1 to " + plain(1 / ratio);
}

std::vector<int> turnsAsSeen(const std::vector<int>& turns) {
    std::vector<int> out = turns;
    if (out.size() > 1 && out.front() > 1) {
        --out.front();
        ++out.back();
    }
    return out;
}

}  // namespace ombrek
