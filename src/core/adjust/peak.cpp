#include "core/adjust/peak.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/text/counted.h"

namespace ombrek {
namespace {

constexpr double kEndZone = 0.03;
constexpr double kSure = 0.985;   ///< that no more than 0.1 dB is lost
constexpr double kMoves = 1.02;   ///< from the lowest reading to the highest, or nothing is seen of a peak
constexpr double kCalled = 0.97;  ///< that the peak is beyond an end
constexpr double kUnknownNoises[] = {0.003, 0.01, 0.03, 0.06};

using Curves = std::vector<Resonance>;

std::string travel(double position) { return decimals(std::clamp(position, 0.0, 1.0) * 100, 1) + " %"; }

double share(const Curves& curves, const auto& is) {
    double out = 0;
    for (const Resonance& r : curves) out += is(r) ? r.weight : 0;
    return out;
}

double sureAt(const Curves& curves, double position) {
    return share(curves, [&](const Resonance& r) { return lossAt(r, position) <= kSettledLoss; });
}

double expectedLoss(const Curves& curves, double position) {
    double out = 0;
    for (const Resonance& r : curves) out += r.weight * std::min(3.0, lossAt(r, position));
    return out;
}

/// Quantile of where the highest is.
double quantile(const Curves& curves, double q) {
    std::vector<std::pair<double, double>> at;
    for (const Resonance& r : curves) at.emplace_back(highestOf(r), r.weight);
    std::sort(at.begin(), at.end());
    double sum = 0;
    for (const auto& [x, w] : at) {
        sum += w;
        if (sum >= q) return x;
    }
    return at.back().first;
}

/// Where least is lost as far as anybody knows.
double bestWithin(const Curves& curves) {
    std::vector<double> candidates{0.0, 1.0};
    for (double q = 0.05; q < 1; q += 0.05) candidates.push_back(std::clamp(quantile(curves, q), 0.0, 1.0));
    return *std::min_element(candidates.begin(), candidates.end(), [&](double a, double b) {
        return expectedLoss(curves, a) < expectedLoss(curves, b);
    });
}

/// Around the places that matter, and all over the travel.
std::vector<double> places(const Curves& curves, double best) {
    std::vector<double> out;
    for (int i = 0; i <= 40; ++i) out.push_back(i / 40.0);
    for (const double widths : {-2.0, -1.2, -0.8, -0.5, 0.0, 0.5, 0.8, 1.2, 2.0})
        out.push_back(std::clamp(best + widths * curves.front().halfWidth, 0.0, 1.0));
    for (double q = 0.1; q < 1; q += 0.2) out.push_back(std::clamp(quantile(curves, q), 0.0, 1.0));
    return out;
}

/// Where the curves differ most against a reading's own scatter.
double mostTelling(const Curves& curves, double best, double noise) {
    double most = -1, out = best;
    for (const double x : places(curves, best)) {
        double mean = 0, square = 0;
        for (const Resonance& r : curves) {
            const double y = r.height * gainOf(r, x);
            mean += r.weight * y;
            square += r.weight * y * y;
        }
        const double error = noise * mean + 0.005 * curves.front().height;
        const double told = (square - mean * mean) / (error * error);
        if (told > most * (1 + 1e-9)) most = told, out = x;
    }
    return out;
}

struct Sides {
    bool left = false, right = false;
};

/// Lower readings near on both sides.
Sides sidesOf(const std::vector<AdjusterReading>& readings, double at, double height, double halfWidth) {
    Sides out;
    for (const AdjusterReading& r : readings) {
        if (r.reading >= 0.995 * height || std::abs(r.position - at) > 3 * halfWidth + 0.02) continue;
        out.left = out.left || r.position < at;
        out.right = out.right || r.position > at;
    }
    return out;
}

/// The likeliest curve drawn exactly through what it was found from, by Gauss and Newton.
Resonance drawn(const Resonance& start, const std::vector<AdjusterReading>& readings) {
    if (start.coupling > 0) return start;
    Resonance r = start;
    for (int round = 0; round < 12; ++round) {
        double n[3][4] = {};
        for (const AdjusterReading& p : readings) {
            const double s = offOf(r, p.position), g = gainOf(r, p.position);
            const double d[3] = {g, r.height * g * g * g * s / r.halfWidth,
                                 r.height * g * g * g * s * s / r.halfWidth};
            const double off = p.reading - r.height * g;
            for (int i = 0; i < 3; ++i) {
                for (int j = 0; j < 3; ++j) n[i][j] += d[i] * d[j];
                n[i][3] += d[i] * off;
            }
        }
        for (int i = 0; i < 3; ++i) {
            if (!(std::abs(n[i][i]) > 1e-18)) return start;
            for (int j = i + 1; j < 3; ++j) {
                const double f = n[j][i] / n[i][i];
                for (int k = i; k < 4; ++k) n[j][k] -= f * n[i][k];
            }
        }
        double step[3];
        for (int i = 2; i >= 0; --i) {
            step[i] = n[i][3];
            for (int j = i + 1; j < 3; ++j) step[i] -= n[i][j] * step[j];
            step[i] /= n[i][i];
        }
        r.height += step[0];
        r.at += step[1];
        r.halfWidth += step[2];
        if (!(r.halfWidth > 0) || !std::isfinite(r.at) || !std::isfinite(r.height)) return start;
    }
    // It has run away where the readings do not hold it.
    const bool near = std::abs(r.at - start.at) < start.halfWidth && r.halfWidth < 3 * start.halfWidth &&
                      r.halfWidth > start.halfWidth / 3;
    return near ? r : start;
}

void endStop(PeakEstimate& out, bool low, bool read) {
    out.kind = low ? PeakEstimate::Kind::atLeast : PeakEstimate::Kind::atMost;
    out.nextPosition = low ? 0.0 : 1.0;
    out.state = read ? VerdictState::fail : VerdictState::doubtful;
    out.sentence = !read ? "It rises towards the end: read it at " + travel(out.nextPosition) + "."
                   : low ? "It still rises at the trimmer's least: the coil has too many turns."
                         : "It still rises at the trimmer's most: the coil has too few turns.";
}

/// What is said and asked of curves, whatever they were found from.
void judge(PeakEstimate& out, const Curves& curves, double stands, const Sides& sides, double noise) {
    const double best = bestWithin(curves);
    out.kind = PeakEstimate::Kind::inside;
    out.state = VerdictState::doubtful;
    out.low = quantile(curves, 0.025);
    out.high = quantile(curves, 0.975);
    out.loss = expectedLoss(curves, stands);
    const bool humps = share(curves, [](const Resonance& r) { return r.coupling > 1; }) > 0.9;
    if (humps) out.kind = PeakEstimate::Kind::twoHumps;
    const std::string what = humps ? "higher hump" : "peak";
    if (sureAt(curves, stands) >= kSure && sides.left && sides.right) {
        out.state = VerdictState::pass;
        out.nextPosition = stands;
        out.sentence =
            "It stands at the " + what + ", " + travel(stands) + " of the travel, away from both ends.";
    } else if (sureAt(curves, best) >= kSure && sides.left && sides.right) {
        out.nextPosition = best;
        out.sentence = "The " + what + " is at " + travel(best) + "; turn there and read once more.";
    } else if (sureAt(curves, best) >= kSure && (sides.left || sides.right)) {
        const double side = best + (sides.left ? 0.8 : -0.8) * curves.front().halfWidth;
        out.nextPosition = std::clamp(side, 0.0, 1.0);
        out.sentence = "The peak should be near " + travel(best) + "; one reading at " +
                       travel(out.nextPosition) + " shows how it falls on that side.";
    } else {
        out.nextPosition = mostTelling(curves, best, noise);
        const bool beside = out.nextPosition < out.low || out.nextPosition > out.high;
        out.sentence = "It lies between " + travel(out.low) + " and " + travel(out.high) +
                       (beside ? "; one reading beside it, at " + travel(out.nextPosition) + ", makes sure."
                               : "; read at " + travel(out.nextPosition) + " next.");
    }
}

/// The first places; where two are read the third lies beyond the higher of them.
double firstPlace(const std::vector<double>& seen) {
    for (const double start : {0.5, 0.2, 0.8, 0.35, 0.65}) {
        if (std::none_of(seen.begin(), seen.end(), [&](double x) { return std::abs(x - start) < 0.1; }))
            return start;
    }
    return 0.05;
}

Curves curvesOf(const std::vector<ResonancePoint>& points, double noise) {
    if (std::isfinite(noise)) return resonancesOf(points, noise);
    // The scatter itself is not known: each guess by how well its likeliest curve goes through the readings.
    Curves out;
    double sum = 0;
    for (const double guess : kUnknownNoises) {
        Curves some = resonancesOf(points, guess);
        double chi = 0, logs = 0;
        for (const ResonancePoint& p : points) {
            const Resonance& r = some.front();
            const double error = guess * p.reading + 0.002 * r.height;
            chi += std::pow((p.reading - r.height * gainOf(r, p.position)) / error, 2);
            logs -= std::log(guess);
        }
        // Three of the readings are used up by the curve.
        const double left = std::max(0.0, double(points.size()) - 3) / double(points.size());
        const double weight = std::exp(-0.5 * chi + logs * left);
        for (Resonance& r : some) r.weight *= weight;
        sum += weight;
        out.insert(out.end(), some.begin(), some.end());
    }
    if (!(sum > 0)) return resonancesOf(points, kUnknownNoises[3]);
    for (Resonance& r : out) r.weight /= sum;
    std::sort(out.begin(), out.end(),
              [](const Resonance& a, const Resonance& b) { return a.weight > b.weight; });
    return out;
}

}  // namespace

PeakEstimate estimatePeak(const std::vector<AdjusterReading>& all, double noise) {
    PeakEstimate out;
    std::vector<AdjusterReading> readings;
    std::vector<double> seen;
    std::vector<ResonancePoint> points;
    for (const auto& r : all) {
        if (!(r.reading > 0) || !std::isfinite(r.reading) || !(r.position >= 0) || r.position > 1) continue;
        readings.push_back(r);
        points.push_back({r.position, r.reading, r.error});
        if (std::find(seen.begin(), seen.end(), r.position) == seen.end()) seen.push_back(r.position);
    }
    if (seen.size() < 3) {
        out.nextPosition = firstPlace(seen);
        const auto missing = 3 - seen.size();
        out.sentence = counted(std::int64_t(missing), "more position") + ", then I can say where it peaks.";
        return out;
    }
    const auto [lowest, top] = std::minmax_element(
        readings.begin(), readings.end(), [](const auto& a, const auto& b) { return a.reading < b.reading; });
    const auto [from, to] = std::minmax_element(seen.begin(), seen.end());
    if (top->reading < kMoves * lowest->reading && *to - *from >= 0.5) {
        out.state = VerdictState::cannotTell;
        out.nextPosition = firstPlace(seen);
        out.sentence = "The readings hardly move: is there a signal, and is it this adjuster that is turned?";
        return out;
    }
    const Curves curves = curvesOf(points, noise);
    // The plainest of those that are about as likely as any.
    const auto plain = std::find_if(curves.begin(), curves.end(), [&](const Resonance& r) {
        return r.fixed == 0 && r.coupling == 0 && r.weight > 0.1 * curves.front().weight;
    });
    const Resonance likeliest = drawn(plain == curves.end() ? curves.front() : *plain, readings);
    out.position = highestOf(likeliest);
    out.reading = likeliest.height;
    out.halfWidth = likeliest.halfWidth;
    const double low = share(curves, [](const Resonance& r) { return highestOf(r) < kEndZone; });
    const double high = share(curves, [](const Resonance& r) { return highestOf(r) > 1 - kEndZone; });
    const auto [least, most] = std::minmax_element(seen.begin(), seen.end());
    const Sides sides = sidesOf(readings, bestWithin(curves), likeliest.height, likeliest.halfWidth);
    judge(out, curves, readings.back().position, sides, std::isfinite(noise) ? noise : 0.02);
    // Nothing settles at an end.
    const double stands = readings.back().position;
    const bool atEnd = out.state == VerdictState::pass && (stands <= kEndZone || stands >= 1 - kEndZone);
    if (atEnd) return endStop(out, stands < 0.5, true), out;
    if (low >= kCalled || (low > 0.5 && *least > kEndZone && !sides.left))
        endStop(out, true, *least <= kEndZone);
    else if (high >= kCalled || (high > 0.5 && *most < 1 - kEndZone && !sides.right))
        endStop(out, false, *most >= 1 - kEndZone);
    return out;
}

double responseAt(const PeakEstimate& peak, double position) {
    const double off = (position - peak.position) / peak.halfWidth;
    return peak.reading / std::sqrt(1.0 + off * off);
}

double backOff(const PeakEstimate& peak, double share) {
    if (!(share > 0) || !(share < 1) || !(peak.halfWidth > 0)) return 0;
    return peak.halfWidth * std::sqrt(share / (1 - share));
}

int endStopRemedy(const PeakEstimate& peak, const TankCapacitance& tank, int turns) {
    // L·C is fixed at resonance, so L_wanted / L_now = C_peak / C_half, and turns go with the root.
    const double half = tank.at(0.5);
    const double ratio = half > 0 ? std::clamp(tank.at(peak.position) / half, 0.05, 20.0) : 1.0;
    const int change = std::max(static_cast<int>(std::lround(turns * std::sqrt(ratio))), 1) - turns;
    if (peak.kind == PeakEstimate::Kind::atMost) return std::max(change, 1);
    if (peak.kind == PeakEstimate::Kind::atLeast) return std::min(change, -1);
    return change;
}

}  // namespace ombrek
