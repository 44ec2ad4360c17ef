#include <catch2/catch.hpp>
#include <random>

#include "core/adjust/bias.h"

using namespace ombrek;

namespace {

constexpr double kThermal = 0.02585;  ///< kT/q at 300 K [V]

/// A transistor of any kind behind its bias: exponential at first, no steeper than kT/q allows, then a square
/// law or its resistance. Source: the interpolation of Enz, Krummenacher and Vittoz 1995 (field effect), the
/// ideal junction with an emitter resistance (bipolar).
struct Device {
    bool junction = false;
    double gain = 0.1, slope = 1.3, threshold = 2, emitter = 1;
    double current(double volts) const {
        if (!junction) {
            const double x = std::log1p(std::exp((volts - threshold) / (2 * slope * kThermal)));
            return gain * std::pow(2 * slope * kThermal * x, 2);
        }
        double i = 0;  // i·R + V_T·ln(i/I_s) = V
        double low = 0, high = std::max(0.0, volts) / emitter + 1e-9;
        for (int k = 0; k < 80; ++k) {
            i = (low + high) / 2;
            const double v = i * emitter + kThermal * std::log1p(i / 1e-14);
            (v > volts ? high : low) = i;
        }
        return i;
    }
};

struct Ended {
    int readings = 0;
    double most = 0;  ///< ever drawn
    double rise = 0;
    VerdictState state = VerdictState::notDone;
};

Ended follow(const Device& device, const BiasRule& rule, double volts, double rests, double noise,
             std::mt19937& random) {
    std::normal_distribution<double> gauss(0, noise);
    std::vector<AdjusterReading> readings;
    Ended out;
    double position = rule.safe == SafeEnd::high ? 1 : 0;
    for (; out.readings < 400; ++out.readings) {
        const double x = rule.safe == SafeEnd::high ? 1 - position : position;
        const double drawn = rests + device.current(volts * x);
        out.most = std::max(out.most, drawn);
        out.rise = drawn - rests;
        readings.push_back({position, drawn + gauss(random)});
        const BiasState state = biasState(readings, rule);
        out.state = state.state;
        if (state.state == VerdictState::pass || state.state == VerdictState::fail) break;
        position = state.next;
    }
    return out;
}

std::vector<AdjusterReading> at(std::initializer_list<std::pair<double, double>> all) {
    std::vector<AdjusterReading> out;
    for (const auto& [position, reading] : all) out.push_back({position, reading});
    return out;
}

}  // namespace

TEST_CASE("a bias is begun fully down, proved there, and goes up in small steps") {
    BiasRule rule;
    rule.never = 0.2;
    CHECK(biasState({}, rule).next == 0);
    CHECK(biasState({}, rule).state == VerdictState::notDone);
    // Read in the middle: nothing proves where it began.
    CHECK(biasState(at({{0.5, 0.04}}), rule).next == 0);
    CHECK(biasState(at({{0, 0.04}}), rule).next == 0);  // once more: its unrest
    const BiasState up = biasState(at({{0, 0.04}, {0, 0.0401}}), rule);
    CHECK(up.baseline == Approx(0.04005));
    CHECK(up.next > 0);
    CHECK(up.next <= 0.12 / 14 + 1e-9);  // two decades of a junction, with 14 V across: nobody said less
    rule.volts = 5;
    CHECK(biasState(at({{0, 0.04}, {0, 0.0401}}), rule).next <= 0.024 + 1e-9);
    CHECK(biasState(at({{0, 0.04}, {0, 0.0401}}), rule).next > 0.005);
}

TEST_CASE("what must never be reached sends a bias down at once, whatever came before") {
    BiasRule rule;
    rule.never = 0.1;
    const BiasState over = biasState(at({{0, 0.04}, {0, 0.04}, {0.4, 0.11}}), rule);
    CHECK(over.over);
    CHECK(over.next == 0);
    CHECK(over.state == VerdictState::fail);
    CHECK(biasState(at({{0, 0.3}}), rule).sentence.find("power off") != std::string::npos);
    // At the safe end there is no room left below it.
    CHECK(biasState(at({{0, 0.0999}, {0, 0.0999}}), rule).state == VerdictState::fail);
    rule.safe = SafeEnd::high;
    CHECK(biasState(at({{1, 0.04}, {1, 0.04}, {0.6, 0.11}}), rule).next == 1);
}

