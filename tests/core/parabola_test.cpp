#include "core/adjust/parabola.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace ombrek;

namespace {

double at(const std::array<double, 3>& c, double x) { return c[0] + c[1] * x + c[2] * x * x; }

}  // namespace

TEST_CASE("a parabola goes through three points, whatever their weights") {
    const auto c = parabolaThrough({{0.2, 3, 1}, {0.5, -1, 40}, {0.9, 2, 0.01}});
    CHECK(at(c, 0.2) == Approx(3));
    CHECK(at(c, 0.5) == Approx(-1));
    CHECK(at(c, 0.9) == Approx(2));
}

TEST_CASE("least squares of a parabola by the normal equations", "[reference]") {
    // Source: definition of least squares: the weighted residuals are orthogonal to 1, x and x².
    std::vector<WeightedPoint> points;
    for (int i = 0; i < 9; ++i) points.push_back({0.1 * i, std::sin(7.0 * i), 1.0 + i % 4});
    const auto c = parabolaThrough(points);
    for (int power = 0; power < 3; ++power) {
        double residual = 0, scale = 0;
        for (const auto& p : points) {
            residual += p.weight * (p.y - at(c, p.x)) * std::pow(p.x, power);
            scale += p.weight * std::fabs(p.y);
        }
        CHECK(std::fabs(residual) < 1e-12 * scale);
    }
}

TEST_CASE("points at fewer than three places give the line or the mean that they allow") {
    const auto line = parabolaThrough({{0.2, 1, 1}, {0.2, 3, 1}, {0.7, 4, 1}});
    CHECK(at(line, 0.2) == Approx(2));
    CHECK(at(line, 0.7) == Approx(4));
    CHECK(line[2] == 0);
    CHECK(parabolaThrough({{0.4, 1, 1}, {0.4, 2, 1}})[0] == Approx(1.5));
    CHECK(parabolaThrough({})[0] == 0);
    CHECK(parabolaThrough({{0.4, 5, 0}})[0] == 0);  // nothing that weighs
}
