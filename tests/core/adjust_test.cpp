#include <cmath>
#include <random>

#include "core/adjust/peak.h"
#include "core/adjust/setting.h"

using namespace ombrek;

namespace {

/// A single tuned circuit: the exact response, C linear in position, not the fitted parabola.
struct Circuit {
    double inductance = 1.452e-6;
    double frequency = 21.06e6;
    double q = 40;
    TankCapacitance tank{18e-12, 4e-12, 5e-12, 30e-12};

    double at(double position) const {
        const double f0 = resonance(inductance, tank.at(position));
        const double x = q * (frequency / f0 - f0 / frequency);
        return 0.8 / std::sqrt(1 + x * x);
    }
    double peak() const {
        return (inductanceFor(frequency, inductance) - tank.at(0)) / (tank.trimmerHigh - tank.trimmerLow);
    }
    AdjusterReading read(double position) const { return {position, at(position)}; }
};

/// Follow the advice from nothing. @return the number of readings taken, at most 15
int followAdvice(const Circuit& circuit, std::vector<AdjusterReading>& readings, PeakEstimate& last) {
    for (int i = 0; i < 15; ++i) {
        last = estimatePeak(readings);
        if (last.state == VerdictState::pass || last.state == VerdictState::fail) return i;
        readings.push_back(circuit.read(last.nextPosition));
    }
    return 15;
}

}  // namespace

TEST_CASE("three readings are asked for before anything is said") {
    CHECK(estimatePeak({}).kind == PeakEstimate::Kind::tooFew);
    CHECK(estimatePeak({{0.5, 1}}).sentence.find("2 more") != std::string::npos);
    CHECK(estimatePeak({{0.5, 1}, {0.5, 1.1}, {0.5, 0.9}}).kind == PeakEstimate::Kind::tooFew);
    CHECK(estimatePeak({{0.2, 1}, {0.5, -1}, {0.8, NAN}, {7, 1}}).kind == PeakEstimate::Kind::tooFew);
}

TEST_CASE("following the advice finds the peak of a true tuned circuit") {
    for (const double q : {8.0, 15.0, 25.0, 40.0, 80.0}) {
        for (double l = 1.15; l < 1.75; l += 0.05) {
            Circuit circuit;
            circuit.q = q;
            circuit.inductance = l * 1e-6;
            std::vector<AdjusterReading> readings;
            PeakEstimate last;
            const int taken = followAdvice(circuit, readings, last);
            INFO("Q " << q << ", " << l << " µH, peak at " << circuit.peak() << ", found " << last.position
                      << " after " << taken);
            REQUIRE(last.state == VerdictState::pass);
            CHECK(taken <= 12);
            // At the found position the response is within 1 dB of the true maximum.
            CHECK(circuit.at(last.position) > 0.8 * std::pow(10.0, -1.0 / 20));
        }
    }
}

TEST_CASE("an exact resonance curve is fitted exactly") {
    const auto y = [](double x) { return 2.0 / std::sqrt(1 + std::pow((x - 0.42) / 0.08, 2)); };
    const PeakEstimate peak = estimatePeak({{0.36, y(0.36)}, {0.43, y(0.43)}, {0.5, y(0.5)}});
    CHECK(peak.position == Approx(0.42).epsilon(1e-9));
    CHECK(peak.reading == Approx(2.0).epsilon(1e-9));
    CHECK(peak.halfWidth == Approx(0.08).epsilon(1e-9));
    CHECK(peak.state == VerdictState::doubtful);  // it stands at half travel, off the peak
    CHECK(responseAt(peak, 0.5) == Approx(y(0.5)));
    const PeakEstimate settled = estimatePeak({{0.36, y(0.36)}, {0.5, y(0.5)}, {0.42, y(0.42)}});
    CHECK(settled.state == VerdictState::pass);
}

TEST_CASE("noise moves the estimate a little, not the verdict") {
    std::mt19937 engine(2);
    std::normal_distribution<double> noise(0, 0.005);
    Circuit circuit;
    circuit.q = 25;
    for (int round = 0; round < 50; ++round) {
        std::vector<AdjusterReading> readings;
        for (double x = 0.1; x < 0.95; x += 0.1)
            readings.push_back({x, std::max(0.01, circuit.at(x) + noise(engine))});
        CHECK(estimatePeak(readings).position == Approx(circuit.peak()).margin(0.05));
    }
}

