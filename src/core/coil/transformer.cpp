#include "core/coil/transformer.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>
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

TwistedBundle::TwistedBundle(int wires) : ends_(std::size_t(std::max(wires, 0)), -1) {
    if (wires < 2 || wires > 12) throw std::domain_error("a bundle has 2 to 12 wires");
    left_.resize(std::size_t(wires));
    std::iota(left_.begin(), left_.end(), 0);
    candidates_ = left_;
}

bool TwistedBundle::known() const { return left_.empty(); }

WireTest TwistedBundle::next() const {
    const auto half = std::ptrdiff_t((candidates_.size() + 1) / 2);
    return {lead_, {candidates_.begin(), candidates_.begin() + half}};
}

void TwistedBundle::answer(bool continuity) {
    if (known()) return;
    const auto half = candidates_.begin() + std::ptrdiff_t((candidates_.size() + 1) / 2);
    if (continuity)
        candidates_.erase(half, candidates_.end());
    else
        candidates_.erase(candidates_.begin(), half);
    settle();
}

void TwistedBundle::settle() {
    while (!left_.empty() && candidates_.size() == 1) {
        const int end = candidates_.front();
        ends_[std::size_t(lead_)] = end;
        left_.erase(std::find(left_.begin(), left_.end(), end));
        candidates_ = left_;
        ++lead_;
    }
}

int TwistedBundle::mostTests(int wires) {
    int out = 0;
    for (int k = wires; k >= 2; --k) out += int(std::ceil(std::log2(k) - 1e-12));
    return out;
}

}  // namespace ombrek
