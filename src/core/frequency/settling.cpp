#include "core/frequency/settling.h"

#include <algorithm>

namespace ombrek {
namespace {

constexpr double kShortest = 15, kLongest = 7200;  ///< time constants tried [s]
constexpr int kTried = 120;
constexpr std::size_t kFewest = 5;
constexpr double kSpan = 60;  ///< that the readings go over at least [s]

struct Approach {
    double final = 0, amount = 0, tau = 0, squares = INFINITY;
    double at(double t) const { return final + amount * std::exp(-t / tau); }
};

/// The straight fit of value against e^(−t/τ).
Approach fitted(const std::vector<TimedReading>& readings, double tau) {
    double n = 0, x = 0, y = 0, xx = 0, xy = 0;
    for (const TimedReading& r : readings) {
        const double e = std::exp(-r.seconds / tau);
        n += 1, x += e, y += r.value, xx += e * e, xy += e * r.value;
    }
    const double d = n * xx - x * x;
    Approach out;
    if (!(d > 1e-15 * n * xx)) return out;
    out.tau = tau;
    out.amount = (n * xy - x * y) / d;
    out.final = (y - out.amount * x) / n;
    out.squares = 0;
    for (const TimedReading& r : readings) out.squares += std::pow(r.value - out.at(r.seconds), 2);
    return out;
}

struct Left {
    double low = INFINITY, high = -INFINITY;
    double most() const { return std::max(std::abs(low), std::abs(high)); }
};

std::string size(double value, Unit unit) { return formatQuantity(std::abs(value), unit, 2); }

}  // namespace

Settling settlingOf(std::vector<TimedReading> readings, double allowed, Unit unit) {
    Settling out;
    std::erase_if(readings,
                  [](const auto& r) { return !std::isfinite(r.value) || !std::isfinite(r.seconds); });
    std::sort(readings.begin(), readings.end(),
              [](const auto& a, const auto& b) { return a.seconds < b.seconds; });
    if (readings.size() < kFewest || readings.back().seconds - readings.front().seconds < kSpan) {
        out.state = readings.empty() ? VerdictState::notDone : VerdictState::cannotTell;
        out.sentence = "Read it every ten seconds, over a minute at least.";
        return out;
    }
    const double begun = readings.front().seconds, last = readings.back().seconds - begun;
    const double level = readings.front().value;
    for (TimedReading& r : readings) r.seconds -= begun, r.value -= level;
    std::vector<Approach> all;
    for (int i = 0; i < kTried; ++i)
        all.push_back(fitted(readings, kShortest * std::pow(kLongest / kShortest, double(i) / (kTried - 1))));
    const Approach best = *std::min_element(
        all.begin(), all.end(), [](const auto& a, const auto& b) { return a.squares < b.squares; });
    // Every time constant that the scatter leaves possible has its say in what is left.
    const double freedom = std::max(1.0, double(readings.size()) - 3);
    const double floor = 1e-12 * std::max(1.0, level * level);
    Left left;
    for (const Approach& a : all) {
        if (!std::isfinite(a.squares) || a.squares > best.squares * (1 + 4 / freedom) + floor) continue;
        const double rest = -a.amount * std::exp(-last / a.tau);
        left.low = std::min(left.low, rest);
        left.high = std::max(left.high, rest);
    }
    out.left = -best.amount * std::exp(-last / best.tau);
    out.rate = out.left / best.tau * 60;
    out.final = level + best.final;
    const double scatter = std::sqrt(best.squares / freedom);
    const double doubt = left.most() + 2 * scatter / std::sqrt(double(readings.size()));
    if (doubt <= allowed) {
        out.state = VerdictState::pass;
        out.minutes = 0;
        out.sentence = "Settled: it moves by no more than " + size(doubt, unit) + " any more.";
        return out;
    }
    out.state = VerdictState::doubtful;
    const bool known = left.most() < 2 * std::max(std::abs(out.left), allowed);
    if (known && std::abs(out.left) > allowed)
        out.minutes = best.tau * std::log(std::abs(out.left) / allowed) / 60;
    out.sentence = "It moves by " + size(out.rate, unit) + " a minute";
    out.sentence += std::isnan(out.minutes)
                        ? ", and cannot be told yet how far it goes: read on."
                        : "; " + size(out.left, unit) + " more to go, about " +
                              decimals(std::max(1.0, std::ceil(out.minutes)), 0) + " minutes.";
    return out;
}

}  // namespace ombrek
