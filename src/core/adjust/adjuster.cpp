#include "core/adjust/adjuster.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

using Kind = Adjuster::Kind;

double turnsOf(const Adjuster& a) {
    if (a.turns > 0) return a.turns;
    return a.kind == Kind::trimmer ? 0.5 : a.kind == Kind::pot ? 5.0 / 6 : 6.0;
}

/// In whole numbers: a jumper's steps, a menu's counts.
bool stepped(const Adjuster& a) { return a.high > a.low && (a.kind == Kind::jumper || a.kind == Kind::menu); }
bool manyTurns(const Adjuster& a) { return (a.kind == Kind::pot || a.kind == Kind::slug) && turnsOf(a) > 1; }

/// The hours of a clock from its least to its most, where it turns once at most.
struct Hours {
    double least, sweep;
};
Hours hoursOf(const Adjuster& a) {
    return a.kind == Kind::trimmer ? Hours{9, 12 * turnsOf(a)} : Hours{12 - 6 * turnsOf(a), 12 * turnsOf(a)};
}

}  // namespace

double standable(const Adjuster& a, double position) {
    position = std::clamp(std::isnan(position) ? 0.5 : position, 0.0, 1.0);
    if (stepped(a)) return (std::round(a.low + position * (a.high - a.low)) - a.low) / (a.high - a.low);
    return std::round(position * 1000) / 1000;
}

std::string positionText(const Adjuster& a, double position) {
    position = std::clamp(std::isnan(position) ? 0.0 : position, 0.0, 1.0);
    if (stepped(a)) {
        const std::string count = decimals(a.low + position * (a.high - a.low), 0);
        return a.kind == Kind::jumper ? "step " + count : count;
    }
    if (manyTurns(a)) return decimals(position * turnsOf(a), 2) + "\u202fturns";
    return decimals(position * 100, 1) + "\u202f%";
}

std::string hourText(const Adjuster& a, double position) {
    const bool once = (a.kind == Kind::trimmer || a.kind == Kind::pot) && turnsOf(a) <= 1;
    if (!once || std::isnan(position)) return "";
    const Hours hours = hoursOf(a);
    const double hour = hours.least + std::clamp(position, 0.0, 1.0) * hours.sweep;
    const int minutes = int(std::lround(hour * 60 / 5)) * 5;
    const int whole = (minutes / 60 + 11) % 12 + 1, rest = minutes % 60;
    return std::to_string(whole) + ":" + (rest < 10 ? "0" : "") + std::to_string(rest);
}

std::optional<double> readPosition(const Adjuster& a, std::string_view text) {
    const bool percent = text.find('%') != std::string_view::npos;
    const auto value = parseQuantity(std::string(text), percent ? Unit::percent : Unit::none);
    std::string words(text);
    if (const auto at = words.find("turn"); !value && at != std::string::npos)
        return readPosition(a, words.substr(0, at));
    if (!value || !std::isfinite(value->value)) return std::nullopt;
    double share = value->value / 100;
    if (!percent && stepped(a)) share = (value->value - a.low) / (a.high - a.low);
    if (!percent && manyTurns(a)) share = value->value / turnsOf(a);
    if (share < 0 || share > 1) return std::nullopt;
    return standable(a, share);
}

std::string positionRange(const Adjuster& a) {
    if (stepped(a)) return decimals(a.low, 0) + " to " + decimals(a.high, 0);
    if (manyTurns(a)) return "0 to " + decimals(turnsOf(a), turnsOf(a) < 10 ? 1 : 0) + " turns";
    return "0 to 100\u202f%";
}

bool hasPlay(const Adjuster& a) {
    return a.kind == Kind::trimmer || a.kind == Kind::pot || a.kind == Kind::slug;
}

}  // namespace ombrek
