#include "core/adjust/setting.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ombrek {
namespace {

std::string percent(double position) { return decimals(position * 100, 1) + " %"; }

constexpr double kStep = 0.02;         ///< of the travel at most
constexpr double kFinestTurn = 0.002;  ///< that a hand can turn
constexpr double kAtEnd = 0.02;        ///< counts as the end itself

/// The last reading at each position, position counted from the safe end. It rises with the position, so a
/// newer reading puts older ones aside that contradict it: one that is not above the target those above it at
/// or below its position, one that is above those that were not from there on.
std::map<double, double> fromSafeEnd(const std::vector<AdjusterReading>& readings, double target,
                                     SafeEnd safe) {
    std::map<double, double> out;
    for (const auto& r : readings) {
        if (!(r.position >= 0) || r.position > 1 || std::isnan(r.reading)) continue;
        const double x = safe == SafeEnd::high ? 1 - r.position : r.position;
        const bool above = r.reading > target;
        std::erase_if(out, [&](const auto& held) {
            return above ? held.first >= x && held.second <= target : held.first <= x && held.second > target;
        });
        out[x] = r.reading;
    }
    return out;
}

/// The step up from the last position that reads below, with the one before it. @param before  end() if none
double safeStep(const std::map<double, double>& latest, std::map<double, double>::const_iterator base,
                double target) {
    double step = kStep;
    const double floor = 0.01 * target;  // less is the meter's own unrest
    if (base != latest.begin() && base->second > floor) {
        const auto before = std::prev(base);
        const double growth = std::log(base->second / std::max(before->second, floor));
        const double rate = std::max(growth, 1e-9) / (base->first - before->first);
        step = std::min(step, 0.8 * std::log(target / base->second) / rate);
    }
    if (const auto above = std::next(base); above != latest.end())
        step = std::min(step, (above->first - base->first) / 2);
    return std::max(step, kFinestTurn);
}

}  // namespace

SettingEstimate approachSafely(const std::vector<AdjusterReading>& readings, double target, double tolerance,
                               Unit unit, SafeEnd safe) {
    const auto latest = fromSafeEnd(readings, target, safe);
    const auto seen = [&](double x) { return safe == SafeEnd::high ? 1 - x : x; };
    SettingEstimate out;
    const auto go = [&](double x, const std::string& sentence) {
        out.position = out.nextPosition = seen(std::clamp(std::round(x * 1000) / 1000, 0.0, 1.0));
        out.sentence = sentence;
        return out;
    };
    const std::string wanted = formatQuantity(target, unit, 3);
    if (latest.empty() || latest.begin()->first > kAtEnd) {
        const bool above = !readings.empty() && !(readings.back().reading <= target + tolerance);
        return go(0, above ? "It reads above " + wanted + ": fully down at once, to " + percent(seen(0)) + "."
                           : "Begin at the safe end: turn it to " + percent(seen(0)) + " and read there.");
    }
    // All below the base read no more than the target; the next above it, if any, reads more.
    auto base = latest.end();
    for (auto at = latest.begin(); at != latest.end() && at->second <= target; ++at) base = at;
    if (base == latest.end()) {
        out.reachable = false;
        return go(0, "Even at its safe end it reads more than " + wanted +
                         ": power off, and look for the fault before going on.");
    }
    const double stands = seen(readings.back().position);
    if (readings.back().reading > target + tolerance || stands > base->first + 1e-9)
        return go(base->first,
                  (readings.back().reading > target ? "It reads above " + wanted + ": down at once, to "
                                                    : "Back down to ") +
                      percent(seen(base->first)) + ", where it read less.");
    const double next = std::min(1.0, base->first + safeStep(latest, base, target));
    if (base->first >= 1 - kAtEnd / 2 && next - base->first < kFinestTurn) {
        out.reachable = false;
        return go(1, wanted + " is out of reach: the whole travel gives less.");
    }
    return go(next, "Watch the meter and turn slowly, no further than " + percent(seen(next)) +
                        "; stop as soon as " + wanted + " is read.");
}

namespace {

/// The last reading at each position. What is read goes one way with the position; a newer reading puts older
/// ones aside that contradict it, as they do when the rig has warmed up meanwhile.
std::map<double, double> stillTrue(const std::vector<AdjusterReading>& readings, double target) {
    std::map<double, double> all, out;
    for (const auto& r : readings) {
        if (r.position >= 0 && r.position <= 1 && std::isfinite(r.reading)) all[r.position] = r.reading;
    }
    if (all.size() < 3) return all;
    const bool rises = all.rbegin()->second > all.begin()->second;
    for (const auto& r : readings) {
        if (!all.contains(r.position)) continue;
        const bool above = r.reading > target, right = above == rises;  // the target lies to the left of it
        std::erase_if(out, [&](const auto& held) {
            const bool heldRight = (held.second > target) == rises;
            return right ? !heldRight && held.first >= r.position : heldRight && held.first <= r.position;
        });
        out[r.position] = r.reading;
    }
    return out;
}

}  // namespace

SettingEstimate estimateSetting(const std::vector<AdjusterReading>& readings, double target, Unit unit) {
    const std::map<double, double> latest = stillTrue(readings, target);
    SettingEstimate out;
    if (latest.empty()) {
        out.nextPosition = out.position = 0.5;
        out.sentence = "Read it at half travel first.";
        return out;
    }
    // The narrowest bracket wins: on a curve it is the one that linear interpolation serves best.
    double width = 2.0;
    for (auto left = latest.begin(), right = std::next(left); right != latest.end(); ++left, ++right) {
        const double a = left->second - target, b = right->second - target;
        if (a * b > 0 || right->first - left->first >= width || a == b) continue;
        width = right->first - left->first;
        out.position = left->first + width * a / (a - b);
    }
    if (width <= 1.0) {
        out.nextPosition = out.position;
        out.sentence = "Should read " + formatQuantity(target, unit, 6) + " at " + percent(out.position) +
                       " of the travel.";
        return out;
    }
    const bool lowRead = latest.begin()->first <= 0.03, highRead = latest.rbegin()->first >= 0.97;
    if (lowRead && highRead) {
        out.reachable = false;
        const bool atLow =
            std::fabs(latest.begin()->second - target) < std::fabs(latest.rbegin()->second - target);
        out.position = out.nextPosition = atLow ? 0.0 : 1.0;
        out.sentence =
            formatQuantity(target, unit, 6) + " is out of reach: nearest at " + percent(out.position) + ".";
        return out;
    }
    // With two readings the slope tells which end; with one, try the upper end first.
    bool up = !highRead;
    if (latest.size() > 1 && !lowRead && !highRead) {
        const bool rises = latest.rbegin()->second > latest.begin()->second;
        up = rises == (latest.rbegin()->second < target);
    }
    out.position = out.nextPosition = up ? 1.0 : 0.0;
    out.sentence = "Not bracketed yet: read it at " + percent(out.nextPosition) + ".";
    return out;
}

}  // namespace ombrek
