#include "station/winding/winding.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/coil/winding.h"
#include "station/tune/tune.h"

namespace ombrek {

std::optional<std::size_t> windingInHand(const Coil& coil, const Build& build) {
    for (std::size_t i = 0; i < coil.windings.size(); ++i) {
        if (!build.winding(coil.ref, coil.windings[i].name).done) return i;
    }
    return std::nullopt;
}

std::vector<std::size_t> woundTogether(const Coil& coil, std::size_t winding) {
    const auto twisted = [&](std::size_t i) {
        return std::find(coil.twisted.begin(), coil.twisted.end(), coil.windings[i].name) !=
               coil.twisted.end();
    };
    std::vector<std::size_t> out;
    for (std::size_t i = 0; i < coil.windings.size(); ++i) {
        if (i == winding || (twisted(winding) && twisted(i))) out.push_back(i);
    }
    return out;
}

std::vector<std::string> namesTogether(const Coil& coil, std::size_t winding) {
    std::vector<std::string> out;
    for (const std::size_t i : woundTogether(coil, winding)) out.push_back(coil.windings[i].name);
    return out;
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
    const Reading* measured = build.last(Subject::coil(coil.ref));
    if (measured == nullptr || !wound(coil, build)) return std::nullopt;
    return adviseTrim(coil.core, mainTurns(coil, build), measured->value, coil.target, coil.tolerance,
                      coreFill(coil));
}

std::optional<TrimmerCover> coilCover(const Kit& kit, const Coil& coil, const Build& build) {
    if (!coil.tune) return std::nullopt;
    const Reading* measured = build.last(Subject::coil(coil.ref));
    const double value = measured != nullptr ? measured->value : coil.target;
    return trimmerCover(value, mainTurns(coil, build), tankOf(kit, *coil.tune), coil.tune->low,
                        coil.tune->high);
}

namespace {

std::string checked(const Build& build, const std::string& name) {
    const auto hit = build.coilChecks.find(name);
    return hit == build.coilChecks.end() ? std::string() : hit->second;
}

bool anyTurns(const Coil& coil, const Build& build) {
    return std::any_of(coil.windings.begin(), coil.windings.end(),
                       [&](const Winding& w) { return build.winding(coil.ref, w.name).turns > 0; });
}

bool trusted(const Coil& coil, const Build& build) { return !checked(build, coil.ref + "/trust").empty(); }

}  // namespace

bool keptAsItIs(const Coil& coil, const Build& build) {
    const Reading* measured = build.last(Subject::coil(coil.ref));
    return measured != nullptr && checked(build, coil.ref + "/kept") == std::to_string(measured->id);
}

std::optional<std::size_t> windingToProve(const Coil& coil, const Build& build) {
    for (std::size_t i = 0; i < coil.windings.size(); ++i) {
        if (checked(build, coil.ref + "/" + coil.windings[i].name + "/continuity") != "ok") return i;
    }
    return std::nullopt;
}

TwistedBundle twistedOf(const Coil& coil, const Build& build) {
    TwistedBundle out(std::max(2, int(coil.twisted.size())));
    if (coil.twisted.empty()) {
        while (!out.known()) out.answer(true);
        return out;
    }
    for (const char c : checked(build, coil.ref + "/twist")) out.answer(c == 'y');
    return out;
}

CoilStage coilStage(const Coil& coil, const Build& build) {
    if (checked(build, coil.ref + "/cut").empty() && !anyTurns(coil, build)) return CoilStage::cut;
    if (const auto hand = windingInHand(coil, build)) {
        const int turns = build.winding(coil.ref, coil.windings[*hand].name).turns,
                  wanted = coil.windings[*hand].turns;
        return turns < wanted ? CoilStage::wind : turns == wanted ? CoilStage::full : CoilStage::over;
    }
    const auto advice = coilAdvice(coil, build);
    if (!advice && !trusted(coil, build)) return CoilStage::measure;
    if (advice && advice->act != TrimAdvice::Act::leave && !keptAsItIs(coil, build)) return CoilStage::advice;
    if (checked(build, coil.ref + "/strip").empty()) return CoilStage::strip;
    if (!twistedOf(coil, build).known()) return CoilStage::untwist;
    if (windingToProve(coil, build)) return CoilStage::continuity;
    if (coil.windings.size() > 1 && checked(build, coil.ref + "/isolation") != "ok")
        return CoilStage::isolation;
    return CoilStage::ready;
}

std::optional<ReachChance> coilReach(const Kit& kit, const Coil& coil, const Build& build) {
    if (!coil.tune) return std::nullopt;
    const Reading* measured = build.last(Subject::coil(coil.ref));
    const bool known = measured != nullptr;
    if (known && !(measured->value > 0 && std::isfinite(measured->value))) return std::nullopt;
    TankTolerance tolerance;
    tolerance.inductance =
        known ? 100 * measured->uncertainty / measured->value : coil.core.alTolerancePercent;
    double fixed = 0;
    for (const std::string& ref : coil.tune->fixed) {
        if (const Part* part = kit.part(ref)) fixed = std::max(fixed, part->tolerance);
    }
    if (fixed > 0) tolerance.fixed = fixed;
    const ReachChance out = chanceOfReach(known ? measured->value : coil.target, tankOf(kit, *coil.tune),
                                          tolerance, coil.tune->low, coil.tune->high, 4000);
    return out.trials > 0 ? std::optional(out) : std::nullopt;
}

CoreDuty dutyOf(const Kit& kit, const Coil& coil) {
    CoreDuty out;
    for (std::size_t i = 1; i < coil.windings.size(); ++i)
        out.othersPerTurn += double(coil.windings[i].turns) / coil.windings.front().turns;
    out.tuned = coil.tune.has_value() || coil.windings.size() == 1;
    const bool filter = std::any_of(kit.lowPass.begin(), kit.lowPass.end(),
                                    [&](const FilterElement& e) { return e.ref == coil.ref; });
    const bool power = filter || (coil.impedance > 0 && coil.windings.size() > 1) ||
                       std::any_of(kit.adjustments.begin(), kit.adjustments.end(), [&](const Adjustment& a) {
                           return a.coil == coil.ref && a.unit == Unit::watt;
                       });
    const double ohms = coil.impedance > 0 ? coil.impedance : kit.ratings.ohms;
    if (power && kit.ratings.transmits()) out.volts = std::sqrt(kit.ratings.power * ohms);
    return out;
}

std::optional<TransformerCheck> coilTransformer(const Coil& coil) {
    if (coil.windings.size() < 2 || !(coil.impedance > 0) || !(coil.lowest > 0)) return std::nullopt;
    return checkTransformer(coil.core, coil.windings[0].turns, coil.windings[1].turns, coil.impedance,
                            coil.lowest);
}

double lengthToCut(const Coil& coil, const Winding& winding) {
    return wireToCut(coil.core, coil.wire, winding.turns, coil.tail * (1.0 + double(winding.taps.size())));
}

std::vector<LaidWinding> layOf(const Kit& kit, const Coil& coil) {
    if (coil.core.shape != MagneticCore::Shape::ring) return {};
    const Part* part = kit.part(coil.ref);
    const bool placed = part != nullptr && part->place;
    const auto angle = [&](const std::optional<Pad>& pad) -> std::optional<double> {
        if (!pad || !placed) return std::nullopt;
        return std::atan2(pad->x - part->place->x, part->place->y - pad->y);
    };
    // Wires twisted together lie as one bundle, as wide as they are many.
    std::vector<WindingToLay> bundles;
    std::vector<std::size_t> bundleOf;
    for (std::size_t i = 0; i < coil.windings.size(); ++i) {
        const auto together = woundTogether(coil, i);
        if (together.front() != i) {
            bundleOf.push_back(bundleOf[together.front()]);
            continue;
        }
        const Winding& w = coil.windings[i];
        bundleOf.push_back(bundles.size());
        bundles.push_back({w.turns * int(together.size()), angle(w.start), angle(w.finish)});
    }
    const int fit = std::max(1, turnsThatFit(coil.core, coil.wire));
    const auto laid = layWindings(bundles, coil.clockwise, 2 * std::numbers::pi / fit);
    std::vector<LaidWinding> out;
    for (const std::size_t bundle : bundleOf) out.push_back(laid[bundle]);
    return out;
}

std::string layTrouble(const Kit& kit, const Coil& coil) {
    const auto lay = layOf(kit, coil);
    for (std::size_t i = 0; i < lay.size(); ++i) {
        if (!lay[i].crowded || !coil.windings[i].start) continue;
        return "Wound " + std::string(coil.clockwise ? "clockwise" : "counter-clockwise") + ", the " +
               std::to_string(coil.windings[i].turns) + " turns of " + coil.windings[i].name +
               " do not lie side by side between their holes: look at the print, is it the other way round?";
    }
    return "";
}

CutList cutList(const Kit& kit) {
    CutList out;
    for (const Coil& coil : kit.coils) {
        for (const Winding& w : coil.windings) {
            const double length = lengthToCut(coil, w);
            out.lines.push_back({coil.ref, w.name, coil.wireText, coil.core.designation, w.turns, length});
            out.totals[coil.wireText] += length;
        }
    }
    return out;
}

std::string mayStillChange(const Kit& kit, const Coil& coil, const Build& build) {
    for (const Adjustment& a : kit.adjustments) {
        if (a.coil == coil.ref && tuneState(kit, a, build).state != VerdictState::pass)
            return coil.ref + " may still want turns: tails long, no glue, until \"" + a.title +
                   "\" is settled.";
    }
    return "";
}

Verdict coilVerdict(const Coil& coil, const Build& build) {
    const Reading* measured = build.last(Subject::coil(coil.ref));
    if (wound(coil, build) && measured == nullptr && trusted(coil, build)) {
        Verdict out;
        out.state = VerdictState::pass;
        out.sentence =
            "The count is trusted: " + std::to_string(mainTurns(coil, build)) + " turns, not measured.";
        return out;
    }
    if (!wound(coil, build) || measured == nullptr) return {};
    return judgeReading(*measured, limitsAround(coil.target, coil.tolerance), build.rule, Unit::henry);
}

const Coil* nextCoil(const Kit& kit, const Build& build) {
    const Coil* first = nullptr;
    for (const Coil& coil : kit.coils) {
        if (coilStage(coil, build) == CoilStage::ready) continue;
        if (anyTurns(coil, build)) return &coil;
        if (first == nullptr) first = &coil;
    }
    return first;
}

std::string toldApart(const Coil& coil) {
    constexpr double kStep = 0.1, kShare = 0.2;  ///< [Ω], of the smaller
    struct Told {
        const Winding* winding;
        double ohms, henries;
    };
    std::vector<Told> all;
    for (const Winding& w : coil.windings) {
        if (w.turns < 1) return "";
        const double length = wireOnCore(coil.core, coil.wire, w.turns) + 2 * coil.tail;
        all.push_back({&w, copperResistance(coil.wire, length), coil.core.al * w.turns * w.turns});
    }
    std::sort(all.begin(), all.end(), [](const Told& a, const Told& b) { return a.ohms > b.ohms; });
    bool byOhms = true, differ = false;
    for (std::size_t i = 0; i + 1 < all.size(); ++i) {
        differ = differ || all[i].winding->turns != all[i + 1].winding->turns;
        byOhms = byOhms && all[i].ohms - all[i + 1].ohms >= std::max(kStep, kShare * all[i + 1].ohms);
    }
    if (all.size() < 2 || !differ) return "";
    std::string values;
    for (const Told& t : all)
        values += (values.empty() ? "" : ", ") + t.winding->name + " " +
                  (byOhms ? formatQuantity(t.ohms, Unit::ohm, 2) : formatQuantity(t.henries, Unit::henry, 2));
    return byOhms ? "Told apart by resistance: " + values + "."
                  : "Too alike in ohms for a hand meter; told apart by inductance: " + values + ".";
}

}  // namespace ombrek