TEST_CASE("a peak beyond an end is an end stop with its remedy in turns", "[reference]") {
    // Source: a plate trimmer's true peak shows twice in a turn; one at an end means the coil is wrong
    // (common practice).
    Circuit few;  // too few turns: it wants more capacitance than there is
    few.inductance = 0.9e-6;
    std::vector<AdjusterReading> readings;
    PeakEstimate last;
    followAdvice(few, readings, last);
    REQUIRE(last.state == VerdictState::fail);
    CHECK(last.kind == PeakEstimate::Kind::atMost);
    const int add = endStopRemedy(last, few.tank, 17);
    CHECK(add >= 1);
    Circuit many;
    many.inductance = 2.4e-6;
    readings.clear();
    followAdvice(many, readings, last);
    REQUIRE(last.state == VerdictState::fail);
    CHECK(last.kind == PeakEstimate::Kind::atLeast);
    CHECK(endStopRemedy(last, many.tank, 28) <= -1);
}

TEST_CASE("beyond an end the remedy is a turn at least, the right way") {
    // Where rounding says none: the coil still has to change.
    const TankCapacitance tank{18e-12, 4e-12, 25e-12, 30e-12};  // a trimmer that hardly matters
    PeakEstimate beyond;
    beyond.kind = PeakEstimate::Kind::atMost;
    beyond.position = 1;
    CHECK(endStopRemedy(beyond, tank, 10) == 1);
    beyond.kind = PeakEstimate::Kind::atLeast;
    beyond.position = 0;
    CHECK(endStopRemedy(beyond, tank, 10) == -1);
}

TEST_CASE("the remedy brings the peak back inside") {
    Circuit circuit;
    circuit.q = 15;
    circuit.inductance = 1.0e-6;
    std::vector<AdjusterReading> readings;
    PeakEstimate last;
    int turns = 18, rounds = 0;
    for (; rounds < 4; ++rounds) {
        readings.clear();
        followAdvice(circuit, readings, last);
        if (last.state == VerdictState::pass) break;
        const int change = endStopRemedy(last, circuit.tank, turns);
        circuit.inductance *= std::pow(double(turns + change) / turns, 2);
        turns += change;
    }
    CHECK(last.state == VerdictState::pass);
    CHECK(rounds <= 3);
}

TEST_CASE("a setting is interpolated between the readings that bracket it") {
    const auto s = estimateSetting({{0.2, 100}, {0.6, 200}}, 150, Unit::hertz);
    CHECK(s.reachable);
    CHECK(s.position == Approx(0.4));
    CHECK(estimateSetting({{0.2, 200}, {0.6, 100}}, 150, Unit::hertz).position == Approx(0.4));
    CHECK(estimateSetting({{0.2, 100}, {0.3, 140}, {0.4, 160}, {0.9, 300}}, 150, Unit::hertz).position ==
          Approx(0.35));
}

TEST_CASE("a setting's next reading, from nothing to out of reach") {
    CHECK(estimateSetting({}, 5, Unit::volt).nextPosition == 0.5);
    CHECK(estimateSetting({{0.5, 1}}, 5, Unit::volt).nextPosition == 1.0);
    CHECK(estimateSetting({{0.5, 1}, {1.0, 2}}, 5, Unit::volt).nextPosition == 0.0);
    CHECK(estimateSetting({{0.4, 1}, {0.6, 2}}, 5, Unit::volt).nextPosition ==
          1.0);  // it rises towards the target
    CHECK(estimateSetting({{0.4, 2}, {0.6, 1}}, 5, Unit::volt).nextPosition == 0.0);
    const auto out = estimateSetting({{0.0, 1}, {1.0, 2}}, 5, Unit::volt);
    CHECK_FALSE(out.reachable);
    CHECK(out.position == 1.0);
    CHECK(out.sentence.find("out of reach") != std::string::npos);
}

TEST_CASE("interpolating a curved dial converges in a few readings") {
    const auto f = [](double x) { return 5e6 / std::sqrt(1 + 0.08 * x); };
    std::vector<AdjusterReading> readings;
    const double target = f(0.37);
    int taken = 0;
    for (; taken < 10; ++taken) {
        const auto s = estimateSetting(readings, target, Unit::hertz);
        readings.push_back({s.nextPosition, f(s.nextPosition)});
        if (std::fabs(readings.back().reading - target) < 100) break;
    }
    CHECK(taken < 7);
}

TEST_CASE("the last reading at a position counts") {
    CHECK(estimateSetting({{0.2, 999}, {0.6, 200}, {0.2, 100}}, 150, Unit::hertz).position == Approx(0.4));
}

TEST_CASE("out of reach, the nearer end is named: a position beyond the travel is none") {
    const auto low = estimateSetting({{0.0, 4}, {1.0, 1}}, 5, Unit::volt);
    CHECK_FALSE(low.reachable);
    CHECK(low.position == 0.0);
    CHECK(estimateSetting({{0.0, 1}, {1.0, 4}}, 5, Unit::volt).position == 1.0);
    for (const double nowhere : {-0.2, 1.5}) {
        const auto s = estimateSetting({{nowhere, 5}}, 5, Unit::volt);
        CHECK(s.nextPosition == 0.5);
        CHECK(s.sentence == "Read it at half travel first.");
    }
}
