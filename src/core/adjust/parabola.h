#pragma once

#include <array>
#include <vector>

namespace ombrek {

/// A value at a place, with the weight it has in a fit.
struct WeightedPoint {
    double x = 0, y = 0, weight = 1;
};

/// Coefficients c0 + c1·x + c2·x² of the parabola of least weighted squares. Points at fewer than three
/// places give the line, or the mean, that they allow. Source: fit by polynomials that are orthogonal over
/// the points (Forsythe 1957): no equations to solve.
std::array<double, 3> parabolaThrough(const std::vector<WeightedPoint>& points);

}  // namespace ombrek
