#include "core/adjust/setting.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ombrek {
namespace {

std::string percent(double position) { return std::to_string(std::lround(position * 100)) + " %"; }

}  // namespace

SettingEstimate estimateSetting(const std::vector<AdjusterReading>& readings, double target, Unit unit) {
    std::map<double, double> latest;  // the last reading at a position counts
    for (const auto& r : readings) {
        if (r.position >= 0 && r.position <= 1 && std::isfinite(r.reading)) latest[r.position] = r.reading;
    }
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
