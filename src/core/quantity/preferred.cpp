#include "core/quantity/preferred.h"

#include <array>
#include <cmath>
#include <stdexcept>

namespace ombrek {
namespace {

// IEC 60063: the three coarse series are the historic, not the rounded, values.
constexpr std::array<int, 24> kE24{100, 110, 120, 130, 150, 160, 180, 200, 220, 240, 270, 300,
                                   330, 360, 390, 430, 470, 510, 560, 620, 680, 750, 820, 910};

}  // namespace

std::vector<int> decadeOf(Series series) {
    const int count = static_cast<int>(series);
    std::vector<int> out;
    out.reserve(static_cast<std::size_t>(count));
    if (count <= 24) {
        for (std::size_t i = 0; i < kE24.size(); i += static_cast<std::size_t>(24 / count))
            out.push_back(kE24[i]);
        return out;
    }
    for (int i = 0; i < count; ++i) {
        const int value = static_cast<int>(std::lround(100.0 * std::pow(10.0, double(i) / count)));
        out.push_back(value == 919 ? 920 : value);  // the one exception IEC 60063 makes, in E192
    }
    return out;
}

double nearestPreferred(double value, Series series) {
    if (!(value > 0.0) || !std::isfinite(value)) throw std::domain_error("a preferred value is positive");
    const double decade = std::pow(10.0, std::floor(std::log10(value)));
    const std::vector<int> members = decadeOf(series);
    double best = 0.0, bestError = 1e9;
    for (const double scale : {decade / 1000.0, decade / 100.0, decade / 10.0}) {
        for (const int member : members) {
            const double candidate = member * scale;
            const double error = std::fabs(std::log(candidate / value));
            if (error < bestError) {
                best = candidate;
                bestError = error;
            }
        }
    }
    return best;
}

bool isPreferred(double value, Series series) {
    if (!(value > 0.0) || !std::isfinite(value)) return false;
    return std::fabs(nearestPreferred(value, series) / value - 1.0) < 1e-4;
}

}  // namespace ombrek
