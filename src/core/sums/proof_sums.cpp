#include "core/sums/proof_sums.h"

#include <algorithm>
#include <cctype>
#include <cmath>

#include "core/proof/heat.h"
#include "core/proof/pads.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

/// What stands in such a sum: figures by their unit, and words.
struct Words {
    std::vector<Quantity> figures;
    std::vector<std::string> names;  ///< small letters

    bool has(const char* name) const { return std::find(names.begin(), names.end(), name) != names.end(); }
    /// The first of a unit; NaN: none.
    double of(Unit unit, double otherwise) const {
        const auto hit =
            std::find_if(figures.begin(), figures.end(), [&](const Quantity& q) { return q.unit == unit; });
        return hit == figures.end() ? otherwise : hit->value;
    }
};

/// "10 dB pad 75 ohm": a number takes the next word for its unit when together they are one.
Words wordsOf(const std::string& text) {
    std::vector<std::string> all;
    std::string word;
    for (const char c : text + ' ') {
        if (std::isspace(static_cast<unsigned char>(c)) == 0) {
            word += c;
        } else if (!word.empty()) {
            all.push_back(word);
            word.clear();
        }
    }
    Words out;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const auto alone = parseQuantity(all[i]);
        const auto both = i + 1 < all.size() && alone ? parseQuantity(all[i] + " " + all[i + 1]) : alone;
        if (alone && both && both->unit != Unit::none && alone->unit == Unit::none) {
            out.figures.push_back(*both);
            ++i;
        } else if (alone) {
            out.figures.push_back(*alone);
        } else {
            out.names.push_back(lowered(all[i]));
        }
    }
    return out;
}

std::string ohms(double value) { return formatQuantity(value, Unit::ohm, 4); }

SumAnswer designed(const std::string& meaning, const PadDesign& design, double watts) {
    SumAnswer out;
    out.meaning = meaning;
    out.value = design.attenuation;
    out.unit = Unit::decibel;
    for (const PadResistor& r : design.resistors) {
        out.text += (out.text.empty() ? "" : ", ") + formatQuantity(r.fitted, Unit::ohm, 3);
        if (watts > 0) out.text += " (" + formatQuantity(r.watts, Unit::watt, 2) + ")";
        out.working.lines.push_back(
            {r.where, ohms(r.exact), "nearest " + formatQuantity(r.fitted, Unit::ohm, 3)});
    }
    out.text += ": " + decimals(design.attenuation, 2) + " dB";
    if (std::isfinite(design.returnLoss))
        out.text += ", return loss " + decimals(design.returnLoss, 0) + " dB";
    out.working.source = "resistive attenuator design equations";
    return out;
}

std::vector<SumAnswer> pad(const Words& w) {
    const bool tap = w.has("tap");
    if (!w.has("pad") && !tap) return {};
    const double watts = w.of(Unit::watt, 0), line = w.of(Unit::ohm, 50), db = w.of(Unit::decibel, NAN);
    const Series series = w.has("e96") ? Series::e96 : w.has("e12") ? Series::e12 : Series::e24;
    if (tap) {
        const auto design = designTap(db, line, watts, series);
        return design ? std::vector{designed("tap of " + decimals(db, 0) + " dB at " + ohms(line), *design,
                                             watts)}
                      : std::vector<SumAnswer>();
    }
    std::vector<SumAnswer> out;
    for (const bool pi : {!w.has("t"), bool(w.has("t"))}) {
        const auto design = designPad(pi ? PadShape::pi : PadShape::t, db, line, watts, series);
        if (design)
            out.push_back(
                designed((pi ? "pi pad of " : "T pad of ") + decimals(db, 0) + " dB at " + ohms(line),
                         *design, watts));
    }
    return out;
}

SumAnswer reflected(double swr) {
    const double gamma = (swr - 1) / (swr + 1), loss = -20 * std::log10(gamma);
    SumAnswer out{
        "return loss at a standing wave ratio of " + decimals(swr, 2),
        loss,
        Unit::decibel,
        formatQuantity(loss, Unit::decibel, 4) + ", " + decimals(100 * gamma * gamma, 1) + " % come back",
        {}};
    out.working.lines = {
        {"|\u0393| = (SWR \u2212 1)/(SWR + 1)", "", decimals(gamma, 3)},
        {"return loss = \u221220\u00b7log10|\u0393|", "", formatQuantity(loss, Unit::decibel, 4)}};
    out.working.source = "definition of the standing wave ratio";
    return out;
}

