#include "core/adjust/joint_null.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <limits>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

constexpr double kReadingDb = 0.3;  ///< what a reading scatters (common practice)
constexpr double kStandsDb = 1.0;   ///< above what can be reached, where it may be left
constexpr double kDepthDb = 3;      ///< from the highest reading, or it is no null (common practice)
constexpr double kHope = 1.5;       ///< deviations below what is expected that are hoped for
constexpr int kPlaces = 80;         ///< of an adjuster's travel that are weighed
constexpr double kCurved =
    0.12;  ///< of a reading, for each decade above the lowest: the bowl is none, far up

double powerOf(double db) { return std::pow(10.0, db / 10); }

/// 1, x, x², and the products of two.
Eigen::VectorXd terms(const std::vector<double>& x) {
    const std::size_t n = x.size();
    Eigen::VectorXd out(Eigen::Index(1 + 2 * n + n * (n - 1) / 2));
    Eigen::Index at = 0;
    out(at++) = 1;
    for (const double v : x) out(at++) = v - 0.5;
    for (const double v : x) out(at++) = (v - 0.5) * (v - 0.5);
    for (std::size_t i = 0; i < n; ++i) {
        for (std::size_t j = i + 1; j < n; ++j) out(at++) = (x[i] - 0.5) * (x[j] - 0.5);
    }
    return out;
}

/// The bowl, and how well it is known.
class Bowl {
 public:
    Bowl(const std::vector<NullReading>& readings, std::size_t n) : n_(n) {
        double low = 1e300, high = 0;
        for (const NullReading& r : readings) {
            low = std::min(low, powerOf(r.db));
            high = std::max(high, powerOf(r.db));
        }
        scale_ = high;
        const Eigen::Index count = terms(std::vector<double>(n, 0.5)).size();
        Eigen::VectorXd mean = Eigen::VectorXd::Zero(count), spread(count);
        // Beforehand: what was highest is so because every adjuster was off by some of its travel.
        spread(0) = 3;
        for (std::size_t i = 0; i < n; ++i) {
            spread(Eigen::Index(1 + i)) = 6;
            mean(Eigen::Index(1 + n + i)) = 4;
            spread(Eigen::Index(1 + n + i)) = 4;
        }
        for (Eigen::Index k = Eigen::Index(1 + 2 * n); k < count; ++k) spread(k) = 4;
        Eigen::MatrixXd precision = spread.array().square().inverse().matrix().asDiagonal();
        Eigen::VectorXd right = precision * mean;
        for (const NullReading& r : readings) {
            const double p = powerOf(r.db) / scale_;
            const double relative = kReadingDb * std::log(10.0) / 10;
            const double curved = kCurved * std::max(0.0, std::log10(powerOf(r.db) / low) - 0.5);
            const double error = p * std::hypot(relative, curved) + 1e-12;
            const Eigen::VectorXd t = terms(r.at);
            precision += t * t.transpose() / (error * error);
            right += t * p / (error * error);
        }
        const Eigen::LDLT<Eigen::MatrixXd> factors(precision);
        coefficients_ = factors.solve(right);
        covariance_ = factors.solve(Eigen::MatrixXd::Identity(count, count));
    }

    double at(const std::vector<double>& x) const { return terms(x).dot(coefficients_) * scale_; }
    double deviation(const std::vector<double>& x) const {
        const Eigen::VectorXd t = terms(x);
        return std::sqrt(std::max(0.0, t.dot(covariance_ * t))) * scale_;
    }

    /// The lowest place within the travels, by going down each in turn from several starts.
    std::vector<double> lowest(const std::vector<double>& from) const {
        std::vector<double> best = from;
        double least = at(from);
        for (int start = 0; start < 5; ++start) {
            std::vector<double> x(n_, 0.25 + 0.5 * (start % 2));
            if (start == 0) x = from;
            if (start > 2)
                for (std::size_t i = 0; i < n_; ++i) x[i] = (i + std::size_t(start)) % 2 == 0 ? 0.1 : 0.9;
            for (int round = 0; round < 60; ++round) {
                double moved = 0;
                for (std::size_t i = 0; i < n_; ++i) {
                    const double was = x[i];
                    x[i] = alongLowest(x, i);
                    moved = std::max(moved, std::abs(x[i] - was));
                }
                if (moved < 1e-7) break;
            }
            if (at(x) < least) least = at(x), best = x;
        }
        return best;
    }

