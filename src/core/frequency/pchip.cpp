#include "core/frequency/pchip.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace ombrek {
namespace {

/// At an end, of the two nearest chords; kept from going the other way or too steep.
double endSlope(double h0, double h1, double d0, double d1) {
    const double out = ((2 * h0 + h1) * d0 - h0 * d1) / (h0 + h1);
    if (out * d0 <= 0) return 0;
    if (d0 * d1 <= 0 && std::abs(out) > 3 * std::abs(d0)) return 3 * d0;
    return out;
}

}  // namespace

Result<Pchip> Pchip::through(std::vector<double> x, std::vector<double> y) {
    if (x.size() != y.size() || x.size() < 2) return problem("", "A curve wants two points at least.");
    std::vector<std::size_t> order(x.size());
    std::iota(order.begin(), order.end(), std::size_t(0));
    std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return x[a] < x[b]; });
    Pchip out;
    for (const std::size_t i : order) {
        if (!std::isfinite(x[i]) || !std::isfinite(y[i]))
            return problem("", "A point of the curve is no number.");
        if (!out.x_.empty() && !(x[i] > out.x_.back())) return problem("", "Two points are at one place.");
        out.x_.push_back(x[i]);
        out.y_.push_back(y[i]);
    }
    const std::size_t n = out.x_.size();
    std::vector<double> h, d;
    for (std::size_t i = 0; i + 1 < n; ++i) {
        h.push_back(out.x_[i + 1] - out.x_[i]);
        d.push_back((out.y_[i + 1] - out.y_[i]) / h[i]);
    }
    out.slope_.assign(n, d[0]);
    if (n == 2) return out;
    for (std::size_t i = 1; i + 1 < n; ++i) {
        const double w1 = 2 * h[i] + h[i - 1], w2 = h[i] + 2 * h[i - 1];
        out.slope_[i] = d[i - 1] * d[i] <= 0 ? 0 : (w1 + w2) / (w1 / d[i - 1] + w2 / d[i]);
    }
    out.slope_[0] = endSlope(h[0], h[1], d[0], d[1]);
    out.slope_[n - 1] = endSlope(h[n - 2], h[n - 3], d[n - 2], d[n - 3]);
    return out;
}

double Pchip::operator()(double x) const {
    if (x <= x_.front()) return y_.front();
    if (x >= x_.back()) return y_.back();
    const std::size_t i = std::size_t(std::upper_bound(x_.begin(), x_.end(), x) - x_.begin()) - 1;
    const double h = x_[i + 1] - x_[i], t = (x - x_[i]) / h, u = 1 - t;
    return y_[i] * u * u * (1 + 2 * t) + y_[i + 1] * t * t * (3 - 2 * t) + h * slope_[i] * t * u * u -
           h * slope_[i + 1] * t * t * u;
}

int Pchip::way() const {
    const bool up = std::is_sorted(y_.begin(), y_.end(), std::less_equal<>());
    const bool down = std::is_sorted(y_.begin(), y_.end(), std::greater_equal<>());
    return up ? 1 : down ? -1 : 0;
}

double Pchip::where(double y) const {
    const int way = this->way();
    const double low = std::min(y_.front(), y_.back()), high = std::max(y_.front(), y_.back());
    if (way == 0 || !(y >= low && y <= high)) return NAN;
    double a = x_.front(), b = x_.back();
    for (int i = 0; i < 80; ++i) {
        const double m = (a + b) / 2;
        ((*this)(m) < y) == (way > 0) ? a = m : b = m;
    }
    return (a + b) / 2;
}

}  // namespace ombrek
