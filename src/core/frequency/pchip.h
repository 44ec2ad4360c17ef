#pragma once

#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// A curve through points that rises where they rise and falls where they fall. Source: Fritsch and Carlson
/// 1980, with the three-point slopes of Fritsch and Butland 1984 at the ends as numerical libraries have
/// them.
class Pchip {
 public:
    /// @return a Problem for fewer than two points, or two at one place
    static Result<Pchip> through(std::vector<double> x, std::vector<double> y);

    double operator()(double x) const;  ///< beyond the ends the end's value
    double low() const { return x_.front(); }
    double high() const { return x_.back(); }
    /// Whether it goes one way alone: 1 up, −1 down, 0 neither.
    int way() const;
    /// Where it has a value; NaN when it does not reach it, or goes to and fro.
    double where(double y) const;

 private:
    std::vector<double> x_, y_, slope_;
};

}  // namespace ombrek
