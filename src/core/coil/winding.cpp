#include "core/coil/winding.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

void requireTurns(int turns) {
    if (turns < 1) throw std::domain_error("a winding has at least one turn");
}

}  // namespace

double inductance(const MagneticCore& core, int turns) {
    requireTurns(turns);
    return core.al * turns * turns;
}

InductanceRange inductanceRange(const MagneticCore& core, int turns) {
    const double middle = inductance(core, turns);
    const double part = core.alTolerancePercent / 100.0;
    return {middle * (1 - part), middle * (1 + part)};
}

int turnsFor(const MagneticCore& core, double wanted) {
    if (!(wanted > 0.0) || !std::isfinite(wanted)) throw std::domain_error("an inductance is positive");
    const int below = std::max(1, static_cast<int>(std::floor(std::sqrt(wanted / core.al))));
    const double errorBelow = std::fabs(inductance(core, below) - wanted);
    const double errorAbove = std::fabs(inductance(core, below + 1) - wanted);
    return errorBelow <= errorAbove ? below : below + 1;
}

Working inductanceWorking(const MagneticCore& core, int turns) {
    const double value = inductance(core, turns);
    const auto range = inductanceRange(core, turns);
    Working out;
    out.lines.push_back({"L = AL·N²",
                         formatQuantity(core.al, Unit::henry, 4) + " × " + std::to_string(turns) + "²",
                         formatQuantity(value, Unit::henry, 4)});
    out.lines.push_back(
        {"AL ±" + personNumber(core.alTolerancePercent) + " %", "",
         formatQuantity(range.low, Unit::henry, 3) + " to " + formatQuantity(range.high, Unit::henry, 3)});
    out.source = "definition of AL; core table";
    return out;
}

int turnsThatFit(const MagneticCore& core, const Wire& wire) {
    if (core.shape != MagneticCore::Shape::ring) throw std::domain_error("one-layer fit is for a ring core");
    const double ratio = wire.enamelled / (core.innerDiameter - wire.enamelled);
    if (!(ratio > 0.0) || ratio > 1.0) return 0;
    return static_cast<int>(std::floor(std::numbers::pi / std::asin(ratio)));
}

int turnsOver300(const MagneticCore& core, const Wire& wire) { return turnsThatFit(core, wire) * 300 / 360; }

double wireOnCore(const MagneticCore& core, const Wire& wire, int turns) {
    requireTurns(turns);
    if (core.shape == MagneticCore::Shape::twoHole) return core.turnLength * turns;
    const double perimeter =
        2 * core.height + (core.outerDiameter - core.innerDiameter) + std::numbers::pi * wire.enamelled;
    const double meanRadius = (core.outerDiameter + core.innerDiameter) / 4.0;
    const double advance = meanRadius * (330.0 / 180.0 * std::numbers::pi) / turns;
    return turns * std::hypot(perimeter, turns > 1 ? advance : 0.0);
}

double wireToCut(const MagneticCore& core, const Wire& wire, int turns, double tail) {
    const double exact = wireOnCore(core, wire, turns) + 2 * tail;
    return std::ceil(exact * 1.125 * 100.0 - 1e-9) / 100.0;
}

}  // namespace ombrek
