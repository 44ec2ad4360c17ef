#include "core/adjust/null.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ombrek {
namespace {

constexpr double kSamePlace = 0.004;  ///< positions nearer than this are one [travel]
constexpr double kDepth =
    0.7;  ///< of the highest reading: 3 dB, else noise alone makes a lowest (common practice)
constexpr double kFirst[] = {0.5, 0.25, 0.75};

/// The last reading at each position, in their order.
std::vector<AdjusterReading> byPosition(const std::vector<AdjusterReading>& readings) {
    std::vector<AdjusterReading> out;
    for (const AdjusterReading& r : readings) {
        std::erase_if(
            out, [&](const AdjusterReading& o) { return std::fabs(o.position - r.position) < kSamePlace; });
        out.push_back(r);
    }
    std::sort(out.begin(), out.end(),
              [](const AdjusterReading& a, const AdjusterReading& b) { return a.position < b.position; });
    return out;
}

}  // namespace

NullEstimate estimateNull(const std::vector<AdjusterReading>& all) {
    NullEstimate out;
    std::vector<AdjusterReading> good;
    std::copy_if(all.begin(), all.end(), std::back_inserter(good), [](const AdjusterReading& r) {
        return std::isfinite(r.reading) && r.position >= 0 && r.position <= 1;
    });
    const auto readings = byPosition(good);
    if (readings.size() < 3) {
        for (const double at : kFirst) {
            const bool read = std::any_of(readings.begin(), readings.end(), [&](const AdjusterReading& r) {
                return std::fabs(r.position - at) < 0.1;
            });
            if (read) continue;
            out.nextPosition = at;
            break;
        }
        out.state = readings.empty() ? VerdictState::notDone : VerdictState::doubtful;
        out.sentence = "A null wants readings at three places to begin with.";
        if (readings.empty()) return out;
    }
    const auto lowest = std::min_element(
        readings.begin(), readings.end(),
        [](const AdjusterReading& a, const AdjusterReading& b) { return a.reading < b.reading; });
    out.position = lowest->position;
    out.reading = lowest->reading;
    if (readings.size() < 3) return out;
    out.state = VerdictState::doubtful;
    const bool first = lowest == readings.begin(), last = lowest + 1 == readings.end();
    if (first || last) {
        const double gap =
            first ? (lowest + 1)->position - lowest->position : lowest->position - (lowest - 1)->position;
        const bool end = first ? lowest->position < 0.01 : lowest->position > 0.99;
        if (end && gap <= kNullWidth + kSamePlace) {
            out.state = VerdictState::fail;
            out.nextPosition = lowest->position;
            out.sentence = std::string("It reads least at the ") + (first ? "lower" : "upper") +
                           " end of the travel: the null lies beyond it, or is of something else.";
            return out;
        }
        // At the end of the travel the null may still lie just inside it.
        const double step = end ? -gap / 2 : gap;
        out.nextPosition = std::clamp(lowest->position + (first ? -step : step), 0.0, 1.0);
        out.sentence =
            end ? "It reads least at the end: look just inside it." : "It still falls on this side: go on.";
        return out;
    }
    const double left = lowest->position - (lowest - 1)->position,
                 right = (lowest + 1)->position - lowest->position;
    if (std::max(left, right) > kNullWidth + kSamePlace) {
        out.nextPosition = left > right ? lowest->position - left / 2 : lowest->position + right / 2;
        out.sentence = "The null is between its neighbours: halve the wider side.";
        return out;
    }
    out.nextPosition = lowest->position;
    const double highest =
        std::max_element(readings.begin(), readings.end(), [](const auto& a, const auto& b) {
            return a.reading < b.reading;
        })->reading;
    if (!(lowest->reading < kDepth * highest)) {
        out.state = VerdictState::cannotTell;
        out.sentence = "It hardly changes with the adjuster: is the meter on the right point?";
        return out;
    }
    const bool stands = std::fabs(good.back().position - lowest->position) < kSamePlace;
    out.state = stands ? VerdictState::pass : VerdictState::doubtful;
    out.sentence = stands ? "It stands in the null: a little to either side reads more."
                          : "The null is found: turn back to it and read once more.";
    return out;
}

}  // namespace ombrek
