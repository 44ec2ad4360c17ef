#include "core/coil/reach.h"

#include <cmath>
#include <random>

namespace ombrek {

ReachChance chanceOfReach(double inductance, const TankCapacitance& tank, const TankTolerance& tolerance,
                          double low, double high, int trials, std::uint64_t seed) {
    if (!reckonable(inductance, tank, low, high) || trials < 1) return {};
    std::mt19937_64 engine(seed);
    // Drawn by hand, since the standard's distributions differ between libraries.
    const auto spread = [&](double value, double percent) {
        const double unit = double(engine() >> 11) * 0x1.0p-52 - 1.0;
        return value * (1 + unit * percent / 100);
    };
    const double middle = std::sqrt(low * high);
    int reaches = 0, healthy = 0;
    for (int i = 0; i < trials; ++i) {
        const double l = spread(inductance, tolerance.inductance);
        TankCapacitance c;
        c.fixed = spread(tank.fixed, tolerance.fixed);
        c.stray = spread(tank.stray, tolerance.stray);
        c.trimmerLow = spread(tank.trimmerLow, tolerance.trimmer);
        c.trimmerHigh = spread(tank.trimmerHigh, tolerance.trimmer);
        if (!(c.trimmerHigh > c.trimmerLow) || !(c.at(0) > 0)) continue;
        if (resonance(l, c.at(1)) > low || resonance(l, c.at(0)) < high) continue;
        ++reaches;
        const double position = (inductanceFor(middle, l) - c.at(0)) / (c.trimmerHigh - c.trimmerLow);
        healthy += inTheMiddle(position);
    }
    return {double(reaches) / trials, double(healthy) / trials, trials};
}

}  // namespace ombrek
