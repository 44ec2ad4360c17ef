#include "core/quantity/shown.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <limits>
#include <vector>

#include "core/text/letters.h"

namespace ombrek {
namespace {

constexpr double kInfinite = std::numeric_limits<double>::infinity();
constexpr double kBeeper = 50;  ///< below which a continuity beeper sounds [Ω] (common practice)

/// What the instruments of a bench can show of a unit at all, generously (common practice).
struct Span {
    Unit unit;
    double low, high;
    double least;  ///< smallest amount but zero
    bool overload;
    std::vector<std::string_view> prefixes;  ///< as displays use them
};
const std::array<Span, 12>& spans() {
    static const std::array<Span, 12> all{{{Unit::ohm, 0, 1e14, 1e-6, true, {"", "k", "M"}},
                                           {Unit::farad, -1e-10, 1, 1e-16, true, {"p", "n", "u"}},
                                           {Unit::henry, 0, 1e3, 1e-11, true, {"n", "u", "m"}},
                                           {Unit::volt, -1e5, 1e5, 1e-9, true, {"m", ""}},
                                           {Unit::ampere, -1e3, 1e3, 1e-13, true, {"u", "m", ""}},
                                           {Unit::watt, 0, 1e5, 1e-15, false, {"m", ""}},
                                           {Unit::hertz, 1e-3, 1e12, 1e-3, false, {"", "k", "M"}},
                                           {Unit::dbm, -200, 100, 0, false, {""}},
                                           {Unit::decibel, -200, 200, 0, false, {""}},
                                           {Unit::celsius, -273.15, 3000, 0, false, {""}},
                                           {Unit::percent, -1e6, 1e6, 0, false, {""}},
                                           {Unit::ppm, -1e6, 1e6, 0, false, {""}}}};
    return all;
}

const Span* spanOf(Unit unit) {
    const auto hit =
        std::find_if(spans().begin(), spans().end(), [&](const Span& s) { return s.unit == unit; });
    return hit == spans().end() ? nullptr : &*hit;
}

std::string bare(std::string_view text) {
    std::string out;
    for (const char c : text) {
        if (c != ' ' && c != '\t') out.push_back(lowered(c));
    }
    return out;
}

bool isOverload(const std::string& word) {
    static constexpr std::array<std::string_view, 12> words{
        "ol", "o.l", "0l", "0.l", "overload", "over", "inf", "+inf", "infinite", "open", "\u221e", "9.9e37"};
    return std::find(words.begin(), words.end(), word) != words.end() || word == "9.9e+37";
}

/// Digits and one mark only: nothing says which prefix is meant.
bool bareNumber(std::string_view text) {
    return !text.empty() && text.find_first_not_of("+-0123456789.,") == std::string_view::npos;
}

/// The text with the display's prefix that brings it nearest to what is wanted; read as text, so that 4.7
/// with k is the double that "4.7k" is.
double nearestPrefix(std::string_view text, double number, Unit unit, double wanted) {
    const Span* span = spanOf(unit);
    if (span == nullptr || number == 0 || wanted == 0 || !std::isfinite(wanted)) return number;
    double best = number, bestOff = kInfinite;
    for (const std::string_view prefix : span->prefixes) {
        const auto value = parseQuantity(std::string(text) + std::string(prefix), unit);
        if (!value) continue;
        const double off = std::fabs(std::log(std::fabs(value->value / wanted)));
        if (off < bestOff - 1e-9) best = value->value, bestOff = off;
    }
    return best;
}

Result<Shown> checked(Shown shown, Unit unit) {
    if (const auto why = impossible(shown.value, unit)) return problem("", *why);
    return shown;
}

}  // namespace

std::optional<std::string> impossible(double value, Unit unit) {
    const Span* span = spanOf(unit);
    if (std::isnan(value)) return "This is no number.";
    if (span == nullptr) return std::nullopt;
    if (std::isinf(value)) {
        if (value > 0 && span->overload) return std::nullopt;
        return "A reading in " + std::string(plural(unit)) +
               " that is beyond the display tells nothing here.";
    }
    const std::string text = std::fabs(value) < 1e15 ? formatQuantity(value, unit, 3) : "So much";
    if (value < span->low || value > span->high)
        return text + " is no reading of a bench meter; mind the prefix (p, n, µ, m, k, M).";
    if (value != 0 && std::fabs(value) < span->least)
        return text + " is less than any meter shows; mind the prefix (p, n, µ, m, k, M).";
    return std::nullopt;
}

Result<Shown> parseShown(std::string_view text, Unit unit, double wanted) {
    const std::string word = bare(text);
    if (isOverload(word)) return checked({kInfinite, true}, unit);
    if (unit == Unit::ohm && (word == "nobeep" || word == "silent")) return Shown{kBeeper, true};
    if (word.starts_with('>')) {
        const auto at = text.find('>');
        auto least = parseShown(text.substr(at + 1), unit, wanted);
        if (!least) return least;
        if (least->beyond) return problem("", "Write one > before the number, as >20M.");
        const Span* span = spanOf(unit);
        if (span == nullptr || !span->overload)
            return problem("", "In " + std::string(plural(unit)) + " only a number can be kept.");
        return Shown{least->value, true};
    }
    const auto value = parseQuantity(text, unit);
    if (!value) return tl::make_unexpected(value.error());
    if (value->unit != unit && value->unit != Unit::none)
        return problem("", "\"" + std::string(text.substr(0, 40)) + "\" is in " +
                               std::string(plural(value->unit)) + "; wanted " + std::string(plural(unit)) +
                               ".");
    const double number = bareNumber(word) ? nearestPrefix(text, value->value, unit, wanted) : value->value;
    return checked({number, false}, unit);
}

std::string shownText(const Shown& shown, Unit unit, int figures) {
    if (std::isinf(shown.value)) return unit == Unit::ohm || unit == Unit::henry ? "open" : "over its range";
    const std::string text = formatQuantity(shown.value, unit, figures);
    return shown.beyond ? "over " + text : text;
}

}  // namespace ombrek
