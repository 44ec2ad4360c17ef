#include "station/rebuild.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <sstream>

#include "core/circuit/prototype.h"
#include "core/coil/tank.h"
#include "core/coil/winding.h"
#include "core/quantity/preferred.h"
#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

constexpr double kChange = 0.02;  ///< a better core must be nearer by this share to be taken instead
constexpr double kRipple = 0.1;   ///< of the prototype [dB]
constexpr double kEdge = 1.08;    ///< end of the prototype's ripple above the band's upper end
constexpr double kSpread = 0.02;  ///< what whole turns may leave without a word
constexpr int kLeastTurns = 4;

/// Whether a core's mix has its best Q at a frequency; unknown counts as no.
bool goodAt(const MagneticCore& core, double frequency) {
    return core.qLow > 0 && frequency >= core.qLow && frequency <= core.qHigh;
}

struct Choice {
    const MagneticCore* core = nullptr;
    int turns = 0;
    double inductance = 0;
};

/// The ring, of the coil's size or the next larger, whose whole turns come nearest; the kit's own where it
/// does as well.
Choice choose(const Coil& coil, double wanted, double frequency, const std::vector<MagneticCore>& cores) {
    Choice best;
    double bestScore = 1e9;
    const auto consider = [&](const MagneticCore& core, double handicap) {
        const int turns = turnsFor(core, wanted);
        const bool ring = core.shape == MagneticCore::Shape::ring;
        if (turns > 500) return;
        if (ring && turns > turnsOver300(core, coil.wire)) handicap += 0.5;
        if (turns < kLeastTurns) handicap += 0.2;
        const double value = inductance(core, turns);
        const double score = std::fabs(value / wanted - 1) + handicap;
        if (score < bestScore) {
            bestScore = score;
            best = {&core, turns, value};
        }
    };
    const bool own = coil.core.ferrite() || goodAt(coil.core, frequency) || coil.core.qLow <= 0;
    consider(coil.core, own ? 0 : 0.3);
    if (coil.core.ferrite() || coil.core.shape != MagneticCore::Shape::ring) return best;
    for (const MagneticCore& core : cores) {
        const bool powder = core.shape == MagneticCore::Shape::ring && !core.ferrite();
        const double size = core.outerDiameter / coil.core.outerDiameter;
        if (!powder || !goodAt(core, frequency) || size < 0.99 || size > 1.7 ||
            core.designation == coil.core.designation)
            continue;
        // Mixes 2 and 6 are what drawers hold (common practice).
        const bool usual = core.mix == "2" || core.mix == "6";
        consider(core, kChange + (size > 1.01 ? 0.03 : 0) + (usual ? 0 : 0.05));
    }
    return best;
}

Rewound rewind(const Coil& coil, double wanted, double frequency, const std::vector<MagneticCore>& cores) {
    Choice choice = choose(coil, wanted, frequency, cores);
    if (choice.core == nullptr) choice = {&coil.core, coil.windings.front().turns, coil.target};
    Rewound out;
    out.ref = coil.ref;
    out.before = coil.target;
    out.wanted = wanted;
    out.after = choice.inductance;
    out.coreBefore = coil.core.designation;
    out.coreAfter = choice.core->designation;
    const double main = coil.windings.front().turns;
    for (const Winding& winding : coil.windings) {
        out.turnsBefore.push_back(winding.turns);
        // The other windings keep their ratio to the first.
        const bool first = out.turnsAfter.empty();
        out.turnsAfter.push_back(first ? choice.turns
                                       : std::max(1, int(std::lround(winding.turns * choice.turns / main))));
    }
    const double off = choice.inductance / wanted - 1;
    if (std::fabs(off) > kSpread) {
        out.note = "Whole turns give " + decimals(100 * off, 1, true) +
                   " %: " + (off > 0 ? "spread" : "squeeze") + " the turns until it reads " +
                   formatQuantity(wanted, Unit::henry, 3) + ".";
    }
    if (choice.core->shape == MagneticCore::Shape::ring &&
        choice.turns > turnsOver300(*choice.core, coil.wire))
        out.note += std::string(out.note.empty() ? "" : " ") +
                    "The turns do not lie in one layer: take thinner wire or a larger ring.";
    return out;
}

