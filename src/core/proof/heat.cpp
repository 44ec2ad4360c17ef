#include "core/proof/heat.h"

#include <cmath>
#include <limits>

namespace ombrek {

const std::vector<Duty>& duties() {
    static const std::vector<Duty> all{{"Morse", 0.45}, {"voice", 0.2}, {"digital", 1.0}};
    return all;
}

Result<HeatEstimate> heatOf(const HeatQuestion& q) {
    if (!(q.volts > 0) || !(q.amps > q.restAmps) || !(q.watts >= 0) || !(q.finals >= 1) || !(q.restAmps >= 0))
        return problem("", "Supply and current with the key down, and the power that leaves, are wanted.");
    HeatEstimate out;
    const double in = q.volts * (q.amps - q.restAmps);
    if (q.watts > in)
        return problem("",
                       "More power leaves than goes in: the meter, the load or the current is read wrong.");
    out.dissipated = in - q.watts;
    out.efficiency = q.watts / in;
    const double each = out.dissipated / q.finals;
    for (const Duty& duty : duties()) {
        HeatEstimate::At at{duty.name, NAN, NAN};
        if (q.sink > 0) at.caseDegrees = q.ambient + duty.share * each * q.sink;
        // The junction follows within milliseconds: with the key down it is hotter than its case by all of
        // it.
        if (q.sink > 0 && q.junctionToCase > 0) at.junctionDegrees = at.caseDegrees + each * q.junctionToCase;
        out.modes.push_back(at);
    }
    return out;
}

Result<double> keyDownTo(double ambient, double seconds1, double degrees1, double seconds2, double degrees2,
                         double limit) {
    if (!(seconds1 > 0) || !(seconds2 > seconds1) || !(degrees1 > ambient) || !(degrees2 > degrees1))
        return problem("", "Two temperatures are wanted, the second later and warmer, both above the room.");
    if (degrees2 >= limit) return seconds2;
    // The rise over the first stretch against the second tells the time constant; bisection on it.
    const double ratio = (degrees2 - ambient) / (degrees1 - ambient);
    const double straight = seconds2 / seconds1;
    if (ratio > straight * 1.05) return problem("", "It warms faster and faster: key up, and look why.");
    if (ratio >= straight * 0.98)  // it does not bend yet: the straight line is the safe side
        return seconds2 + (limit - degrees2) * (seconds2 - seconds1) / (degrees2 - degrees1);
    double low = seconds1 / 100, high = seconds2 * 100;
    for (int i = 0; i < 200; ++i) {
        const double tau = std::sqrt(low * high);
        const double at = (1 - std::exp(-seconds2 / tau)) / (1 - std::exp(-seconds1 / tau));
        (at < ratio ? low : high) = tau;
    }
    const double tau = std::sqrt(low * high), rise = (degrees1 - ambient) / (1 - std::exp(-seconds1 / tau));
    if (ambient + rise <= limit) return std::numeric_limits<double>::infinity();
    return -tau * std::log(1 - (limit - ambient) / rise);
}

double plateResistance(double area) { return area > 0 ? 1 / (10.0 * 2 * area) : NAN; }
double withFin(double sink, double fin) { return sink > 0 && fin > 0 ? sink * fin / (sink + fin) : NAN; }

}  // namespace ombrek
