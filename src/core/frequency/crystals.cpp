#include "core/frequency/crystals.h"

#include <algorithm>
#include <limits>
#include <numeric>

namespace ombrek {
namespace {

constexpr double kPi = 3.14159265358979323846;

std::vector<std::size_t> byFrequency(const std::vector<MeasuredCrystal>& batch) {
    std::vector<std::size_t> out(batch.size());
    std::iota(out.begin(), out.end(), std::size_t(0));
    std::stable_sort(out.begin(), out.end(),
                     [&](std::size_t a, std::size_t b) { return batch[a].frequency < batch[b].frequency; });
    return out;
}

CrystalSet setOf(const std::vector<MeasuredCrystal>& batch, const std::vector<std::size_t>& order,
                 std::size_t from, std::size_t size) {
    CrystalSet out;
    out.at.assign(order.begin() + std::ptrdiff_t(from), order.begin() + std::ptrdiff_t(from + size));
    out.spread = batch[out.at.back()].frequency - batch[out.at.front()].frequency;
    return out;
}

double inverse(double capacitance) { return std::isinf(capacitance) ? 0 : 1 / capacitance; }

}  // namespace

std::vector<CrystalSet> crystalSets(const std::vector<MeasuredCrystal>& batch, std::size_t size) {
    std::vector<CrystalSet> out;
    auto order = byFrequency(batch);
    while (size > 0 && order.size() >= size) {
        CrystalSet best;
        std::size_t at = 0;
        for (std::size_t from = 0; from + size <= order.size(); ++from) {
            CrystalSet set = setOf(batch, order, from, size);
            if (best.at.empty() || set.spread < best.spread) best = std::move(set), at = from;
        }
        order.erase(order.begin() + std::ptrdiff_t(at), order.begin() + std::ptrdiff_t(at + size));
        out.push_back(std::move(best));
    }
    return out;
}

std::vector<CrystalSet> crystalSetsTogether(const std::vector<MeasuredCrystal>& batch, std::size_t size) {
    std::vector<CrystalSet> out;
    if (size == 0 || batch.size() < size) return out;
    const auto order = byFrequency(batch);
    const std::size_t n = order.size(), sets = n / size;
    constexpr double kNever = std::numeric_limits<double>::infinity();
    // least[k][i]: the least sum of k sets among the first i.
    std::vector<std::vector<double>> least(sets + 1, std::vector<double>(n + 1, kNever));
    for (double& none : least[0]) none = 0;
    for (std::size_t k = 1; k <= sets; ++k) {
        for (std::size_t i = k * size; i <= n; ++i) {
            const double with = least[k - 1][i - size] + setOf(batch, order, i - size, size).spread;
            least[k][i] = std::min(least[k][i - 1], with);
        }
    }
    for (std::size_t k = sets, i = n; k > 0;) {
        if (least[k][i] == least[k][i - 1]) {
            --i;
        } else {
            out.push_back(setOf(batch, order, i - size, size));
            i -= size;
            --k;
        }
    }
    std::stable_sort(out.begin(), out.end(),
                     [](const CrystalSet& a, const CrystalSet& b) { return a.spread < b.spread; });
    return out;
}

Result<Motional> motionalByTwoLoads(double f1, double load1, double f2, double load2, double holder) {
    if (!(f1 > 0 && f2 > 0 && load1 > 0 && load2 > 0 && holder >= 0))
        return problem("", "Two frequencies, two load capacitances and the holder's are wanted.");
    if (load1 > load2) {
        std::swap(f1, f2);
        std::swap(load1, load2);
    }
    const double a = 0.5 * inverse(holder + load1), b = 0.5 * inverse(holder + load2);
    if (!(a > b * (1 + 1e-9))) return problem("", "The two loads are one: take another.");
    if (!(f1 > f2)) return problem("", "With the smaller load it must read higher: are the two mixed up?");
    // f1 = s(1 + a·C), f2 = s(1 + b·C).
    Motional out;
    out.capacitance = (f1 - f2) / (f2 * a - f1 * b);
    if (!(out.capacitance > 0))
        return problem("", "No crystal is pulled so far: look at the readings again.");
    out.series = f1 / (1 + a * out.capacitance);
    out.inductance = 1 / (std::pow(2 * kPi * out.series, 2) * out.capacitance);
    return out;
}

double lossResistance(double between, double lossDb) {
    return lossDb > 0 && between > 0 ? 2 * between * (std::pow(10.0, lossDb / 20) - 1) : NAN;
}

double nullResistance(double between, double depthDb) {
    return depthDb > 0 && between > 0 ? between / (2 * (std::pow(10.0, depthDb / 20) - 1)) : NAN;
}

double crystalQ(const Motional& m, double resistance) {
    return resistance > 0 ? 2 * kPi * m.series * m.inductance / resistance : NAN;
}

double pulledBy(const Motional& m, double load, double holder) {
    return m.series * m.capacitance * 0.5 * inverse(holder + load);
}

CrystalState judgeCrystal(bool starts, double frequency, double marked, double ppm) {
    if (!starts || !(frequency > 0)) return CrystalState::dead;
    return std::abs(frequency - marked) <= ppm * 1e-6 * marked ? CrystalState::go : CrystalState::far;
}

double carrierOutside(double carrier, double low, double high) {
    return carrier < (low + high) / 2 ? low - carrier : carrier - high;
}

}  // namespace ombrek