/// What a low-pass element should be: the kit's own, scaled, or the prototype's.
std::vector<double> wantedOf(const Kit& kit, const std::vector<LadderElement>& before, double scale,
                             Band band, bool prototype) {
    std::vector<double> out;
    const auto g = prototype ? chebyshev(int(before.size()), kRipple) : std::vector<double>();
    const double omega = 2 * std::numbers::pi * band.high * kEdge;
    for (std::size_t i = 0; i < before.size(); ++i) {
        const bool coil = before[i].kind == LadderElement::Kind::seriesL;
        out.push_back(!prototype ? before[i].value / scale
                      : coil     ? g[i] * kit.ratings.ohms / omega
                                 : g[i] / (kit.ratings.ohms * omega));
    }
    return out;
}

void sweep(Rebuilt& out) {
    if (out.before.empty()) return;
    std::vector<double> frequencies{out.band.low, (out.band.low + out.band.high) / 2, out.band.high};
    for (int harmonic = 2; harmonic <= 5; ++harmonic) frequencies.push_back(harmonic * out.band.low);
    for (int i = 0; i <= 40; ++i) frequencies.push_back(out.band.high / 4 * std::pow(32.0, i / 40.0));
    std::sort(frequencies.begin(), frequencies.end());
    frequencies.erase(std::unique(frequencies.begin(), frequencies.end()), frequencies.end());
    for (const double f : frequencies)
        out.response.push_back(
            {f, insertionLoss(out.before, f, out.ohms), insertionLoss(out.after, f, out.ohms)});
}

void rebuildLowPass(const Kit& kit, const std::vector<MagneticCore>& cores, bool prototype, Rebuilt& out) {
    out.before = lowPassOf(kit);
    out.lowPass = kit.lowPass;
    if (out.before.size() != kit.lowPass.size()) {
        out.before.clear();
        out.doubts.push_back(
            "The low-pass has a part without a value or a coil without turns: it was left as it is.");
        return;
    }
    const bool plain = std::all_of(out.before.begin(), out.before.end(), [](const LadderElement& e) {
        return e.kind == LadderElement::Kind::seriesL || e.kind == LadderElement::Kind::shuntC;
    });
    if (prototype && (out.before.size() % 2 == 0 || out.before.size() > 15 || !plain)) {
        out.doubts.push_back(
            "A prototype wants an odd number of series coils and shunt capacitors in turn; the kit's values "
            "were scaled.");
        prototype = false;
    }
    const double scale = out.band.high / out.from.high;
    const auto wanted = wantedOf(kit, out.before, scale, out.band, prototype);
    for (std::size_t i = 0; i < out.before.size(); ++i) {
        LadderElement element = out.before[i];
        if (const Coil* coil = kit.coil(kit.lowPass[i].ref)) {
            out.coils.push_back(rewind(*coil, wanted[i], out.band.high, cores));
            element.value = out.coils.back().after;
        } else {
            out.capacitors.push_back(
                {kit.lowPass[i].ref, element.value, wanted[i], nearestPreferred(wanted[i], Series::e24)});
            element.value = out.capacitors.back().after;
        }
        out.after.push_back(element);
    }
}