std::vector<SumAnswer> bridge(const Words& w) {
    if (!w.has("bridge") || w.figures.size() != 2) return {};
    for (const Quantity& q : w.figures) {
        if (q.unit != Unit::volt && q.unit != Unit::none) return {};
    }
    const auto null = bridgeNull(w.figures[0].value, w.figures[1].value);
    if (!null || !std::isfinite(null->returnLoss) || !(null->swr > 1) || !std::isfinite(null->swr)) return {};
    SumAnswer out = reflected(null->swr);
    out.meaning = "null of a bridge, open " + formatQuantity(w.figures[0].value, Unit::volt, 3) +
                  ", with the load " + formatQuantity(w.figures[1].value, Unit::volt, 3);
    out.text = formatQuantity(null->returnLoss, Unit::decibel, 3) + ", SWR " + decimals(null->swr, 2);
    return {out};
}

std::vector<SumAnswer> heat(const Words& w) {
    if (!w.has("heat")) return {};
    HeatQuestion q;
    q.volts = w.of(Unit::volt, 0);
    q.amps = w.of(Unit::ampere, 0);
    q.watts = w.of(Unit::watt, -1);
    const auto h = heatOf(q);
    if (!h) return {};
    SumAnswer out{"heat in the finals with the key down", h->dissipated, Unit::watt, "", {}};
    out.text = formatQuantity(h->dissipated, Unit::watt, 3) + ", efficiency " +
               decimals(100 * h->efficiency, 0) + " %";
    for (const Duty& d : duties())
        out.text += ", " + std::string(d.name) + " " + formatQuantity(h->dissipated * d.share, Unit::watt, 2);
    out.working.lines = {{"V\u00b7I \u2212 P",
                          formatQuantity(q.volts, Unit::volt, 4) + " \u00d7 " +
                              formatQuantity(q.amps, Unit::ampere, 3) + " \u2212 " +
                              formatQuantity(q.watts, Unit::watt, 3),
                          formatQuantity(h->dissipated, Unit::watt, 3)}};
    out.working.source = "conservation of energy; duties are common practice";
    return {out};
}

std::vector<SumAnswer> keyDown(const Words& w) {
    if (!w.has("key") || !w.has("down") || w.figures.size() != 6) return {};
    const auto at = [&](std::size_t i) { return w.figures[i].value; };
    const auto time = keyDownTo(at(0), at(1), at(2), at(3), at(4), at(5));
    if (!time) return {};
    const std::string limit = decimals(at(5), 0) + " \u00b0C";
    if (!std::isfinite(*time))
        return {{"with the key down",
                 at(5),
                 Unit::celsius,
                 "by these two it ends below " + limit + "; read a third before you trust it",
                 {{{"T = Ta + rise\u00b7(1 \u2212 e^(\u2212t/\u03c4))", "", "its rise ends below"}},
                  "one body with one time constant"}}};
    return {
        {"key down to " + limit,
         *time,
         Unit::second,
         formatQuantity(*time, Unit::second, 3) + ", then let it cool",
         {{{"T = Ta + rise\u00b7(1 \u2212 e^(\u2212t/\u03c4))", "", formatQuantity(*time, Unit::second, 3)}},
          "one body with one time constant"}}};
}

}  // namespace

/// Words of these sums; a sentence with another is none of them.
constexpr std::string_view kKnown =
    " pad tap pi t e12 e24 e96 bridge heat key down of at with in ohm ohms to from and null open load final "
    "finals for ";

std::vector<SumAnswer> proofSums(const std::string& text) {
    const Words words = wordsOf(text);
    for (const std::string& name : words.names) {
        if (kKnown.find(" " + name + " ") == std::string_view::npos) return {};
    }
    for (const auto& answer : {pad, bridge, heat, keyDown}) {
        auto out = answer(words);
        if (!out.empty()) return out;
    }
    return {};
}

}  // namespace ombrek