 private:
    /// The parabola along one adjuster.
    double alongLowest(std::vector<double> x, std::size_t i) const {
        const auto of = [&](double v) {
            x[i] = v;
            return at(x);
        };
        const double a = of(0), m = of(0.5), b = of(1);
        const double second = 2 * (a - 2 * m + b), first = b - a;
        if (!(second > 0)) return a < b ? 0.0 : 1.0;
        return std::clamp(0.5 - first / (2 * second), 0.0, 1.0);
    }

    std::size_t n_;
    double scale_ = 1;
    Eigen::VectorXd coefficients_;
    Eigen::MatrixXd covariance_;
};

std::string travel(double position) { return decimals(position * 100, 1) + " %"; }

}  // namespace

JointNull jointNull(const std::vector<NullReading>& all, std::size_t n) {
    JointNull out;
    out.best.assign(n, 0.5);
    std::vector<NullReading> readings;
    for (const NullReading& r : all) {
        const bool good = r.at.size() == n && std::isfinite(r.db) && std::abs(r.db) < 300 &&
                          std::all_of(r.at.begin(), r.at.end(), [](double x) { return x >= 0 && x <= 1; });
        if (good) readings.push_back(r);
    }
    if (readings.empty()) {
        out.sentence = "Read once with every adjuster at half travel.";
        return out;
    }
    const NullReading& now = readings.back();
    out.stands = now.db;
    const auto least =
        std::min_element(readings.begin(), readings.end(),
                         [](const NullReading& a, const NullReading& b) { return a.db < b.db; });
    const Bowl bowl(readings, n);
    out.best = bowl.lowest(least->at);
    // Nothing below nothing: what is left is at least what its own uncertainty allows.
    const double left = bowl.at(out.best), unsure = bowl.deviation(out.best);
    const std::size_t wanted = 1 + 2 * n + n * (n - 1) / 2;
    const double floor = std::max(left, 0.1 * unsure);
    if (readings.size() >= wanted && floor > 0) out.floor = 10 * std::log10(floor);
    // It stands low enough when no single turn, nor all together, can be hoped to gain a decibel more.
    const double here = powerOf(now.db);
    double most = here;
    for (std::size_t i = 0; i < n; ++i) {
        for (int k = 0; k <= kPlaces; ++k) {
            std::vector<double> x = now.at;
            x[i] = double(k) / kPlaces;
            // And finely about what is believed to be best.
            for (const double v : {x[i], std::clamp(out.best[i] + (k - kPlaces / 2) * 0.0005, 0.0, 1.0)}) {
                x[i] = v;
                const double hope = bowl.at(x) - kHope * bowl.deviation(x);
                if (hope < most) {
                    most = hope;
                    out.adjuster = int(i);
                    out.position = v;
                }
            }
        }
    }
    const double together = bowl.at(out.best) - unsure;
    const double enough = here / powerOf(kStandsDb);
    // A null that was never seen to rise is none: a meter may stand still.
    const auto highest =
        std::max_element(readings.begin(), readings.end(),
                         [](const NullReading& a, const NullReading& b) { return a.db < b.db; });
    const bool rises = highest->db >= now.db + kDepthDb;
    out.converged = readings.size() > wanted && together >= enough && rises;
    if (out.converged) {
        out.adjuster = -1;
        out.sentence = "It stands where turning gains no decibel more: " + decimals(now.db, 1) + " dB.";
        return out;
    }
    // Where no turn alone gains, the one that leads towards the best together.
    if (most >= here) {
        double furthest = -1;
        for (std::size_t i = 0; i < n; ++i) {
            const double off = std::abs(out.best[i] - now.at[i]);
            if (off > furthest) furthest = off, out.adjuster = int(i), out.position = out.best[i];
        }
    }
    out.sentence = "Turn adjuster " + std::to_string(out.adjuster + 1) + " to " + travel(out.position) + ".";
    return out;
}

double quadratureRejection(double phaseDegrees, double amplitudeDb) {
    const double k = std::pow(10.0, amplitudeDb / 20),
                 c = std::cos(phaseDegrees * 3.14159265358979323846 / 180);
    const double wanted = 1 + 2 * k * c + k * k, unwanted = 1 - 2 * k * c + k * k;
    return unwanted > 0 ? 10 * std::log10(wanted / unwanted) : std::numeric_limits<double>::infinity();
}

}  // namespace ombrek
