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
bool endless(const CircuitReading& r, double predicted) {
    return r.quantity == What::resistance && (beyond(r.value) || beyond(predicted));
}

/// Error of the meter and of the model, without the parts' spread.
double own(const CircuitReading& r, double predicted) {
    const double floor = r.quantity == What::voltage ? kLeastVolts : 0.0;
    const double error = r.error > 0 ? r.error : 0.005 * std::abs(r.value);
    return std::sqrt(error * error + std::pow(kModel * predicted, 2) + floor * floor) + 1e-12;
}

double difference(const CircuitReading& r, double predicted) {
    // Which way round the leads lie in a current's path is nobody's business.
    return (r.quantity == What::current ? std::abs(r.value) : r.value) - predicted;
}

double tail(double z) { return -2.5 * std::log1p(z * z / 4); }

/// What is heard or seen of a function (0 nothing, ½ weak, 1 works) when so much of it works: rows are what
/// is said, columns nothing, weak, all. A function has more to it than its direct currents (common practice).
double saidOfFunction(double said, double works) {
    constexpr double kOdds[3][3] = {{0.85, 0.35, 0.06}, {0.12, 0.55, 0.08}, {0.03, 0.10, 0.86}};
    const auto third = [](double share) { return share < 0.3 ? 0 : share < 0.8 ? 1 : 2; };
    return std::log(kOdds[third(said)][third(works)]);
}

}  // namespace

double deviations(const CircuitReading& r, double predicted, double spread) {
    if (std::isnan(predicted)) return NAN;
    if (r.quantity == What::works) return std::abs(r.value - predicted) < 0.35 ? 0 : 4;
    if (std::isinf(predicted) || std::isinf(r.value)) return beyond(predicted) == beyond(r.value) ? 0.0 : 9.0;
    return difference(r, predicted) / std::hypot(own(r, predicted), spread);
}

ReadingModel::ReadingModel(std::vector<CircuitReading> readings,
                           const std::vector<std::vector<double>>& steps, std::vector<double> spreads)
    : readings_(std::move(readings)), spreads_(std::move(spreads)) {
    // Volts, amperes and ohms are made comparable by how large they are at all.
    for (const CircuitReading& r : readings_)
        scales_.push_back((r.quantity == What::voltage ? kLeastVolts : 0) + std::abs(r.value) + 1e-12);
    const std::size_t n = readings_.size();
    covariance_.assign(n, std::vector<double>(n, 0.0));
    for (std::size_t i = 0; i < n; ++i) {
        for (std::size_t j = 0; j <= i; ++j) {
            double sum = 0;
            for (std::size_t p = 0; p < std::min(steps[i].size(), steps[j].size()); ++p)
                sum += steps[i][p] * steps[j][p];
            covariance_[i][j] = covariance_[j][i] = sum / scales_[i] / scales_[j];
        }
        if (steps[i].empty()) covariance_[i][i] = std::pow(spreads_[i] / scales_[i], 2);
    }
}

double ReadingModel::independent(const std::vector<std::size_t>& at,
                                 const std::vector<double>& predicted) const {
    double out = 0;
    for (const std::size_t i : at) {
        const double sigma = std::hypot(own(readings_[i], predicted[i]), spreads_[i]);
        out += tail(difference(readings_[i], predicted[i]) / sigma) - std::log(sigma / scales_[i]);
    }
    return out;
}

double ReadingModel::together(const std::vector<std::size_t>& at,
                              const std::vector<double>& predicted) const {
    const auto n = Eigen::Index(at.size());
    Eigen::MatrixXd covariance(n, n);
    Eigen::VectorXd off(n);
    for (Eigen::Index i = 0; i < n; ++i) {
        const std::size_t a = at[std::size_t(i)];
        for (Eigen::Index j = 0; j < n; ++j) covariance(i, j) = covariance_[a][at[std::size_t(j)]];
        covariance(i, i) += std::pow(own(readings_[a], predicted[a]) / scales_[a], 2);
        off(i) = difference(readings_[a], predicted[a]) / scales_[a];
    }
    const Eigen::LLT<Eigen::MatrixXd> factors(covariance);
    if (factors.info() != Eigen::Success) return independent(at, predicted);
    const Eigen::VectorXd z = factors.matrixL().solve(off);
    double out = 0;
    for (Eigen::Index i = 0; i < n; ++i) out += tail(z(i)) - std::log(factors.matrixLLT()(i, i));
    return out;
}

double ReadingModel::logLikelihood(const std::vector<double>& predicted) const {
    double out = 0;
    std::vector<std::size_t> compared;
    for (std::size_t i = 0; i < readings_.size(); ++i) {
        const CircuitReading& r = readings_[i];
        if (std::isnan(r.value)) continue;  // nothing was read
        if (std::isnan(predicted[i])) {
            out += kUnknown;
        } else if (r.quantity == What::works) {
            out += saidOfFunction(r.value, predicted[i]);
        } else if (endless(r, predicted[i])) {
            out += beyond(r.value) == beyond(predicted[i]) ? 0.0 : kWrongRange;
        } else {
            compared.push_back(i);
        }
    }
    if (compared.empty()) return out;
    const double apart = independent(compared, predicted) + std::log(kIndependent);
    const double joint = together(compared, predicted) + std::log(1 - kIndependent);
    const double most = std::max(apart, joint);
    return out + most + std::log(std::exp(apart - most) + std::exp(joint - most));
}

}  // namespace ombrek