void rebuildTanks(const Kit& kit, const std::vector<MagneticCore>& cores, Rebuilt& out) {
    const double scale = out.band.high / out.from.high;
    for (const Coil& coil : kit.coils) {
        if (!coil.tune || out.coil(coil.ref) || coil.windings.empty()) continue;
        // Only what is tuned to the band; an intermediate frequency or an oscillator stays.
        const bool onBand = coil.tune->low < out.from.high * 1.02 && coil.tune->high > out.from.low * 0.98;
        const TankCapacitance before = tankOf(kit, *coil.tune);
        if (!onBand) continue;
        if (!reckonable(coil.target, before, coil.tune->low, coil.tune->high)) {
            out.doubts.push_back(coil.ref +
                                 " is tuned, and the kit does not say by what: reckon it yourself.");
            continue;
        }
        TankCapacitance after = before;
        after.fixed = 0;
        for (const std::string& ref : coil.tune->fixed) {
            const Part* part = kit.part(ref);
            if (part == nullptr || !(part->nominal > 0)) continue;
            if (!out.capacitor(ref))
                out.capacitors.push_back({ref, part->nominal, part->nominal / scale,
                                          nearestPreferred(part->nominal / scale, Series::e24)});
            after.fixed += out.capacitor(ref)->after;
        }
        const double middle = std::sqrt(out.band.low * out.band.high);
        out.coils.push_back(rewind(coil, inductanceFor(middle, after.at(0.5)), middle, cores));
        const Rewound& wound = out.coils.back();
        const TrimmerCover cover =
            trimmerCover(wound.after, wound.turnsAfter.front(), after, out.band.low, out.band.high);
        if (cover.state != VerdictState::pass) out.doubts.push_back(coil.ref + ": " + cover.sentence);
    }
}

void sayAgain(const Kit& kit, Rebuilt& out) {
    for (const Rewound& coil : out.coils)
        out.again.push_back("Measure " + coil.ref +
                            " before it is soldered: " + formatQuantity(coil.wanted, Unit::henry, 3) + ".");
    for (const Adjustment& a : kit.adjustments) {
        if (!a.coil.empty() && out.coil(a.coil)) out.again.push_back("Tune again: " + a.title + ".");
    }
    if (!out.after.empty()) {
        const double f = 2 * out.band.low;
        out.again.push_back(
            "At " + formatQuantity(f, Unit::hertz, 4) + ", twice the band's lower end, the low-pass takes " +
            decimals(insertionLoss(out.after, f, out.ohms), 1) + " dB; on the kit's own band it was " +
            decimals(insertionLoss(out.before, 2 * out.from.low, out.ohms), 1) + " dB.");
    }
    if (!out.after.empty()) out.again.emplace_back(kProveAgain);
    out.again.push_back(
        "Oscillators and crystals stay as they are: whether the rig tunes this band is yours to see to.");
    for (const Recapped& c : out.capacitors) {
        const Part* part = kit.part(c.ref);
        if (part && part->volts > 0)
            out.again.push_back(c.ref + " must be rated " + formatQuantity(part->volts, Unit::volt, 3) +
                                " as before, with a low-loss dielectric.");
    }
}

}  // namespace

Result<Band> readBand(const std::string& text) {
    for (const std::string sign : {"..", " to ", " bis ", " - "}) {
        const auto at = text.find(sign);
        if (at == std::string::npos) continue;
        const auto high = parseQuantity(text.substr(at + sign.size()), Unit::hertz);
        auto low = parseQuantity(text.substr(0, at), Unit::hertz);
        if (!low) return problem("band", low.error().sentence);
        if (!high) return problem("band", high.error().sentence);
        // "3.5 to 3.8 MHz": the first is in the unit of the second.
        const bool bare = text.substr(0, at).find_first_not_of("0123456789., ") == std::string::npos;
        while (bare && low->value > 0 && low->value * 1000 <= high->value) low->value *= 1000;
        return Band{low->value, high->value};
    }
    return problem("band", "Write the band as 3.5M..3.8M.");
}

