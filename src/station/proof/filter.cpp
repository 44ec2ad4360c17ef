#include "station/proof/filter.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/coil/loss.h"
#include "core/coil/winding.h"
#include "station/proof/proof.h"
#include "station/rests_on.h"

namespace ombrek {
namespace {

std::vector<FilterPart> filterOf(const Kit& kit, const std::vector<LadderElement>& ladder,
                                 const std::string& band, const Build* build) {
    std::vector<FilterPart> out;
    const double frequency = kit.ratings.on(band).frequency;
    const auto& refs = kit.lowPassOn(band);
    const std::vector<LadderElement> wanted = lowPassOf(kit, band);
    for (std::size_t i = 0; i < ladder.size(); ++i) {
        FilterPart part;
        part.ref = refs[i].ref;
        part.element = ladder[i];
        part.wanted = i < wanted.size() ? wanted[i].value : 0;
        const Coil* coil = kit.coil(part.ref);
        const Part* listed = kit.part(part.ref);
        const double tolerance = coil ? coil->tolerance : listed ? listed->tolerance : 0;
        part.spread = tolerance > 0 ? tolerance : 5;
        const Reading* read = build == nullptr
                                  ? nullptr
                                  : build->last(coil ? Subject::coil(part.ref) : Subject::part(part.ref));
        if (read != nullptr && read->value > 0 && std::isfinite(read->value)) {
            part.measured = true;
            part.spread = std::clamp(100 * read->uncertainty / read->value, 0.5, 20.0);
        }
        if (coil != nullptr && frequency > 0)
            part.element.ohms =
                2 * std::numbers::pi * frequency * part.element.value / coilQ(*coil, frequency);
        out.push_back(part);
    }
    return out;
}

}  // namespace

double coilQ(const Coil& coil, double frequency) {
    constexpr double kCore = 300, kUsual = 150;
    if (coil.windings.empty() || coil.windings.front().turns < 1 || !(coil.target > 0) ||
        !(coil.wire.bare > 0) || !(frequency > 0) || !(coil.core.outerDiameter > 0))
        return kUsual;
    const double length = wireOnCore(coil.core, coil.wire, coil.windings.front().turns);
    if (!(length > 0)) return kUsual;
    return 1 / (1 / copperQ(coil.target, coil.wire, length, frequency) + 1 / kCore);
}

std::vector<FilterPart> filterAsBuilt(const Kit& kit, const Build& build, const std::string& band) {
    return filterOf(kit, lowPassAsBuilt(kit, build, band), band, &build);
}

std::vector<FilterPart> filterAsWanted(const Kit& kit, const std::string& band) {
    return filterOf(kit, lowPassOf(kit, band), band, nullptr);
}

FilterQuestion filterQuestion(const Kit& kit, const Build& build, const LimitProfile& profile, double watts,
                              const std::string& band) {
    const Ratings ratings = kit.ratings.on(band);
    FilterQuestion out;
    out.carrier = ratings.frequency;
    out.source = out.load = ratings.ohms;
    out.stage = ratings.pushPull ? Final::pushPull : Final::single;
    out.harmonics = std::max(2, ratings.harmonics);
    const double power = watts > 0 ? watts : ratings.power;
    out.required = power > 0 ? requiredSuppression(profile, power) : 43;
    const auto ladder = elementsOf(filterAsBuilt(kit, build, band));
    if (ladder.empty() || !(out.carrier > 0)) return out;
    const double carrier = insertionLoss(ladder, out.carrier, ratings.ohms);
    for (int order = 2; order <= out.harmonics; ++order) {
        const auto read = lastStanding(kit, build, Subject::harmonic(order, band));
        const double takes = insertionLoss(ladder, order * out.carrier, ratings.ohms) - carrier;
        // One that was not seen lies deeper still, and says nothing of the finals.
        const double own = read && !read->beyond ? read->value - takes : NAN;
        out.finals.push_back(own > 0 && own < 40 ? own : NAN);
    }
    return out;
}

std::vector<int> turnsOf(const Kit& kit, const std::vector<FilterPart>& filter) {
    std::vector<int> out;
    for (const FilterPart& part : filter) {
        const Coil* coil = kit.coil(part.ref);
        out.push_back(coil != nullptr && !coil->windings.empty() ? coil->windings.front().turns : 0);
    }
    return out;
}

Network networkOf(const std::vector<FilterPart>& filter) {
    using Kind = LadderElement::Kind;
    Network out;
    out.nodes = 2;
    out.in = 1;
    int node = 1;
    for (const FilterPart& part : filter) {
        const Kind kind = part.element.kind;
        const bool series = kind == Kind::seriesL || kind == Kind::seriesC || kind == Kind::seriesR;
        NetworkPart p;
        p.name = part.ref;
        p.kind = part.coil()                                     ? NetworkPart::Kind::inductor
                 : kind == Kind::seriesR || kind == Kind::shuntR ? NetworkPart::Kind::resistor
                                                                 : NetworkPart::Kind::capacitor;
        p.a = node;
        p.b = series ? out.nodes++ : 0;
        p.value = part.element.value;
        p.ohms = part.element.ohms;
        if (series) node = p.b;
        out.parts.push_back(p);
    }
    out.out = node == out.in ? 0 : node;
    return out;
}

Result<Network> filterNetwork(const Kit& kit) {
    const auto filter = filterAsWanted(kit, kit.ratings.bandNames().front());
    if (filter.empty()) return problem("", "The kit does not say its low-pass with the value of every part.");
    const Network out = networkOf(filter);
    if (!out.twoPort()) return problem("", "The kit's low-pass has nothing between its two ends.");
    return out;
}

}  // namespace ombrek
