#include "core/frequency/reference.h"

#include <algorithm>
#include <array>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

using Verdict = ReferenceFit::Verdict;

constexpr double kTwice = 1.96;                 ///< deviations that hold 19 of 20
constexpr double kDominates = 5, kOfMany = 20;  ///< times the other's harm, of two points and of more
constexpr double kUnknownPpm = 1;               ///< the weight of a reading that nobody says more of

double sameShare(double f) { return kUnknownPpm * 1e-6 * std::abs(f); }

/// Deviations that hold 19 of 20 where the scatter of so many points too many is all that is known (Student).
double factorOf(double left) {
    constexpr std::array kStudent{12.71, 4.30, 3.18, 2.78, 2.57, 2.45, 2.36, 2.31, 2.26, 2.23};
    const auto at = std::size_t(left) - 1;
    return at < kStudent.size() ? kStudent[at] : kTwice;
}

/// Sums of a weighted line of deviations against frequency.
struct Line {
    double offset = 0, k = 0, offsetError = 0, kError = 0, chi = 0;
};

Line throughPoints(const std::vector<CountedPoint>& points) {
    double w = 0, wx = 0, wxx = 0, wy = 0, wxy = 0;
    for (const CountedPoint& p : points) {
        const double weight = 1 / (p.error * p.error), y = p.read - p.known;
        w += weight;
        wx += weight * p.known;
        wxx += weight * p.known * p.known;
        wy += weight * y;
        wxy += weight * p.known * y;
    }
    const double det = w * wxx - wx * wx;
    Line out;
    out.k = (w * wxy - wx * wy) / det;
    out.offset = (wxx * wy - wx * wxy) / det;
    out.kError = std::sqrt(w / det);
    out.offsetError = std::sqrt(wxx / det);
    for (const CountedPoint& p : points)
        out.chi += std::pow((p.read - p.known - out.offset - out.k * p.known) / p.error, 2);
    return out;
}

/// The one of the two alone, with its error: the mean deviation, or the mean ratio.
struct One {
    double value = 0, error = 0, chi = 0;
};
One alone(const std::vector<CountedPoint>& points, bool ratio) {
    double wxx = 0, wxy = 0;
    for (const CountedPoint& p : points) {
        const double x = ratio ? p.known : 1, weight = 1 / (p.error * p.error);
        wxx += weight * x * x;
        wxy += weight * x * (p.read - p.known);
    }
    One out{wxy / wxx, 1 / std::sqrt(wxx), 0};
    for (const CountedPoint& p : points)
        out.chi += std::pow((p.read - p.known - out.value * (ratio ? p.known : 1)) / p.error, 2);
    return out;
}

std::string hertz(double f) { return formatQuantity(f, Unit::hertz, 3); }

void say(ReferenceFit& out) {
    switch (out.verdict) {
        case Verdict::offset:
            out.sentence =
                "An offset of " + hertz(out.offset) +
                ", the same everywhere: a wrong mode or a preset intermediate frequency, not the reference. "
                "Look at the counter's settings.";
            break;
        case Verdict::reference:
            out.sentence = "The reference is off by " + decimals(out.ppm, 1) +
                           " ppm: trim it, or take it off every reading.";
            break;
        case Verdict::both:
            out.sentence = "An offset of " + hertz(out.offset) + " and a reference that is off by " +
                           decimals(out.ppm, 1) + " ppm: the settings first, then the reference.";
            break;
        case Verdict::neither:
            out.sentence = "Neither an offset nor a reference error beyond what these readings scatter.";
            break;
        case Verdict::cannotTell:
            out.sentence =
                "These readings do not tell an offset from a reference error: count another frequency, far "
                "from these.";
            break;
    }
}

}  // namespace

double worstPpm(const ReferenceFit& fit) {
    constexpr double kMark = 50;
    if (std::isfinite(fit.ppmLow)) return std::max(std::abs(fit.ppmLow), std::abs(fit.ppmHigh));
    return std::abs(fit.ppm) + kMark;
}

