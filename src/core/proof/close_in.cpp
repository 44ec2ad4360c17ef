#include "core/proof/close_in.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

constexpr double kSide = 4000;    ///< of a voice sideband [Hz]
constexpr double kCarrier = 150;  ///< to either side of a carrier, where no voice is [Hz] (common practice)

double powerOf(double level) { return std::pow(10, level / 10); }

/// A multiple of the mains' frequency, within a share of it; 0: none. @return 50 or 60 times a number
double mainsMultiple(double offset, double near) {
    for (const double mains : {50.0, 60.0}) {
        const double n = std::round(offset / mains);
        if (n >= 1 && n <= 12 && std::abs(offset - n * mains) <= near) return n * mains;
    }
    return 0;
}

void findLines(const std::vector<TracePoint>& t, double step, double top, CloseIn& out) {
    // A line stands 6 dB over its neighbours at a distance of a few points on both sides.
    const std::ptrdiff_t reach = 3;
    for (std::ptrdiff_t i = reach; i + reach < std::ptrdiff_t(t.size()); ++i) {
        const double level = t[std::size_t(i)].level;
        // Of two that are alike the first.
        const bool highest = std::all_of(t.begin() + i - reach, t.begin() + i,
                                         [&](const TracePoint& p) { return p.level < level; }) &&
                             std::all_of(t.begin() + i, t.begin() + i + reach + 1,
                                         [&](const TracePoint& p) { return p.level <= level; });
        const double beside = std::max(t[std::size_t(i - reach)].level, t[std::size_t(i + reach)].level);
        const double offset = t[std::size_t(i)].hertz - out.carrier;
        if (!highest || level < beside + 6 || std::abs(offset) < 2 * step || top - level > 80) continue;
        CloseLine line{offset, top - level, "not named"};
        const double hum = mainsMultiple(std::abs(offset), std::max(1.5 * step, 1.5));
        if (hum > 0 && 8 * step < 50) {
            line.name = "hum, " + formatQuantity(hum, Unit::hertz, 3);
            out.hum = std::isnan(out.hum) ? line.below : std::min(out.hum, line.below);
        }
        out.lines.push_back(line);
    }
}

double occupied(const std::vector<TracePoint>& t) {
    double sum = 0;
    for (const TracePoint& p : t) sum += powerOf(p.level);
    double below = 0, low = t.front().hertz, high = t.back().hertz;
    bool begun = false;
    for (const TracePoint& p : t) {
        below += powerOf(p.level);
        if (!begun && below >= 0.005 * sum) {
            low = p.hertz;
            begun = true;
        }
        if (below >= 0.995 * sum) {
            high = p.hertz;
            break;
        }
    }
    return high - low;
}

void judgeSidebands(const std::vector<TracePoint>& t, double step, Emission emission, CloseIn& out) {
    // Carrier and sidebands by the same sum over their points: the analyser's filter spreads a line over as
    // many points as it does each part of a sideband, however close they stand.
    const double middle = std::max(kCarrier, 2 * step);
    double lower = 0, upper = 0, carrier = 0;
    for (const TracePoint& p : t) {
        const double offset = p.hertz - out.carrier;
        if (std::abs(offset) > kSide) continue;
        if (std::abs(offset) <= middle)
            carrier += powerOf(p.level);
        else
            (offset > 0 ? upper : lower) += powerOf(p.level);
    }
    const double wanted = emission == Emission::lowerSideband   ? lower
                          : emission == Emission::upperSideband ? upper
                                                                : std::min(lower, upper);
    const double other = emission == Emission::lowerSideband   ? upper
                         : emission == Emission::upperSideband ? lower
                                                               : NAN;
    if (!(wanted > 0)) return;
    if (other > 0) out.unwanted = 10 * std::log10(wanted / other);
    if (carrier > 0) out.carrierBelow = 10 * std::log10(wanted / carrier);
}

void sum(Emission emission, CloseIn& out) {
    out.sentence = "It occupies " + formatQuantity(out.bandwidth, Unit::hertz, 2) + ".";
    out.state = VerdictState::pass;
    const auto worse = [&](VerdictState state, const std::string& words) {
        out.state = worst({out.state, state});
        out.sentence += " " + words;
    };
    if (emission == Emission::carrier) {
        if (std::isfinite(out.hum))
            worse(out.hum < 40 ? VerdictState::doubtful : VerdictState::pass,
                  "Hum stands " + decimals(out.hum, 0) + " dB below the carrier.");
        if (out.bandwidth > 500)
            worse(VerdictState::doubtful,
                  "Morse wants 150 to 500 Hz: look for clicks, keep off the edge of the band.");
        return;
    }
    if (std::isfinite(out.unwanted))
        worse(out.unwanted < 40 ? VerdictState::doubtful : VerdictState::pass,
              "The other sideband is " + decimals(out.unwanted, 0) + " dB below.");
    else if (emission != Emission::bothSidebands)
        worse(VerdictState::cannotTell, "The other sideband is not seen in this trace.");
    if (std::isfinite(out.carrierBelow))
        worse(out.carrierBelow < 40 ? VerdictState::doubtful : VerdictState::pass,
              "The carrier is " + decimals(out.carrierBelow, 0) + " dB below.");
    if (out.bandwidth > (emission == Emission::bothSidebands ? 6500 : 3300))
        worse(VerdictState::doubtful,
              "That is wider than voice: less audio, and keep off the edge of the band.");
}

}  // namespace

bool isCloseIn(const std::vector<TracePoint>& trace, double carrier) {
    if (trace.size() < 10 || !(carrier > 0)) return false;
    const auto [low, high] = std::minmax_element(
        trace.begin(), trace.end(), [](const auto& a, const auto& b) { return a.hertz < b.hertz; });
    return high->hertz - low->hertz < carrier / 50 && low->hertz <= carrier * 1.01 &&
           high->hertz >= carrier * 0.99;
}

CloseIn judgeCloseIn(std::vector<TracePoint> t, double carrier, Emission emission) {
    CloseIn out;
    std::erase_if(t, [](const TracePoint& p) { return !std::isfinite(p.hertz) || !std::isfinite(p.level); });
    std::stable_sort(t.begin(), t.end(), [](const auto& a, const auto& b) { return a.hertz < b.hertz; });
    if (t.size() < 10) {
        out.sentence = "There are too few points in this trace.";
        return out;
    }
    const auto highest =
        std::max_element(t.begin(), t.end(), [](const auto& a, const auto& b) { return a.level < b.level; });
    const double step = (t.back().hertz - t.front().hertz) / double(t.size() - 1);
    out.carrier = emission == Emission::carrier || !(carrier > 0) ? highest->hertz : carrier;
    if (!(step > 0) || out.carrier < t.front().hertz || out.carrier > t.back().hertz) {
        out.sentence = "The trace does not hold the carrier.";
        return out;
    }
    out.bandwidth = occupied(t);
    if (emission == Emission::carrier)
        findLines(t, step, highest->level, out);
    else
        judgeSidebands(t, step, emission, out);
    sum(emission, out);
    const double finest = emission == Emission::carrier ? 6 : 100;
    if (step > finest) {
        out.state = VerdictState::cannotTell;
        out.sentence += " Its points lie " + formatQuantity(step, Unit::hertz, 2) +
                        " apart: too coarse to tell; a narrower span, a narrower filter.";
    }
    return out;
}

}  // namespace ombrek
