#include "circuit/likelihood.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>

namespace ombrek {
namespace {

using What = CircuitReading::Quantity;

constexpr double kLeastVolts = 0.02;  ///< what no model knows better [V]
constexpr double kModel = 0.01;       ///< and of the value
constexpr double kIndependent = 0.1;  ///< the belief that readings have nothing to do with each other
constexpr double kUnknown = -8;       ///< of a prediction that the simulator did not find
constexpr double kWrongRange = -6;    ///< of beyond the range where something is read, or the other way

bool beyond(double ohms) { return !(std::abs(ohms) < kBeyondRange); }

/// A reading without an end is compared by whether both are without one.
bool endless(const Residual& r) {
    return r.reading->quantity == What::resistance && (beyond(r.reading->value) || beyond(r.predicted));
}

/// Error of the meter and of the model, without the parts' spread.
double own(const CircuitReading& r, double predicted) {
    const double floor = r.quantity == What::voltage ? kLeastVolts : 0.0;
    const double error = r.error > 0 ? r.error : 0.005 * std::abs(r.value);
    return std::sqrt(error * error + std::pow(kModel * predicted, 2) + floor * floor) + 1e-12;
}

double difference(const Residual& r) {
    // Which way round the leads lie in a current's path is nobody's business.
    const double read = r.reading->quantity == What::current ? std::abs(r.reading->value) : r.reading->value;
    return read - r.predicted;
}

double tail(double z) { return -2.5 * std::log1p(z * z / 4); }

/// A scale that makes volts, amperes and ohms comparable: how wide a reading may be at all.
double scale(const Residual& r) {
    return (r.reading->quantity == What::voltage ? kLeastVolts : 0) + std::abs(r.reading->value) + 1e-12;
}

double independent(const std::vector<const Residual*>& all) {
    double out = 0;
    for (const Residual* r : all) {
        const double sigma = std::hypot(own(*r->reading, r->predicted), r->spread);
        out += tail(difference(*r) / sigma) - std::log(sigma / scale(*r));
    }
    return out;
}

double together(const std::vector<const Residual*>& all) {
    const auto n = Eigen::Index(all.size());
    Eigen::MatrixXd covariance = Eigen::MatrixXd::Zero(n, n);
    Eigen::VectorXd difference_(n);
    for (Eigen::Index i = 0; i < n; ++i) {
        const Residual& a = *all[std::size_t(i)];
        const double si = scale(a);
        difference_(i) = difference(a) / si;
        for (Eigen::Index j = 0; j <= i; ++j) {
            const Residual& b = *all[std::size_t(j)];
            double sum = 0;
            for (std::size_t p = 0; p < std::min(a.steps.size(), b.steps.size()); ++p)
                sum += a.steps[p] * b.steps[p];
            covariance(i, j) = covariance(j, i) = sum / si / scale(b);
        }
        if (a.steps.empty()) covariance(i, i) = std::pow(a.spread / si, 2);
        covariance(i, i) += std::pow(own(*a.reading, a.predicted) / si, 2);
    }
    const Eigen::LLT<Eigen::MatrixXd> factors(covariance);
    if (factors.info() != Eigen::Success) return independent(all);
    const Eigen::VectorXd z = factors.matrixL().solve(difference_);
    const Eigen::MatrixXd lower = factors.matrixL();
    double out = 0;
    for (Eigen::Index i = 0; i < n; ++i) out += tail(z(i)) - std::log(lower(i, i));
    return out;
}

}  // namespace

double deviations(const CircuitReading& r, double predicted, double spread) {
    if (std::isnan(predicted)) return NAN;
    if (std::isinf(predicted) || std::isinf(r.value)) return beyond(predicted) == beyond(r.value) ? 0.0 : 9.0;
    return difference({&r, predicted, spread, {}}) / std::hypot(own(r, predicted), spread);
}

double logLikelihood(const std::vector<Residual>& residuals) {
    double out = 0;
    std::vector<const Residual*> compared;
    for (const Residual& r : residuals) {
        if (std::isnan(r.predicted)) {
            out += kUnknown;
        } else if (endless(r)) {
            out += beyond(r.reading->value) == beyond(r.predicted) ? 0.0 : kWrongRange;
        } else {
            compared.push_back(&r);
        }
    }
    if (compared.empty()) return out;
    const double apart = independent(compared) + std::log(kIndependent);
    const double joint = together(compared) + std::log(1 - kIndependent);
    const double most = std::max(apart, joint);
    return out + most + std::log(std::exp(apart - most) + std::exp(joint - most));
}

}  // namespace ombrek
