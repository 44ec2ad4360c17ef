#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/frequency/beat.h"
#include "core/frequency/range.h"
#include "core/frequency/settling.h"

using namespace ombrek;

namespace {

std::vector<float> tones(double seconds, double rate, std::initializer_list<std::pair<double, double>> all,
                         double noise) {
    std::mt19937 random(7);
    std::normal_distribution<double> gauss(0, noise);
    std::vector<float> out;
    for (int i = 0; i < int(seconds * rate); ++i) {
        double v = gauss(random);
        for (const auto& [hertz, size] : all) v += size * std::sin(2 * M_PI * hertz * i / rate);
        out.push_back(float(v));
    }
    return out;
}

}  // namespace

TEST_CASE("a note in ten seconds of noise is told to a tenth of a hertz and better") {
    for (const double hertz : {60.03, 431.27, 799.951, 1500.5, 2999.9}) {
        const auto beat = beatOf(tones(10, 8000, {{hertz, 0.3}}, 0.1), 8000);
        REQUIRE(beat);
        INFO(hertz << " read " << beat->tone);
        CHECK(std::abs(beat->tone - hertz) < 0.02);
        CHECK(std::isnan(beat->slow));
    }
}

TEST_CASE("a recording of a prime number of samples is counted as any other") {
    std::vector<float> odd = tones(12, 44100, {{700, 0.3}}, 0.05);
    odd.resize(524287);  // prime
    CHECK(beatOf(odd, 44100)->tone == Approx(700).margin(0.02));
}

TEST_CASE("two carriers near each other are told by their slow beat") {
    for (const double apart : {0.3, 0.74, 2.5, 11.0}) {
        const auto beat = beatOf(tones(10, 8000, {{700, 0.3}, {700 + apart, 0.2}}, 0.02), 8000);
        REQUIRE(beat);
        INFO(apart << " read " << beat->slow);
        CHECK(std::abs(beat->slow - apart) < 0.1);
        CHECK(std::abs(beat->slow - apart) < 2 * beat->slowError);
    }
}

TEST_CASE("noise, silence and a click are no beat") {
    CHECK_FALSE(beatOf(tones(10, 8000, {}, 0.2), 8000).has_value());
    CHECK_FALSE(beatOf(std::vector<float>(80000, 0.0F), 8000).has_value());
    CHECK_FALSE(beatOf(tones(0.3, 8000, {{700, 0.3}}, 0.01), 8000).has_value());
    CHECK_FALSE(beatOf({}, 8000).has_value());
    CHECK_FALSE(beatOf(tones(2, 8000, {{700, 0.3}}, 0.01), 0).has_value());
    std::vector<float> broken = tones(2, 8000, {{700, 0.3}}, 0.01);
    broken[77] = NAN;
    CHECK(beatOf(broken, 8000)->tone == Approx(700).margin(0.1));
}

TEST_CASE("what warms up is settled when what is left is allowed, and says how long it takes") {
    std::mt19937 random(3);
    std::normal_distribution<double> gauss(0, 0.3);
    const auto reading = [&](double t) {
        return TimedReading{t, 7e6 + 120 * std::exp(-t / 180) + gauss(random)};
    };
    std::vector<TimedReading> all;
    Settling out;
    for (double t = 0; t <= 300; t += 10) all.push_back(reading(t));
    out = settlingOf(all, 5, Unit::hertz);
    CHECK(out.state == VerdictState::doubtful);  // 22.7 Hz are left
    CHECK(out.left == Approx(-120 * std::exp(-300 / 180.0)).epsilon(0.35));
    CHECK(out.minutes == Approx(180 * std::log(22.7 / 5) / 60).epsilon(0.4));
    for (double t = 310; t <= 900; t += 10) all.push_back(reading(t));
    out = settlingOf(all, 5, Unit::hertz);  // 0.8 Hz
    CHECK(out.state == VerdictState::pass);
    CHECK(out.final == Approx(7e6).margin(2));
    // Few readings, or a straight drift, are not settled.
    CHECK(settlingOf({{0, 1}, {10, 1}}, 5, Unit::hertz).state == VerdictState::cannotTell);
    CHECK(settlingOf({}, 5, Unit::hertz).state == VerdictState::notDone);
    std::vector<TimedReading> drift;
    for (double t = 0; t < 300; t += 10) drift.push_back({t, 7e6 + t});
    CHECK(settlingOf(drift, 5, Unit::hertz).state == VerdictState::doubtful);
    std::vector<TimedReading> still;
    for (double t = 0; t < 120; t += 10) still.push_back({t, 7e6});
    CHECK(settlingOf(still, 5, Unit::hertz).state == VerdictState::pass);
}

TEST_CASE("where a range begins is moved by capacitance or turns, as Thomson's formula has it") {
    const TankCapacitance tank{90e-12, 5e-12, 5e-12, 30e-12};  // 112.5 pF at half travel
    const RangeMove move = moveStart(5.05e6, 5.0e6, tank, 30);
    CHECK(move.hertz == Approx(-50e3));
    CHECK(move.capacitance == Approx(112.5e-12 * (std::pow(5.05 / 5.0, 2) - 1)));
    // L goes with the square of the turns: f with 1/n.
    CHECK(move.turns == Approx(30 * 0.01));
    CHECK(moveStart(0, 5e6, tank, 30).turns == 0);
    CHECK(judgeRange(7.0e6, 7.06e6, {7.0e6, 7.06e6}, true).state == VerdictState::pass);
    CHECK(judgeRange(6.99e6, 7.06e6, {7.0e6, 7.06e6}, true).state == VerdictState::doubtful);
    CHECK(judgeRange(6.99e6, 7.06e6, {7.0e6, 7.06e6}, false).state == VerdictState::pass);
    CHECK(judgeRange(7.03e6, 7.06e6, {7.0e6, 7.06e6}, true).covered == Approx(0.5));
    CHECK(judgeRange(7.03e6, 7.06e6, {}, true).state == VerdictState::cannotTell);
}