TEST_CASE("a bias turned further than was told is sent down to where it was quiet, never back a touch") {
    BiasRule rule;
    rule.volts = 5;
    for (const double never : {0.0, 0.25}) {
        rule.never = never;
        // Quiet at 20 %, then 45 % at once: 5 mA over, below any ceiling.
        const BiasState far = biasState(at({{0, 0.04}, {0, 0.04}, {0.2, 0.04}, {0.45, 0.045}}), rule);
        CHECK(far.state == VerdictState::doubtful);
        CHECK(far.next == Approx(0.2));
        // From there in steps, the first of which is no longer than usual.
        const BiasState again =
            biasState(at({{0, 0.04}, {0, 0.04}, {0.2, 0.04}, {0.45, 0.045}, {0.2, 0.04}}), rule);
        CHECK(again.next > 0.2);
        CHECK(again.next <= 0.2 + 0.024 + 1e-9);
    }
    // Two amperes where nobody said what must never be reached: fully down.
    rule.never = 0;
    const BiasState hot = biasState(at({{0, 0.04}, {0, 0.04}, {0.2, 0.04}, {0.45, 2}}), rule);
    CHECK(hot.over);
    CHECK(hot.next == 0);
    rule.rise = 0.02;
    rule.tolerance = 0.004;
    CHECK(biasState(at({{0, 0.04}, {0, 0.04}, {0.2, 0.04}, {0.45, 2}}), rule).next == 0);
}

TEST_CASE("1,000 random transistors: no bias ever passes its ceiling, and it ends where it should") {
    std::mt19937 random(190711);
    std::uniform_real_distribution<double> share(0, 1);
    int ended = 0, near = 0, passed = 0;
    for (int i = 0; i < 1000; ++i) {
        Device device;
        device.junction = share(random) < 0.3;
        device.gain = 0.02 * std::pow(300, share(random));
        device.slope = 1 + share(random);
        device.threshold = 1.2 + 2.2 * share(random);
        device.emitter = 0.3 + 5 * share(random);
        BiasRule rule;
        const double volts = device.junction ? 1 + 4 * share(random) : 4.5 + 8 * share(random);
        rule.volts = share(random) < 0.5 ? volts : 0;
        const double rests = 0.02 + 0.2 * share(random);
        const bool wanted = share(random) < 0.5;
        rule.rise = wanted ? 0.01 + 0.2 * share(random) : 0;
        rule.tolerance = 0.25 * rule.rise;
        rule.never = rests + std::max(0.03, 2.5 * rule.rise) * (1 + 3 * share(random));
        rule.safe = share(random) < 0.2 ? SafeEnd::high : SafeEnd::low;
        const Ended end = follow(device, rule, volts, rests, 0.0003 * share(random), random);
        passed += end.most >= rule.never;
        ended += end.state == VerdictState::pass;
        near += end.state == VerdictState::pass &&
                (wanted ? std::abs(end.rise - rule.rise) < 1.2 * rule.tolerance + 0.002
                        : end.rise < std::max(0.005, 0.04 * rests));
    }
    CAPTURE(ended, near);
    CHECK(passed == 0);
    CHECK(ended >= 950);
    CHECK(near >= ended - 10);
}

TEST_CASE("each transistor's share is what is missing with it out") {
    const std::vector<std::string> names{"Q5", "Q6", "Q7"};
    const Shares alike = sharesOf(0.030, {0.020, 0.0195, 0.0205}, names);
    CHECK(alike.state == VerdictState::pass);
    CHECK(alike.each[1] == Approx(0.0105));
    const Shares dead = sharesOf(0.030, {0.015, 0.015, 0.0299}, names);
    CHECK(dead.state == VerdictState::fail);
    CHECK(dead.sentence.find("Q7") == 0);
    CHECK(sharesOf(0.030, {0.012, 0.022, 0.026}, names).state == VerdictState::doubtful);
    CHECK(sharesOf(0.030, {0.02, NAN, NAN}, names).state == VerdictState::cannotTell);
    CHECK(sharesOf(0.030, {NAN, NAN, NAN}, names).state == VerdictState::notDone);
    CHECK(sharesOf(0.0, {0.0, 0.0, 0.0}, names).state == VerdictState::cannotTell);
}
