#include "station/tune/end_stop.h"

#include <algorithm>
#include <cmath>

#include "core/coil/in_reach.h"
#include "core/text/counted.h"
#include "station/winding/winding.h"

namespace ombrek {
namespace {

constexpr std::size_t kMost = 3;   ///< capacitors shown
constexpr double kWorthIt = 0.05;  ///< of the odds
constexpr double kLeastDeviation = 0.02;

EndStopWay turnsWay(const Coil& coil, const PeakBelief& belief, const TankCapacitance& tank, int turns,
                    int change) {
    const double ratio = double(turns + change) / turns;
    std::string what = (change > 0 ? "Add " : "Remove ") + counted(std::abs(change), "turn") +
                       (change > 0 ? " on " : " from ") + coil.ref;
    return {std::move(what), reachOdds(changed(belief, tank, {ratio * ratio, 0}))};
}

/// Across the fixed capacitors when more is wanted; in the place of the only one when less is.
std::vector<EndStopWay> capacitorWays(const Kit& kit, const CoilTune& tune, const PeakBelief& belief,
                                      const TankCapacitance& tank, bool more,
                                      const std::vector<StockLine>& drawers) {
    std::vector<EndStopWay> out;
    if (!more && tune.fixed.size() != 1) return out;
    const std::string fixed = tune.fixed.empty() ? tune.trimmer : tune.fixed.front();
    const Part* part = kit.part(fixed);
    const double before = more || part == nullptr ? 0 : part->nominal;
    if (!more && !(before > 0)) return out;
    for (const StockLine& line : drawers) {
        const bool fits = line.unit == Unit::farad && line.count > 0 && line.value > 0;
        if (!fits || (!more && line.value >= before)) continue;
        const double odds = reachOdds(changed(belief, tank, {1, line.value - before}));
        if (odds < kWorthIt) continue;
        out.push_back({describe(line) + (more ? " across " : " in place of ") + fixed +
                           (line.drawer.empty() ? "" : ", from drawer " + line.drawer),
                       odds});
    }
    std::stable_sort(out.begin(), out.end(),
                     [](const EndStopWay& a, const EndStopWay& b) { return a.odds > b.odds; });
    if (out.size() > kMost) out.resize(kMost);
    return out;
}

}  // namespace

std::vector<EndStopWay> waysFromEndStop(const Kit& kit, const Adjustment& adjustment, const Build& build,
                                        const TuneState& state, const std::vector<StockLine>& drawers) {
    const Coil* coil = kit.coil(adjustment.coil);
    if (!state.ended || !state.peak || coil == nullptr || !coil->tune) return {};
    const PeakEstimate& peak = *state.peak;
    const TankCapacitance tank = tankOf(kit, *coil->tune);
    const int turns = mainTurns(*coil, build);
    if (!(tank.at(0) > 0) || !(tank.trimmerHigh > tank.trimmerLow) || turns < 1) return {};
    const PeakBelief belief{peak.position, std::max((peak.high - peak.low) / 4, kLeastDeviation)};
    const int change = endStopRemedy(peak, tank, turns);
    std::vector<EndStopWay> out{turnsWay(*coil, belief, tank, turns, change)};
    const auto more =
        capacitorWays(kit, *coil->tune, belief, tank, peak.kind == PeakEstimate::Kind::atMost, drawers);
    out.insert(out.end(), more.begin(), more.end());
    return out;
}

}  // namespace ombrek