const Rewound* Rebuilt::coil(const std::string& ref) const {
    const auto hit = std::find_if(coils.begin(), coils.end(), [&](const Rewound& c) { return c.ref == ref; });
    return hit == coils.end() ? nullptr : &*hit;
}
const Recapped* Rebuilt::capacitor(const std::string& ref) const {
    const auto hit =
        std::find_if(capacitors.begin(), capacitors.end(), [&](const Recapped& c) { return c.ref == ref; });
    return hit == capacitors.end() ? nullptr : &*hit;
}

std::optional<Band> bandOf(const Kit& kit) {
    const double f = kit.ratings.frequency;
    for (const Coil& coil : kit.coils) {
        if (coil.tune && f > 0 && coil.tune->low <= f * 1.02 && coil.tune->high >= f * 0.98)
            return Band{coil.tune->low, coil.tune->high};
    }
    if (f > 0) return Band{f, f};
    return std::nullopt;
}

Result<std::vector<FilterElement>> lowPassLine(const Kit& kit, const std::string& text) {
    std::vector<FilterElement> out;
    std::istringstream in(text);
    std::optional<bool> series;
    int coils = 0;
    for (std::string word; in >> word;) {
        while (!word.empty() && (word.back() == ',' || word.back() == ';')) word.pop_back();
        if (word.empty()) continue;
        if (word == "series" || word == "shunt") {
            series = word == "series";
            continue;
        }
        const bool coil = kit.coil(word) != nullptr;
        const Part* part = kit.part(word);
        if (!coil && part == nullptr)
            return problem("low_pass",
                           "\"" + word.substr(0, 30) + "\" is neither a coil nor a part of this kit.");
        const bool capacitor = part != nullptr && part->kind == PartKind::capacitor;
        if (!coil && !capacitor && part->kind != PartKind::inductor)
            return problem("low_pass", word + " is neither a coil nor a capacitor.");
        if (std::any_of(out.begin(), out.end(), [&](const FilterElement& e) { return e.ref == word; }))
            return problem("low_pass", word + " stands there twice.");
        coils += !capacitor;
        out.push_back({word, series.value_or(!capacitor)});
        series.reset();
    }
    if (out.size() < 2 || coils == 0)
        return problem("low_pass",
                       "A low-pass has a coil and a capacitor at least: C1 L1 C2 L2 C3, from the finals to "
                       "the antenna.");
    return out;
}

Result<Rebuilt> rebuild(const Kit& kit, Band band, const std::vector<MagneticCore>& cores, bool prototype) {
    if (!(band.low > 1e4) || !(band.high >= band.low) || band.high > 1e9)
        return problem("band", "A band runs from a lower to an upper frequency, such as 3.5M..3.8M.");
    if (band.high > 2 * band.low)
        return problem(
            "band", "One low-pass serves less than an octave: its second harmonic must lie above the band.");
    const auto from = bandOf(kit);
    if (!from) return problem("kit", "The kit does not say which band it is made for.");
    if (kit.lowPass.empty() &&
        std::none_of(kit.coils.begin(), kit.coils.end(), [](const Coil& c) { return c.tune.has_value(); }))
        return problem("kit",
                       "The kit names neither a low-pass nor a tuned circuit: there is nothing to rebuild.");
    Rebuilt out;
    out.from = *from;
    out.band = band;
    out.ohms = kit.ratings.ohms;
    if (!kit.lowPass.empty()) rebuildLowPass(kit, cores, prototype, out);
    if (out.after.empty() && kit.ratings.air != Ratings::Air::no) {
        out.barred = std::string(kit.lowPass.empty() ? "The kit does not name its low-pass"
                                                     : "The low-pass could not be reckoned") +
                     ": it would stay as it is, and may let the harmonics of " +
                     formatQuantity(band.high, Unit::hertz, 3) +
                     " through. Do not transmit there before it is known and rebuilt.";
        out.doubts.insert(out.doubts.begin(), out.barred);
    }
    rebuildTanks(kit, cores, out);
    sweep(out);
    sayAgain(kit, out);
    return out;
}

}  // namespace ombrek
