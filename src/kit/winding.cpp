#include "kit/winding.h"

#include <algorithm>

#include "core/coil/winding.h"

namespace ombrek {

std::optional<std::size_t> windingInHand(const Coil& coil, const Build& build) {
    for (std::size_t i = 0; i < coil.windings.size(); ++i) {
        if (!build.winding(coil.ref, coil.windings[i].name).done) return i;
    }
    return std::nullopt;
}

bool wound(const Coil& coil, const Build& build) { return !windingInHand(coil, build); }

int mainTurns(const Coil& coil, const Build& build) {
    const Winding& main = coil.windings.front();
    const int counted = build.winding(coil.ref, main.name).turns;
    return counted > 0 ? counted : main.turns;
}

double coreFill(const Coil& coil) {
    if (coil.core.shape != MagneticCore::Shape::ring) return 0.0;
    int turns = 0;
    for (const Winding& winding : coil.windings) turns += winding.turns;
    const int fit = turnsThatFit(coil.core, coil.wire);
    return fit > 0 ? double(turns) / fit : 1.0;
}

std::optional<TrimAdvice> coilAdvice(const Coil& coil, const Build& build) {
    const Reading* measured = build.last("coil:" + coil.ref);
    if (measured == nullptr || !(measured->value > 0) || !wound(coil, build)) return std::nullopt;
    return adviseTrim(coil.core, mainTurns(coil, build), measured->value, coil.target, coil.tolerance,
                      coreFill(coil));
}

std::optional<TrimmerCover> coilCover(const Kit& kit, const Coil& coil, const Build& build) {
    if (!coil.tune) return std::nullopt;
    const Reading* measured = build.last("coil:" + coil.ref);
    const double value = measured != nullptr && measured->value > 0 ? measured->value : coil.target;
    return trimmerCover(value, mainTurns(coil, build), tankOf(kit, *coil.tune), coil.tune->low,
                        coil.tune->high);
}

Verdict coilVerdict(const Coil& coil, const Build& build) {
    const Reading* measured = build.last("coil:" + coil.ref);
    if (!wound(coil, build) || measured == nullptr) return {};
    return judge(measured->value, limitsAround(coil.target, coil.tolerance), measured->uncertainty,
                 build.rule, Unit::henry);
}

namespace {

bool begun(const Coil& coil, const Build& build) {
    return std::any_of(coil.windings.begin(), coil.windings.end(),
                       [&](const Winding& w) { return build.winding(coil.ref, w.name).turns > 0; });
}

}  // namespace

const Coil* nextCoil(const Kit& kit, const Build& build) {
    const Coil* first = nullptr;
    for (const Coil& coil : kit.coils) {
        if (wound(coil, build) && build.last("coil:" + coil.ref) != nullptr) continue;
        if (begun(coil, build)) return &coil;
        if (first == nullptr) first = &coil;
    }
    return first;
}

}  // namespace ombrek
