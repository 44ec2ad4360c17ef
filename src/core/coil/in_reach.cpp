#include "core/coil/in_reach.h"

#include <algorithm>

namespace ombrek {
namespace {

constexpr double kRoom = 0.03;      ///< of the travel, to either end
constexpr double kSharpest = 1e-3;  ///< a belief is never surer than this [travel]

double below(double x, const PeakBelief& peak) {
    return 0.5 * std::erfc((peak.position - x) / (std::max(peak.deviation, kSharpest) * std::sqrt(2.0)));
}

}  // namespace

PeakBelief changed(const PeakBelief& peak, const TankCapacitance& tank, const CircuitChange& change) {
    const double width = tank.trimmerHigh - tank.trimmerLow;
    if (!(width > 0) || !(change.inductance > 0)) return peak;
    const double wanted = tank.at(peak.position) / change.inductance;
    return {(wanted - change.capacitance - tank.at(0)) / width, peak.deviation / change.inductance};
}

double reachOdds(const PeakBelief& peak) {
    return std::clamp(below(1 - kRoom, peak) - below(kRoom, peak), 0.0, 1.0);
}

}  // namespace ombrek
