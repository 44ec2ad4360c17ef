#include "core/adjust/peak.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/adjust/parabola.h"

namespace ombrek {
namespace {

constexpr double kEndZone = 0.03;

std::string travel(double position) { return decimals(std::clamp(position, 0.0, 1.0) * 100, 1) + " %"; }

const AdjusterReading& highest(const std::vector<AdjusterReading>& readings) {
    return *std::max_element(readings.begin(), readings.end(),
                             [](const auto& a, const auto& b) { return a.reading < b.reading; });
}

/// Coefficients of the weighted parabola through 1/y²: a resonance is one near its top.
std::array<double, 3> fitInverseSquare(const std::vector<AdjusterReading>& readings) {
    std::vector<WeightedPoint> points;
    const double top = highest(readings).reading;
    for (const auto& [x, y] : readings) {
        const double share = y / top;  // an error of y is 2/y³ as large in 1/y²
        points.push_back({x, 1 / (share * share), std::pow(share, 6)});
    }
    auto out = parabolaThrough(points);
    for (double& c : out) c /= top * top;
    return out;
}

/// The widest gap beside the best reading: where a further reading helps when no parabola opens upward.
double besideBest(const std::vector<AdjusterReading>& readings) {
    const double best = highest(readings).position;
    double left = 0.0, right = 1.0;
    for (const auto& r : readings) {
        if (r.position < best) left = std::max(left, r.position);
        if (r.position > best) right = std::min(right, r.position);
    }
    return best - left > right - best ? (best + left) / 2 : (best + right) / 2;
}

double firstFreePosition(const std::set<double>& seen) {
    for (const double start : {0.5, 0.2, 0.8}) {
        const bool near =
            std::any_of(seen.begin(), seen.end(), [&](double x) { return std::fabs(x - start) < 0.1; });
        if (!near) return start;
    }
    return 0.35;
}

void endStop(PeakEstimate& out, bool low) {
    out.kind = low ? PeakEstimate::Kind::atLeast : PeakEstimate::Kind::atMost;
    out.state = VerdictState::fail;
    out.nextPosition = low ? 0.0 : 1.0;
    out.sentence = low ? "It still rises at the trimmer's least: the coil has too many turns."
                       : "It still rises at the trimmer's most: the coil has too few turns.";
}

/// The readings a third as high as the best, or more: those that the peak's shape can be told from.
std::vector<AdjusterReading> nearPeak(const std::vector<AdjusterReading>& readings) {
    const double floor = highest(readings).reading / 3;
    std::vector<AdjusterReading> near;
    std::set<double> positions;
    for (const auto& r : readings) {
        if (r.reading < floor) continue;
        near.push_back(r);
        positions.insert(r.position);
    }
    return positions.size() >= 3 ? near : readings;
}

void askAt(PeakEstimate& out, double position) {
    out.kind = PeakEstimate::Kind::inside;
    out.state = VerdictState::doubtful;
    out.nextPosition = position;
    out.sentence = "The readings do not yet make a peak; read again at " + travel(position) + ".";
}

/// No parabola opens upward: either the readings rise into an end, or they are too few around the best one.
void withoutCurve(PeakEstimate& out, const std::vector<AdjusterReading>& readings) {
    const AdjusterReading& best = highest(readings);
    out.position = best.position;
    out.reading = best.reading;
    if (best.position <= kEndZone || best.position >= 1 - kEndZone) {
        endStop(out, best.position < 0.5);
        out.position = best.position < 0.5 ? 0.0 : 1.0;
    } else {
        askAt(out, besideBest(readings));
    }
}

/// A peak at or beyond an end is an end stop only when the end itself has been read.
void judgeEnd(PeakEstimate& out, const std::set<double>& positions) {
    const bool low = out.position < 0.5;
    const bool endRead = low ? *positions.begin() <= kEndZone : *positions.rbegin() >= 1 - kEndZone;
    endStop(out, low);
    if (endRead) return;
    out.state = VerdictState::doubtful;
    out.sentence = "It rises towards the end: read it at " + travel(out.nextPosition) + ".";
}

/// Share of the half width within which no more than kSettledLoss is lost.
double settledShare() { return std::sqrt(std::pow(10.0, kSettledLoss / 10) - 1); }

/// The lower readings nearest to the peak on either side tell its place only while they are near.
struct Sides {
    bool left = false, right = false;
};
Sides sidesOf(const PeakEstimate& peak, const std::vector<AdjusterReading>& readings) {
    const double least = settledShare() * peak.halfWidth, most = 1.5 * peak.halfWidth;
    Sides out;
    for (const AdjusterReading& r : readings) {
        const double off = r.position - peak.position;
        out.left = out.left || (off < -least && off >= -most);
        out.right = out.right || (off > least && off <= most);
    }
    return out;
}

/// Settled when it stands at the peak, reads the most there, and lower readings are near on both sides.
void judgeInside(PeakEstimate& out, const std::vector<AdjusterReading>& readings) {
    out.kind = PeakEstimate::Kind::inside;
    out.state = VerdictState::doubtful;
    const AdjusterReading& stands = readings.back();
    const double tenth = std::pow(10.0, -kSettledLoss / 20);
    const bool at = std::fabs(stands.position - out.position) <= settledShare() * out.halfWidth / 2;
    const bool highest =
        stands.reading >= tenth * ombrek::highest(readings).reading && stands.reading >= tenth * out.reading;
    const Sides sides = sidesOf(out, readings);
    if (!sides.left || !sides.right) {
        // The side that is lacking, half a width off; the peak itself while it was never near.
        const double side = out.position + (sides.left ? 0.5 : -0.5) * out.halfWidth;
        out.nextPosition = std::clamp(side, 0.0, 1.0);
        out.sentence = "The peak should be near " + travel(out.position) + "; one reading at " +
                       travel(out.nextPosition) + " shows how it falls on that side.";
    } else if (at && highest) {
        out.state = VerdictState::pass;
        out.sentence =
            "It stands at the peak, " + travel(out.position) + " of the travel, away from both ends.";
    } else {
        out.sentence = "The peak is at " + travel(out.position) + "; turn there and read once more.";
    }
}

}  // namespace

PeakEstimate estimatePeak(const std::vector<AdjusterReading>& all) {
    PeakEstimate out;
    std::vector<AdjusterReading> readings;
    std::set<double> positions;
    for (const auto& r : all) {
        if (!(r.reading > 0) || !std::isfinite(r.reading) || !(r.position >= 0) || r.position > 1) continue;
        readings.push_back(r);
        positions.insert(r.position);
    }
    if (positions.size() < 3) {
        out.nextPosition = firstFreePosition(positions);
        const auto missing = 3 - positions.size();
        out.sentence = std::to_string(missing) + (missing == 1 ? " more position" : " more positions") +
                       ", then I can say where it peaks.";
        return out;
    }
    const AdjusterReading& best = highest(readings);
    const std::array<double, 3> c = fitInverseSquare(nearPeak(readings));
    if (c[2] <= 0) {
        withoutCurve(out, readings);
        return out;
    }
    out.position = -c[1] / (2 * c[2]);
    const double inverseSquare = c[0] + c[1] * out.position + c[2] * out.position * out.position;
    if (inverseSquare <=
        0) {  // the parabola dips below zero: the readings are too far from the peak to tell its height
        out.position = std::clamp(out.position, 0.0, 1.0);
        out.reading = best.reading;
        if (out.position < kEndZone || out.position > 1 - kEndZone) {
            judgeEnd(out, positions);
        } else {
            askAt(out, positions.contains(out.position) ? besideBest(readings) : out.position);
        }
        return out;
    }
    out.reading = 1.0 / std::sqrt(inverseSquare);
    out.halfWidth = std::sqrt(inverseSquare / c[2]);
    out.nextPosition = std::clamp(out.position, 0.0, 1.0);
    if (out.position < kEndZone || out.position > 1 - kEndZone) {
        judgeEnd(out, positions);
    } else {
        judgeInside(out, readings);
    }
    return out;
}

double responseAt(const PeakEstimate& peak, double position) {
    const double off = (position - peak.position) / peak.halfWidth;
    return peak.reading / std::sqrt(1.0 + off * off);
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
