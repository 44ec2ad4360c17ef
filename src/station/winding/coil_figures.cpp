#include "station/winding/coil_figures.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <sstream>

#include "core/coil/air_core.h"
#include "core/coil/loss.h"
#include "core/coil/own_core.h"
#include "core/coil/winding.h"

namespace ombrek {
namespace {

constexpr int kMostTurns = 500;
constexpr double kWarmer = 20;  ///< rise of temperature for which drift is given [K]

std::string henry(double value) { return formatQuantity(value, Unit::henry, 3); }

double wireLength(const CoilIdea& idea) {
    if (!idea.air()) return wireOnCore(idea.core, idea.wire, idea.turns);
    const double around = 2 * std::numbers::pi * idea.airRadius, along = idea.airLength / idea.turns;
    return idea.turns * std::hypot(around, along);
}

void sayRoom(const CoilIdea& idea, CoilFigures& out, std::string& mind) {
    if (idea.air()) {
        const double close = idea.turns * idea.wire.enamelled;
        const bool fits = close <= idea.airLength * 1.0001;
        out.lines.push_back({"Close-wound it takes", formatQuantity(close, Unit::metre, 3),
                             fits ? std::nullopt : std::optional(VerdictState::fail)});
        if (!fits) {
            mind = "The turns do not lie side by side in that length.";
        } else if (idea.airLength < 0.8 * idea.airRadius) {
            mind = "Shorter than 0.8 of its radius, the formula is off by more than 1 %.";
        }
        return;
    }
    if (idea.core.shape != MagneticCore::Shape::ring) return;
    const int whole = turnsThatFit(idea.core, idea.wire), neat = turnsOver300(idea.core, idea.wire);
    const auto state = idea.turns > whole  ? VerdictState::fail
                       : idea.turns > neat ? VerdictState::doubtful
                                           : VerdictState::pass;
    out.lines.push_back({"Fit in one layer", std::to_string(whole), std::nullopt});
    out.lines.push_back({"Neatly, over 300°", std::to_string(neat), state});
    if (whole == 0) {
        mind = "This wire does not pass the hole.";
    } else if (state == VerdictState::fail) {
        mind = "They do not fit in one layer: thinner wire, or a larger core.";
    } else if (state == VerdictState::doubtful) {
        mind = "They fit, but leave no gap between start and end.";
    }
}

void sayLoss(const CoilIdea& idea, CoilFigures& out, std::string& mind) {
    const double length = wireLength(idea);
    out.lines.push_back({"Wire without tails", formatQuantity(length, Unit::metre, 3), std::nullopt});
    out.lines.push_back(
        {"Resistance, DC", formatQuantity(copperResistance(idea.wire, length), Unit::ohm, 3), std::nullopt});
    if (!(idea.frequency > 0)) return;
    const std::string at = " at " + formatQuantity(idea.frequency, Unit::hertz, 3);
    out.lines.push_back({"Resistance" + at,
                         formatQuantity(acResistance(idea.wire, length, idea.frequency), Unit::ohm, 3),
                         std::nullopt});
    const double q = copperQ(out.inductance, idea.wire, length, idea.frequency);
    out.lines.push_back({"Copper Q at most", formatQuantity(q, Unit::none, 2), std::nullopt});
    if (!(idea.power > 0) || idea.core.shape != MagneticCore::Shape::ring || idea.air()) return;
    const double flux = fluxDensity(idea.core, idea.turns, std::sqrt(idea.power * idea.ohms), idea.frequency);
    const double ceiling = fluxCeiling(idea.frequency);
    const auto state = flux > ceiling         ? VerdictState::fail
                       : flux > 0.7 * ceiling ? VerdictState::doubtful
                                              : VerdictState::pass;
    out.lines.push_back({"Flux, of its ceiling",
                         formatQuantity(flux * 1e3, Unit::none, 3) + " of " +
                             formatQuantity(ceiling * 1e3, Unit::none, 2) + " mT",
                         state});
    if (state == VerdictState::fail) mind = "The core will warm at this power: a larger core, or more turns.";
}

void sayDrift(const CoilIdea& idea, CoilFigures& out) {
    if (idea.air() || idea.core.tempco == 0 || !(idea.frequency > 0)) return;
    const double hertz = -idea.frequency * driftPercent(idea.core, kWarmer) / 100 / 2;
    out.lines.push_back({"Drift, 20 K warmer",
                         (hertz > 0 ? "+" : "") + formatQuantity(std::round(hertz), Unit::hertz, 2),
                         std::nullopt});
}

/// One word of what is typed. @return false when it is not understood
bool takeWord(CoilIdea& idea, const std::string& word, const std::vector<MagneticCore>& cores, bool& turns) {
    const auto core = std::find_if(cores.begin(), cores.end(),
                                   [&](const MagneticCore& c) { return c.designation == word; });
    if (core != cores.end()) idea.core = *core;
    if (core != cores.end() || takeOwnCore(idea.core, word)) {
        idea.airRadius = idea.airLength = 0;
        return true;
    }
    const bool plain = word.find_first_not_of("0123456789") == std::string::npos;
    if (plain && word.size() < 6) {
        idea.turns = std::stoi(word);
        turns = true;
        return idea.turns >= 1 && idea.turns <= kMostTurns;
    }
    if (const auto wire = parseWire(word)) {
        idea.wire = *wire;
        idea.wireText = word;
        return true;
    }
    const char last = word.back();
    auto value = parseQuantity(word);
    if (value && value->unit == Unit::none)  // a bare prefix says what is meant
        value->unit = last == 'M' || last == 'k' ? Unit::hertz : Unit::henry;
    if (!value || !(value->value > 0)) return false;
    switch (value->unit) {
        case Unit::henry:
            idea.target = value->value;
            return value->value < 1;
        case Unit::hertz:
            idea.frequency = value->value;
            return value->value < 1e10;
        case Unit::watt:
            idea.power = value->value;
            return value->value < 1e5;
        case Unit::ohm:
            idea.ohms = value->value;
            return value->value < 1e6;
        default:
            return false;
    }
}

/// "air 8mm 12mm": the two words after "air". The radius is the former's yet: which wire, another word may
/// say.
Result<void> takeAir(CoilIdea& idea, std::istringstream& words) {
    std::string diameter, length;
    words >> diameter >> length;
    const auto d = parseQuantity(diameter, Unit::metre), l = parseQuantity(length, Unit::metre);
    const bool good = d && l && d->unit == Unit::metre && l->unit == Unit::metre && d->value > 1e-4 &&
                      d->value < 1 && l->value > 1e-4 && l->value < 2;
    if (!good) return problem("coil", "An air-core coil wants its diameter and length: air 8mm 12mm.");
    idea.core = {};
    idea.airRadius = d->value / 2;
    idea.airLength = l->value;
    return {};
}

int turnsFor(const CoilIdea& idea, double target) {
    const double one = inductanceOf(idea, 1);
    if (!(one > 0)) return 1;
    return int(std::lround(std::clamp(std::sqrt(target / one), 1.0, double(kMostTurns))));
}

}  // namespace

CoilIdea ideaOf(const Kit& kit, const Coil& coil) {
    CoilIdea out;
    out.core = coil.core;
    out.wire = coil.wire;
    out.wireText = coil.wireText;
    out.turns = coil.windings.front().turns;
    out.target = coil.target;
    out.tolerance = coil.tolerance;
    out.frequency = coil.tune ? std::sqrt(coil.tune->low * coil.tune->high) : kit.ratings.frequency;
    out.power = kit.ratings.power;
    out.ohms = coil.impedance > 0 ? coil.impedance : kit.ratings.ohms;
    return out;
}

double inductanceOf(const CoilIdea& idea, int turns) {
    return idea.air() ? airCoreInductance(idea.airRadius, idea.airLength, turns)
                      : inductance(idea.core, turns);
}

Result<CoilIdea> changedIdea(CoilIdea idea, std::string_view text, const std::vector<MagneticCore>& cores) {
    std::istringstream words{std::string(text)};
    const double before = idea.target;
    bool turns = false;
    if (idea.air()) idea.airRadius -= idea.wire.enamelled / 2;
    for (std::string word; words >> word;) {
        if (word == "air") {
            if (const auto taken = takeAir(idea, words); !taken) return tl::make_unexpected(taken.error());
        } else if (!takeWord(idea, word, cores, turns)) {
            return problem("coil",
                           "\"" + word.substr(0, 30) +
                               "\" is no core of the table, AL, size, turns (1 to 500), wire, inductance, "
                               "frequency, power or impedance.");
        }
    }
    if (idea.air()) idea.airRadius += idea.wire.enamelled / 2;
    if (!idea.air() && idea.core.shape == MagneticCore::Shape::ring && !whole(idea.core))
        return problem("coil", "A ring of your own wants its AL and its size in mm: AL4.9n 12.7x7.7x4.8.");
    if (!(idea.wire.bare > 0)) return problem("coil", "Say the wire too, as 28AWG, 28SWG or 0.4mm.");
    if (!idea.air() && !(idea.core.al > 0))
        return problem("coil", "Say the core too: one of the table, or AL and size of your own.");
    if (!turns && idea.target > 0 && idea.target != before) idea.turns = turnsFor(idea, idea.target);
    return idea;
}

CoilFigures figuresOf(const CoilIdea& idea) {
    CoilFigures out;
    out.inductance = inductanceOf(idea, idea.turns);
    const double spread = idea.air() ? 1 : idea.core.alTolerancePercent;
    out.low = out.inductance * (1 - spread / 100);
    out.high = out.inductance * (1 + spread / 100);
    std::string mind;
    out.lines.push_back({"From", henry(out.low) + " to " + henry(out.high), std::nullopt});
    if (idea.target > 0) {
        out.turnsWanted = turnsFor(idea, idea.target);
        const double off = 100 * (out.inductance / idea.target - 1);
        out.lines.push_back({"Wanted", henry(idea.target), std::nullopt});
        const bool near = idea.tolerance > 0 && std::fabs(off) <= idea.tolerance;
        out.lines.push_back({"Off by", decimals(off, 1, true) + "\u202f%",
                             idea.tolerance > 0
                                 ? std::optional(near ? VerdictState::pass : VerdictState::doubtful)
                                 : std::nullopt});
        if (out.turnsWanted != idea.turns)
            mind = std::to_string(out.turnsWanted) + " turns come nearest to what is wanted.";
    }
    sayRoom(idea, out, mind);
    sayLoss(idea, out, mind);
    sayDrift(idea, out);
    out.sentence = mind.empty() ? "Nothing speaks against it." : mind;
    return out;
}

}  // namespace ombrek
