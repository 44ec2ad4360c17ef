#pragma once

#include <vector>

#include "circuit/reading.h"

namespace ombrek {

/// One reading against one prediction.
struct Residual {
    const CircuitReading* reading = nullptr;
    double predicted = NAN;
    double spread = 0;          ///< what parts within their tolerances make of it, a standard deviation
    std::vector<double> steps;  ///< the same by each part that scatters; empty: not known apart
};

/// How many of its own deviations a reading is off: the meter's error, the parts' spread and what no model
/// knows better. NaN: the prediction is not known.
double deviations(const CircuitReading& reading, double predicted, double spread);

/// Logarithm of the likelihood of all readings together, up to a constant.
///
/// Parts that scatter move several readings at once, so that readings are held against each other, too; each
/// step has Student's heavy tails (four degrees of freedom), and a tenth of the belief is that the readings
/// are independent: one that is odd does not silence all others.
double logLikelihood(const std::vector<Residual>& residuals);

}  // namespace ombrek
