#include "core/plan/pace.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/text/enumerators.h"

namespace ombrek {

static_assert(kWorkKinds == enumerators<WorkKind>());
std::string_view word(WorkKind kind) {
    static constexpr std::array<std::string_view, kWorkKinds> words{
        "preparing", "soldering", "polarised parts", "winding", "mechanical work", "testing", "inspecting"};
    return words[std::size_t(kind)];
}

Pace::Pace(const std::vector<WorkDone>& done) {
    // Unknowns: the builder's pace, and each kind's deviation from it. Information form, prior⁻¹ + Σ aaᵀ/σ²:
    // a step tells of its builder and its kind, so that all but the diagonal and the first row is zero.
    std::array<double, kUnknowns> diagonal{}, first{}, weighted{};
    diagonal.fill(1 / (kKind * kKind));
    diagonal[0] = 1 / (kBuilder * kBuilder);
    for (const WorkDone& step : done) {
        if (!(step.planned > 0) || !(step.took > 0)) continue;
        const double observed = std::log(step.took / step.planned), weight = 1 / (kStep * kStep);
        const std::size_t k = 1 + std::size_t(step.kind);
        for (const std::size_t i : {std::size_t(0), k}) {
            diagonal[i] += weight;
            weighted[i] += weight * observed;
        }
        first[k] += weight;
    }
    // The builder's pace by elimination of the kinds; each kind by the builder's pace. The same elimination
    // gives the root of the covariance, lower triangle.
    double left = diagonal[0], right = weighted[0];
    for (std::size_t k = 1; k < kUnknowns; ++k) {
        left -= first[k] * first[k] / diagonal[k];
        right -= first[k] * weighted[k] / diagonal[k];
    }
    mean_[0] = right / left;
    root_[0][0] = 1 / std::sqrt(left);
    for (std::size_t k = 1; k < kUnknowns; ++k) {
        mean_[k] = (weighted[k] - first[k] * mean_[0]) / diagonal[k];
        root_[k][0] = -first[k] / diagonal[k] * root_[0][0];
        root_[k][k] = 1 / std::sqrt(diagonal[k]);
    }
}

Pace::Log Pace::of(WorkKind kind) const {
    const std::size_t k = 1 + std::size_t(kind);
    double variance = 0;
    for (std::size_t j = 0; j < kUnknowns; ++j) {
        const double both = root_[0][j] + root_[k][j];
        variance += both * both;
    }
    return {mean_[0] + mean_[k], std::sqrt(variance)};
}

double Pace::factor(WorkKind kind) const { return std::exp(of(kind).mean); }

Pace::Left Pace::left(const std::vector<WorkLeft>& steps, int trials, std::uint64_t seed) const {
    Draws draws(*this, steps, seed);
    std::vector<double> minutes(std::size_t(std::max(trials, 10)));
    for (double& m : minutes) m = draws.next();
    std::sort(minutes.begin(), minutes.end());
    const auto at = [&](double share) { return minutes[std::size_t(share * double(minutes.size() - 1))]; };
    return {at(0.1), at(0.5), at(0.9)};
}

Pace::Draws::Draws(const Pace& pace, const std::vector<WorkLeft>& steps, std::uint64_t seed)
    : pace_(pace), state_(seed) {
    // The sum of n independent log-normal times is nearly log-normal with the same mean and a variance
    // reduced as that of any mean (Fenton 1960).
    const double scatter = std::exp(kStep * kStep) - 1;
    for (int k = 0; k < kWorkKinds; ++k) {
        double sum = 0, squares = 0;
        for (const WorkLeft& step : steps) {
            if (int(step.kind) != k || !(step.planned > 0)) continue;
            sum += step.planned;
            squares += step.planned * step.planned;
        }
        if (sum > 0)
            heaps_.push_back({WorkKind(k), sum, std::sqrt(std::log1p(scatter * squares / (sum * sum)))});
    }
}

/// Drawn by hand (splitmix64, Box and Muller), since the standard's distributions differ between libraries.
double Pace::Draws::normal() {
    if (spare_) {
        spare_ = false;
        return kept_;
    }
    const auto unit = [this] {
        std::uint64_t z = (state_ += 0x9e3779b97f4a7c15ULL);
        z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9ULL;
        z = (z ^ (z >> 27)) * 0x94d049bb133111ebULL;
        return (double((z ^ (z >> 31)) >> 11) + 0.5) * 0x1.0p-53;
    };
    const double radius = std::sqrt(-2 * std::log(unit())), angle = 2 * std::numbers::pi * unit();
    spare_ = true;
    kept_ = radius * std::sin(angle);
    return radius * std::cos(angle);
}

double Pace::Draws::next() {
    std::array<double, kUnknowns> z{};
    for (double& value : z) value = normal();
    const auto drawn = [&](std::size_t row) {
        double value = pace_.mean_[row];
        for (std::size_t j = 0; j <= row; ++j) value += pace_.root_[row][j] * z[j];
        return value;
    };
    const double own = drawn(0);
    double minutes = 0;
    const double mean = kStep * kStep / 2;  // of one step's scatter, so that the middle of a step is its plan
    for (const Heap& heap : heaps_) {
        const double pace = own + drawn(1 + std::size_t(heap.kind));
        minutes +=
            heap.planned * std::exp(pace + mean + heap.spread * normal() - heap.spread * heap.spread / 2);
    }
    return minutes;
}

}  // namespace ombrek
