#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <random>

#include "core/adjust/joint_null.h"

using namespace ombrek;

namespace {

/// What is left when each adjuster pulls several components: a null somewhere in the travels, and a floor.
class PulledNull {
 public:
    PulledNull(std::mt19937& engine, std::size_t n) : engine_(engine), n_(n) {
        std::uniform_real_distribution<double> u(0, 1);
        for (std::size_t i = 0; i < n; ++i) at_.push_back(0.15 + 0.7 * u(engine));
        for (std::size_t r = 0; r < n; ++r) {
            pull_.emplace_back();
            for (std::size_t i = 0; i < n; ++i)
                pull_.back().push_back(r == i ? 0.5 + u(engine) : 0.7 * (u(engine) - 0.5));
        }
        floor_ = std::pow(10.0, -(3 + 3 * u(engine)));
        noise_ = 0.3 * u(engine);
    }
    double exact(const std::vector<double>& x) const {
        double p = floor_;
        for (const auto& row : pull_) {
            double sum = 0;
            for (std::size_t i = 0; i < n_; ++i) sum += row[i] * (x[i] - at_[i]);
            p += sum * sum;
        }
        return 10 * std::log10(p);
    }
    double read(const std::vector<double>& x) {
        ++readings;
        return exact(x) + noise_ * std::normal_distribution<double>(0, 1)(engine_);
    }
    double floorDb() const { return 10 * std::log10(floor_); }
    int readings = 0;
    double noise_;

 private:
    std::mt19937& engine_;
    std::size_t n_;
    std::vector<double> at_;
    std::vector<std::vector<double>> pull_;
    double floor_;
};

/// Each adjuster in turn by golden section, round by round, until it stands within 3 dB or 400 readings are
/// made.
int byGoldenSection(PulledNull& rig, std::size_t n) {
    std::vector<double> x(n, 0.5);
    const double g = (std::sqrt(5.0) - 1) / 2;
    for (int round = 0; round < 30; ++round) {
        for (std::size_t i = 0; i < n; ++i) {
            double a = 0, b = 1;
            if (round > 0) {
                const double width = std::pow(0.5, round);
                a = std::max(0.0, x[i] - width);
                b = std::min(1.0, x[i] + width);
            }
            const auto at = [&](double v) {
                x[i] = v;
                return rig.read(x);
            };
            double c = b - g * (b - a), d = a + g * (b - a), fc = at(c), fd = at(d);
            for (int k = 0; k < 5; ++k) {
                if (fc < fd) {
                    b = d, d = c, fd = fc, c = b - g * (b - a), fc = at(c);
                } else {
                    a = c, c = d, fc = fd, d = a + g * (b - a), fd = at(d);
                }
            }
            x[i] = fc < fd ? c : d;
            if (rig.exact(x) <= rig.floorDb() + 3) return rig.readings;
            if (rig.readings > 400) return rig.readings;
        }
    }
    return rig.readings;
}

int asked() {
    const char* wanted = std::getenv("OMBREK_NULLS");
    return wanted == nullptr ? 60 : std::atoi(wanted);
}

}  // namespace

TEST_CASE("three adjusters that pull each other reach the floor, in fewer readings than by golden section") {
    for (const std::size_t n : {std::size_t(2), std::size_t(3)}) {
        std::mt19937 engine(31 + unsigned(n));
        int good = 0, said = 0;
        double taken = 0, golden = 0;
        for (int i = 0; i < asked(); ++i) {
            PulledNull rig(engine, n);
            std::vector<NullReading> readings;
            std::vector<double> x(n, 0.5);
            JointNull last;
            for (int k = 0; k < 60; ++k) {
                readings.push_back({x, rig.read(x)});
                last = jointNull(readings, n);
                if (last.converged) break;
                REQUIRE(last.adjuster >= 0);
                REQUIRE((last.position >= 0 && last.position <= 1));
                x[std::size_t(last.adjuster)] = last.position;
            }
            const bool ok = rig.exact(readings.back().at) <= rig.floorDb() + 3;
            good += ok;
            said += last.converged;
            taken += double(readings.size());
            rig.readings = 0;
            golden += byGoldenSection(rig, n);
        }
        INFO(n << " adjusters: " << good << " of " << asked() << ", converged " << said << ", readings "
               << taken / asked() << ", golden " << golden / asked());
        if (std::getenv("OMBREK_NULLS"))
            std::printf("n %zu: %d of %d, said %d, %.1f readings, golden %.1f\n", n, good, asked(), said,
                        taken / asked(), golden / asked());
        CHECK(double(good) / asked() >= 0.95);
        CHECK(taken < golden);
    }
}

TEST_CASE("rejection of a quadrature receiver", "[reference]") {
    // Source: 10·log10((1 + 2k·cos φ + k²)/(1 − 2k·cos φ + k²)), worked by hand: 1° and 0 dB, 1° and 0.1 dB,
    // 2°.
    CHECK(quadratureRejection(1, 0) == Approx(41.2).margin(0.05));
    CHECK(quadratureRejection(1, 0.1) == Approx(39.6).margin(0.2));
    CHECK(quadratureRejection(2, 0) == Approx(35.2).margin(0.05));
    CHECK(std::isinf(quadratureRejection(0, 0)));
}

TEST_CASE("a joint null: nothing, absurd rows, one adjuster") {
    CHECK(jointNull({}, 2).adjuster == 0);
    CHECK(jointNull({}, 2).position == 0.5);
    CHECK(std::isnan(jointNull({{{0.5}, -10}}, 2).stands));
    CHECK(std::isnan(jointNull({{{0.5, 7}, -10}, {{0.5, 0.5}, NAN}, {{0.5, 0.5}, 1e9}}, 2).stands));
    const JointNull one = jointNull({{{0.5}, -10}, {{0.2}, -8}, {{0.8}, -20}}, 1);
    CHECK(one.adjuster == 0);
    CHECK(one.position > 0.5);
    // All alike: no bowl, and nothing is promised.
    CHECK_FALSE(jointNull({{{0.5, 0.5}, -10}, {{0.5, 0.5}, -10}}, 2).converged);
    // A meter that stands still, wherever they are turned.
    std::vector<NullReading> still;
    for (const double a : {0.1, 0.4, 0.6, 0.9}) {
        for (const double b : {0.2, 0.5, 0.8}) still.push_back({{a, b}, -20});
    }
    CHECK_FALSE(jointNull(still, 2).converged);
}
