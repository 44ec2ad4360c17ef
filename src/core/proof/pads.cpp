#include "core/proof/pads.h"

#include <array>
#include <cmath>
#include <limits>

namespace ombrek {
namespace {

double parallel(double a, double b) { return a * b / (a + b); }

double returnLossOf(double r, double ohms) {
    const double gamma = std::abs((r - ohms) / (r + ohms));
    return gamma > 0 ? -20 * std::log10(gamma) : std::numeric_limits<double>::infinity();
}

std::string faultOf(double decibels, double ohms, double watts) {
    if (!(decibels > 0) || decibels > 120) return "An attenuation is more than 0 and at most 120 dB.";
    if (!(ohms > 0) || ohms > 1e6) return "A resistance of a line is between 0 and 1 MΩ.";
    if (!(watts >= 0) || !std::isfinite(watts)) return "A power is not below nothing.";
    return {};
}

/// Two end resistors and the one in the middle, alike from both sides.
PadDesign piOf(double shunt, double through, double ohms, double watts) {
    PadDesign out;
    const double far = parallel(shunt, ohms), in = parallel(shunt, through + far),
                 share = far / (through + far);
    const double volts = std::sqrt(watts * in), after = volts * share;
    out.resistors = {{"to ground, towards the rig", 0, shunt, volts * volts / shunt},
                     {"through", 0, through, std::pow(volts - after, 2) / through},
                     {"to ground, behind", 0, shunt, after * after / shunt}};
    out.attenuation = -20 * std::log10(2 * share * in / (in + ohms));
    out.returnLoss = returnLossOf(in, ohms);
    return out;
}

PadDesign tOf(double series, double middle, double ohms, double watts) {
    PadDesign out;
    const double far = series + ohms, down = parallel(middle, far), in = series + down;
    const double amps = std::sqrt(watts / in), across = amps * down, behind = across / far;
    out.resistors = {{"through, towards the rig", 0, series, amps * amps * series},
                     {"to ground", 0, middle, across * across / middle},
                     {"through, behind", 0, series, behind * behind * series}};
    out.attenuation = -20 * std::log10(2 * (down / far) * ohms / (in + ohms));
    out.returnLoss = returnLossOf(in, ohms);
    return out;
}

}  // namespace

Result<PadDesign> designPad(PadShape shape, double decibels, double ohms, double watts, Series series) {
    if (const auto fault = faultOf(decibels, ohms, watts); !fault.empty()) return problem("", fault);
    const double k = std::pow(10, decibels / 20);
    const bool pi = shape == PadShape::pi;
    const double twice = pi ? ohms * (k + 1) / (k - 1) : ohms * (k - 1) / (k + 1);
    const double once = pi ? ohms * (k * k - 1) / (2 * k) : 2 * ohms * k / (k * k - 1);
    const double a = nearestPreferred(twice, series), b = nearestPreferred(once, series);
    PadDesign out = pi ? piOf(a, b, ohms, watts) : tOf(a, b, ohms, watts);
    out.resistors[0].exact = out.resistors[2].exact = twice;
    out.resistors[1].exact = once;
    return out;
}

Result<PadDesign> designTap(double decibels, double ohms, double watts, Series series) {
    if (const auto fault = faultOf(decibels, ohms, watts); !fault.empty()) return problem("", fault);
    const double exact = ohms * (std::pow(10, decibels / 20) - 1);
    const double r = nearestPreferred(exact, series);
    PadDesign out;
    const double volts = std::sqrt(watts * ohms);
    out.resistors = {{"from the line to the meter's input", exact, r, std::pow(volts / (r + ohms), 2) * r}};
    out.attenuation = 20 * std::log10((r + ohms) / ohms);
    out.returnLoss = returnLossOf(parallel(ohms, r + ohms), ohms);
    return out;
}

Result<PadDesign> designBridge(double ohms, double watts, Series series) {
    if (const auto fault = faultOf(1, ohms, watts); !fault.empty()) return problem("", fault);
    PadDesign out;
    const double r = nearestPreferred(ohms, series);
    // At the worst: with the test port open the reference arms take 4/9 each, with it shorted the third 0.64.
    out.resistors = {{"source to the reference corner", ohms, r, watts * 4 / 9},
                     {"reference corner to ground", ohms, r, watts * 4 / 9},
                     {"source to the test port", ohms, r, watts * 0.64}};
    out.attenuation = 6.0206;
    out.returnLoss = returnLossOf(r, ohms);
    return out;
}

Result<BridgeNull> bridgeNull(double open, double now, double least) {
    if (!(open > 0) || !(now >= 0) || !std::isfinite(open) || !std::isfinite(now))
        return problem("", "Read the bridge with the test port open, then with the load: two voltages.");
    if (now > open * 1.05)
        return problem(
            "",
            "With the load it shows more than with the port open: exchange the two, or look at the bridge.");
    BridgeNull out;
    out.atLeast = now <= least;
    const double gamma = std::min(1.0, std::max(now, least) / open);
    out.returnLoss = gamma > 0 ? -20 * std::log10(gamma) : std::numeric_limits<double>::infinity();
    out.swr = gamma < 1 ? (1 + gamma) / (1 - gamma) : std::numeric_limits<double>::infinity();
    return out;
}

}  // namespace ombrek
