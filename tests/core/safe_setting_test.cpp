#include <cmath>
#include <functional>
#include <random>

#include "core/adjust/setting.h"

using namespace ombrek;

namespace {

using Curve = std::function<double(double)>;

constexpr double kTarget = 20e-3, kTolerance = 4e-3;

/// Currents over a bias trimmer's travel: nothing up to a threshold, then a straight, a square or an
/// exponential rise, each coming to the target over no less than 3 % of the travel.
std::vector<Curve> curves(std::mt19937& engine) {
    const auto between = [&](double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(engine);
    };
    const double from = between(0.03, 0.7), over = between(0.03, 0.28);
    const auto rise = [=](double x) { return std::max(0.0, x - from) / over; };
    // An exponential without threshold, a decade for every 3 to 10 % of the travel (a junction: 60 mV).
    const double decade = between(0.03, 0.1), at = between(0.3, 0.95);
    return {[=](double x) { return kTarget * rise(x); },
            [=](double x) { return kTarget * rise(x) * rise(x); },
            [=](double x) { return kTarget * std::pow(10.0, (x - at) / decade); }};
}

}  // namespace

TEST_CASE("a bias is brought up from its safe end and never overshoots") {
    std::mt19937 engine(70);
    for (int round = 0; round < 100; ++round) {
        for (const Curve& current : curves(engine)) {
            for (const SafeEnd safe : {SafeEnd::low, SafeEnd::high}) {
                const auto at = [&](double x) { return current(safe == SafeEnd::high ? 1 - x : x); };
                std::vector<AdjusterReading> readings;
                bool settled = false;
                for (int i = 0; i < 120 && !settled; ++i) {
                    const auto advice = approachSafely(readings, kTarget, kTolerance, Unit::ampere, safe);
                    REQUIRE(advice.reachable);
                    readings.push_back({advice.nextPosition, at(advice.nextPosition)});
                    INFO("round " << round << ", reading " << i << " at " << advice.nextPosition << ": "
                                  << readings.back().reading);
                    REQUIRE(readings.back().reading <= kTarget + kTolerance);
                    settled = readings.back().reading >= kTarget - kTolerance;
                }
                INFO("round " << round << ", " << readings.size() << " readings, last "
                              << readings.back().reading);
                CHECK(settled);
            }
        }
    }
}

TEST_CASE("without a reading the safe end comes first") {
    CHECK(approachSafely({}, kTarget, kTolerance, Unit::ampere, SafeEnd::low).nextPosition == 0);
    CHECK(approachSafely({}, kTarget, kTolerance, Unit::ampere, SafeEnd::high).nextPosition == 1);
    // Read half-way, and low: the end is still asked for first.
    CHECK(approachSafely({{0.5, 1e-3}}, kTarget, kTolerance, Unit::ampere, SafeEnd::low).nextPosition == 0);
}

TEST_CASE("above the target the only advice is down") {
    // Wherever it was read before, whatever it reads: the next position is lower, and one that read less.
    std::mt19937 engine(5);
    std::uniform_real_distribution<double> place(0, 1);
    for (int round = 0; round < 500; ++round) {
        std::vector<AdjusterReading> readings{{0, 0}};
        for (int i = 0; i < round % 6; ++i) readings.push_back({place(engine), kTarget * 2 * place(engine)});
        const double stands = 0.05 + 0.95 * place(engine);
        readings.push_back({stands, kTarget * (1.3 + 10 * place(engine))});
        const auto advice = approachSafely(readings, kTarget, kTolerance, Unit::ampere, SafeEnd::low);
        INFO(advice.sentence);
        CHECK(advice.nextPosition < stands);
        CHECK(advice.sentence.find("down") != std::string::npos);
    }
    const auto only = approachSafely({{0.5, 1.0}}, kTarget, kTolerance, Unit::ampere, SafeEnd::low);
    CHECK(only.nextPosition == 0);
    const auto overload =
        approachSafely({{0, 0}, {0.3, INFINITY}}, kTarget, kTolerance, Unit::ampere, SafeEnd::low);
    CHECK(overload.nextPosition == 0);
}

TEST_CASE("too much at the safe end is a fault, too little at the other out of reach") {
    const auto fault = approachSafely({{0, 0.5}}, kTarget, kTolerance, Unit::ampere, SafeEnd::low);
    CHECK_FALSE(fault.reachable);
    CHECK(fault.nextPosition == 0);
    CHECK(fault.sentence.find("power off") != std::string::npos);
    const auto little =
        approachSafely({{0, 0}, {0.98, 1e-3}, {1, 1e-3}}, kTarget, kTolerance, Unit::ampere, SafeEnd::low);
    CHECK_FALSE(little.reachable);
}

TEST_CASE("a reading of just the target is where it belongs") {
    const auto advice = approachSafely({{0, 0}, {0.3, 10e-3}, {0.34, kTarget}}, kTarget, kTolerance,
                                       Unit::ampere, SafeEnd::low);
    CHECK(advice.reachable);
    CHECK(advice.nextPosition >= 0.34);
    CHECK(advice.nextPosition < 0.4);
}
