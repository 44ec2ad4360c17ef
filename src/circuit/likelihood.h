#pragma once

#include <vector>

#include "circuit/reading.h"

namespace ombrek {

/// How many of its own deviations a reading is off: the meter's error, the parts' spread and what no model
/// knows better. NaN: the prediction is not known.
double deviations(const CircuitReading& reading, double predicted, double spread);

/// Readings, and how parts within their tolerances move them.
class ReadingModel {
 public:
    /// @param steps    of each reading, what each part that scatters does to it, of one deviation; empty
    /// where
    ///                 it is not known apart
    /// @param spreads  of each reading, all parts together
    ReadingModel(std::vector<CircuitReading> readings, const std::vector<std::vector<double>>& steps,
                 std::vector<double> spreads);

    /// Logarithm of the likelihood of all readings together, up to a constant.
    ///
    /// Parts that scatter move several readings at once, so that readings are held against each other, too;
    /// each has Student's heavy tails (four degrees of freedom), and a tenth of the belief is that the
    /// readings are independent: one that is odd does not silence all others.
    double logLikelihood(const std::vector<double>& predicted) const;

 private:
    double independent(const std::vector<std::size_t>& at, const std::vector<double>& predicted) const;
    double together(const std::vector<std::size_t>& at, const std::vector<double>& predicted) const;

    std::vector<CircuitReading> readings_;
    std::vector<double> spreads_, scales_;
    std::vector<std::vector<double>> covariance_;  ///< by the parts' steps, in scales
};

}  // namespace ombrek
