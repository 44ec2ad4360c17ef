#include "core/frequency/dial.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

constexpr double kMajors = 10;  ///< about so many

/// The next of 1, 2, 5 times a power of ten.
double roundStep(double atLeast) {
    const double decade = std::pow(10.0, std::floor(std::log10(atLeast)));
    for (const double step : {1.0, 2.0, 5.0}) {
        if (step * decade >= atLeast * (1 - 1e-9)) return step * decade;
    }
    return 10 * decade;
}

std::string label(double frequency, double step) {
    const double megahertz = frequency / 1e6;
    const int places = std::clamp(int(std::ceil(-std::log10(step / 1e6) - 1e-9)), 0, 6);
    return decimals(megahertz, places);
}

}  // namespace

Result<Dial> dialOf(const std::vector<DialPoint>& points, const DialShape& shape) {
    if (!(shape.size >= 5 && shape.size <= 1000)) return problem("size", "A dial is 5 to 1000 mm.");
    if (!(shape.sweep >= 0 && shape.sweep <= 360))
        return problem("sweep", "A dial goes round by 360° at most.");
    std::vector<double> x, y;
    for (const DialPoint& p : points) {
        if (!(p.frequency > 0)) return problem("", "A frequency lies above 0 Hz.");
        x.push_back(p.position);
        y.push_back(p.frequency);
    }
    if (points.size() < 3) return problem("", "A dial wants three positions at least: read some more.");
    const auto curve = Pchip::through(x, y);
    if (!curve) return tl::make_unexpected(curve.error());
    if (curve->way() == 0)
        return problem("",
                       "The frequency turns back between two positions: read these again, from one side.");
    const bool shares = shape.travel > 0;
    if (shares && !(curve->low() >= 0 && curve->high() <= shape.travel * (1 + 1e-9)))
        return problem("", "A share of the travel lies between none and all of it.");
    const double first = shares ? 0 : curve->low();
    const double span = shares ? shape.travel : curve->high() - curve->low();
    if (shape.round && shape.sweep == 0 && span > 360)
        return problem("",
                       "The positions go over more than a full turn: they are no degrees of a round dial.");
    Dial out;
    out.shape = shape;
    out.from = shape.round && shape.sweep == 0 ? curve->low() : 0;
    out.to = !shape.round ? shape.size : shape.sweep == 0 ? curve->high() : shape.sweep;
    const double a = (*curve)(curve->low()), b = (*curve)(curve->high());
    out.low = std::min(a, b);
    out.high = std::max(a, b);
    out.major = roundStep((out.high - out.low) / kMajors);
    const double lead = out.major / std::pow(10.0, std::floor(std::log10(out.major) + 1e-9));
    out.minor = out.major / (lead > 1.5 && lead < 2.5 ? 4 : 5);
    for (double k = std::ceil(out.low / out.minor - 1e-9); k * out.minor <= out.high * (1 + 1e-12); ++k) {
        DialMark mark;
        mark.frequency = std::min(std::max(k * out.minor, out.low), out.high);
        const double at = curve->where(mark.frequency);
        if (std::isnan(at)) continue;
        mark.place = out.from + (at - first) / span * (out.to - out.from);
        const double majors = mark.frequency / out.major;
        mark.major = std::abs(majors - std::round(majors)) < 1e-6;
        if (mark.major) mark.label = label(mark.frequency, out.major);
        out.marks.push_back(std::move(mark));
    }
    std::sort(out.marks.begin(), out.marks.end(),
              [](const DialMark& m, const DialMark& n) { return m.place < n.place; });
    return out;
}

std::vector<DialMark> toCheck(const Dial& dial) {
    std::vector<DialMark> majors, out;
    std::copy_if(dial.marks.begin(), dial.marks.end(), std::back_inserter(majors),
                 [](const DialMark& m) { return m.major; });
    constexpr std::size_t kChecks = 5;
    const std::size_t n = majors.size();
    for (std::size_t i = 0; i < std::min(kChecks, n); ++i)
        out.push_back(majors[n <= kChecks ? i : i * (n - 1) / (kChecks - 1)]);
    return out;
}

}  // namespace ombrek
