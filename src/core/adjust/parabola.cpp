#include "core/adjust/parabola.h"

namespace ombrek {

std::array<double, 3> parabolaThrough(const std::vector<WeightedPoint>& points) {
    // p0 = 1, p1 = x − a, p2 = (x − b)·p1 − c, each orthogonal to those before it.
    const auto sum = [&](auto term) {
        double out = 0;
        for (const WeightedPoint& p : points) out += p.weight * term(p);
        return out;
    };
    const double s0 = sum([](auto&) { return 1.0; });
    if (!(s0 > 0)) return {};
    const double mean = sum([](auto& p) { return p.y; }) / s0;
    const double a = sum([](auto& p) { return p.x; }) / s0;
    const auto p1 = [a](double x) { return x - a; };
    const double s1 = sum([&](auto& p) { return p1(p.x) * p1(p.x); });
    constexpr double kFlat = 1e-14;  // of the weight: places that are the same
    if (!(s1 > kFlat * s0)) return {mean, 0, 0};
    const double slope = sum([&](auto& p) { return p.y * p1(p.x); }) / s1;
    const double b = sum([&](auto&p) { return p.x * p1(p.x) * p1(p.x); }) / s1, c = s1 / s0;
    const auto p2 = [&](double x) { return (x - b) * p1(x) - c; };
    const double s2 = sum([&](auto& p) { return p2(p.x) * p2(p.x); });
    const double bend = s2 > kFlat * kFlat * s0 ? sum([&](auto& p) { return p.y * p2(p.x); }) / s2 : 0;
    return {mean - slope * a + bend * (a * b - c), slope - bend * (a + b), bend};
}

}  // namespace ombrek