std::string word(Verdict verdict) {
    switch (verdict) {
        case Verdict::offset:
            return "offset";
        case Verdict::reference:
            return "reference";
        case Verdict::both:
            return "both";
        case Verdict::neither:
            return "neither";
        case Verdict::cannotTell:
            break;
    }
    return "cannot tell";
}

ReferenceFit fitReference(const std::vector<CountedPoint>& all) {
    ReferenceFit out;
    std::vector<CountedPoint> points;
    bool said = true;
    for (CountedPoint p : all) {
        if (!(p.known > 0 && p.read > 0) || !std::isfinite(p.known) || !std::isfinite(p.read)) continue;
        if (!(p.error > 0)) {
            said = false;
            p.error = sameShare(p.known);
        }
        points.push_back(p);
    }
    const auto [low, high] = std::minmax_element(
        points.begin(), points.end(), [](const auto& a, const auto& b) { return a.known < b.known; });
    if (points.size() < 2 || !(high->known > low->known * (1 + 1e-9))) {
        say(out);
        return out;
    }
    Line line = throughPoints(points);
    const double left = double(points.size()) - 2;
    // More scatter than the errors allow widens what is claimed; without errors the scatter is all there is.
    const double wider = left > 0 ? (said ? std::max(1.0, std::sqrt(line.chi / left))
                                          : std::sqrt(std::max(line.chi / left, 1e-6)))
                                  : 1.0;
    const double b = line.offset, k = line.k;
    const double factor = said || left < 1 ? kTwice : factorOf(left);
    const double bOff = factor * line.offsetError * wider, kOff = factor * line.kError * wider;
    out.offset = b;
    out.ppm = k * 1e6;
    if (said || left > 0) {
        out.offsetLow = b - bOff;
        out.offsetHigh = b + bOff;
        out.ppmLow = (k - kOff) * 1e6;
        out.ppmHigh = (k + kOff) * 1e6;
    }
    const One offset = alone(points, false), ratio = alone(points, true);
    const auto explains = [&](double chi) {
        return chi <=
               (double(points.size()) - 1 + 3 * std::sqrt(2.0 * (double(points.size()) - 1))) * wider * wider;
    };
    double none = 0;
    for (const CountedPoint& p : points) none += std::pow((p.read - p.known) / p.error, 2);
    const bool nothing =
        none <= (double(points.size()) + 2 * std::sqrt(2.0 * double(points.size()))) * wider * wider;
    const double dominates = points.size() > 2 ? kOfMany : kDominates;
    const bool bSeen = std::abs(b) > bOff, kSeen = std::abs(k) > kOff;
    // What each does to these frequencies, on the whole.
    const double bHarm = std::abs(b), kHarm = std::abs(k) * std::sqrt(low->known * high->known);
    if (nothing) {
        out.verdict = Verdict::neither;
    } else if (bSeen && (!kSeen || bHarm > dominates * kHarm)) {
        out.verdict = Verdict::offset;
    } else if (kSeen && (!bSeen || kHarm > dominates * bHarm)) {
        out.verdict = Verdict::reference;
    } else if (bSeen && kSeen) {
        out.verdict = Verdict::both;
    } else if (explains(offset.chi) != explains(ratio.chi)) {
        out.verdict = explains(offset.chi) ? Verdict::offset : Verdict::reference;
    }
    say(out);
    return out;
}

std::string claimOf(double ppm) {
    if (!(ppm >= 0) || !std::isfinite(ppm))
        return "Go or no-go only: it oscillates, near its mark. A broadcast standard by zero beat, a second "
               "counter or a "
               "known station would tell more.";
    const std::string within = "Within ±" +
                               decimals(ppm, ppm < 1    ? 2
                                             : ppm < 10 ? 1
                                                        : 0) +
                               " ppm, ±" + hertz(ppm * 1e-6 * 14e6) + " at 14 MHz. ";
    if (ppm > 20)
        return within + "A broadcast standard by zero beat would make it a part in a million or two.";
    if (ppm > 1) return within + "A satellite-disciplined source would make it better than a tenth of that.";
    return within + "Nothing at an amateur's bench asks for more.";
}

}  // namespace ombrek
