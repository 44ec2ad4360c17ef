#include <cmath>
#include <functional>
#include <random>

#include "core/adjust/peak.h"
#include "draws.h"

using namespace ombrek;

namespace {

/// A tuned circuit as a rig has it: the exact response of a parallel circuit, C linear in the position.
struct Circuit {
    double inductance, frequency, q;
    TankCapacitance tank;

    double at(double position) const {
        const double f0 = resonance(inductance, tank.at(position));
        const double x = q * (frequency / f0 - f0 / frequency);
        return 0.8 / std::sqrt(1 + x * x);
    }
    double lossAt(double position) const { return 20 * std::log10(0.8 / at(position)); }
};

/// Bands from 3.5 to 28 MHz, loaded Q 8 to 100, the peak anywhere between 8 and 92 % of the travel.
Circuit drawn(std::mt19937& engine) {
    const auto between = [&](double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(engine);
    };
    Circuit out;
    out.frequency = between(3.5e6, 28e6);
    out.q = std::exp(between(std::log(8.0), std::log(100.0)));
    out.tank.fixed = between(10e-12, 120e-12);
    out.tank.stray = between(2e-12, 8e-12);
    out.tank.trimmerLow = between(2e-12, 8e-12);
    out.tank.trimmerHigh = out.tank.trimmerLow + between(15e-12, 70e-12);
    out.inductance = inductanceFor(out.frequency, out.tank.at(between(0.08, 0.92)));
    return out;
}

struct Followed {
    VerdictState state = VerdictState::notDone;
    double stands = 0;
    int readings = 0;
};

/// Do what it says, to the tenth of a per cent, until it says that it is settled.
Followed follow(const Circuit& circuit, const std::function<double(double)>& meter) {
    std::vector<AdjusterReading> readings;
    Followed out;
    for (; out.readings < 40; ++out.readings) {
        const PeakEstimate now = estimatePeak(readings);
        out.state = now.state;
        if (now.state == VerdictState::pass || now.state == VerdictState::fail) break;
        out.stands = std::round(now.nextPosition * 1000) / 1000;
        readings.push_back({out.stands, meter(circuit.at(out.stands))});
    }
    return out;
}

/// A display of so many counts that picks its range.
double shown(double value, double counts) {
    const double range = std::pow(10.0, std::ceil(std::log10(value)));
    return std::round(value / range * counts) / counts * range;
}

}  // namespace

TEST_CASE("advice followed to the letter ends within a tenth of a decibel in random circuits") {
    // Source: response of a single tuned circuit (any text); 0.1 dB is what the adjuster may be left with.
    std::mt19937 engine(300);
    int most = 0;
    for (int i = 0; i < draws(300, 60); ++i) {
        const Circuit circuit = drawn(engine);
        const Followed end = follow(circuit, [](double y) { return shown(y, 60000); });
        INFO("circuit " << i << ", Q " << circuit.q << ", stands " << end.stands << " after " << end.readings
                        << ", loses " << circuit.lossAt(end.stands) << " dB");
        REQUIRE(end.state == VerdictState::pass);
        CHECK(circuit.lossAt(end.stands) <= 0.1);
        most = std::max(most, end.readings);
    }
    CHECK(most <= 25);
}

TEST_CASE("a noisy meter of 600 counts costs readings, hardly any decibels") {
    std::mt19937 engine(7);
    std::normal_distribution<double> noise(0, 0.002);
    int settled = 0;
    for (int i = 0; i < draws(300, 60); ++i) {
        const Circuit circuit = drawn(engine);
        const Followed end =
            follow(circuit, [&](double y) { return shown(std::max(1e-4, y * (1 + noise(engine))), 600); });
        INFO("circuit " << i << ", Q " << circuit.q << ", loses " << circuit.lossAt(end.stands) << " dB");
        settled += end.state == VerdictState::pass;
        if (end.state == VerdictState::pass) CHECK(circuit.lossAt(end.stands) <= 0.3);
        CHECK(end.state != VerdictState::fail);
    }
    CHECK(settled >= draws(285, 57));
}

TEST_CASE("a fitted peak is not settled while the trimmer stands elsewhere") {
    const auto y = [](double x) { return 2.0 / std::sqrt(1 + std::pow((x - 0.42) / 0.08, 2)); };
    std::vector<AdjusterReading> readings;
    for (const double x : {0.36, 0.42, 0.48, 0.8}) readings.push_back({x, y(x)});
    const PeakEstimate away = estimatePeak(readings);
    CHECK(away.state == VerdictState::doubtful);
    CHECK(away.nextPosition == Approx(0.42).margin(0.005));
    CHECK(away.sentence.find("turn there") != std::string::npos);
    readings.push_back({0.42, y(0.42)});
    CHECK(estimatePeak(readings).state == VerdictState::pass);
}
