#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/proof/budget.h"
#include "core/proof/power.h"

using namespace ombrek;

namespace {

double drawn(const BudgetInput& input, std::mt19937& random) {
    std::uniform_real_distribution<double> flat(-1, 1);
    std::normal_distribution<double> gauss(0, 1);
    switch (input.shape) {
        case BudgetInput::Shape::normal:
            return input.value + input.spread * gauss(random);
        case BudgetInput::Shape::limits:
            return input.value + input.spread * flat(random);
        case BudgetInput::Shape::arcsine:
            return input.value + input.spread * std::sin(M_PI * flat(random));
    }
    return input.value;
}

PowerWay way(const char* method) {
    PowerWay out;
    out.method = method;
    return out;
}

}  // namespace

TEST_CASE("powers by each way, against worked figures") {
    PowerWay scope = way("peak-to-peak");
    scope.volts = 44.72;  // 5 W = 44.72 V peak to peak in 50 Ω
    CHECK(powerBy(scope)->watts == Approx(5).epsilon(1e-3));
    scope.bandwidth = 100e6;
    scope.frequency = 21e6;  // one pole: 4.4 % of the power is lost on the way
    CHECK(powerBy(scope)->watts == Approx(5 * (1 + 0.21 * 0.21)).epsilon(1e-3));
    PowerWay level = way("analyser");
    level.dbm = 6.92;
    level.attenuation = 30;  // 36.92 dBm = 4.92 W
    CHECK(powerBy(level)->watts == Approx(4.92).epsilon(1e-3));
    PowerWay probe = way("diode-probe");
    probe.volts = 21.7;
    probe.drop = 0.6;
    CHECK(powerBy(probe)->watts == Approx(powerFromDiodeProbe(21.7, 0, 0.6, 0, 50).watts));
    PowerWay water = way("heat");  // m·c·ΔT/t: 0.2 kg warmed by 10 K in 167.44 s is 50 W
    water.kilograms = 0.2;
    water.kelvins = 10;
    water.seconds = 167.44;
    CHECK(powerBy(water)->watts == Approx(50));
    PowerWay amps = way("current");
    amps.amps = 0.3162;
    CHECK(powerBy(amps)->watts == Approx(5).epsilon(1e-3));
    PowerWay meter = way("wattmeter");
    meter.watts = 10;
    meter.fullScale = 10;
    CHECK(powerBy(meter)->atLeast);
}

TEST_CASE("each budget against a Monte Carlo of its formula (JCGM 101:2008, clause 7)") {
    std::mt19937 random(101);
    const PowerFormula analyser = [](const auto& x) {
        return 1e-3 * std::pow(10, (x[0] + x[1]) / 10) * x[2];
    };
    const PowerFormula scope = [](const auto& x) { return x[0] * x[0] / (8 * x[1]); };
    const struct {
        PowerFormula formula;
        std::vector<BudgetInput> inputs;
    } cases[] = {{analyser,
                  {{"level", 6.9, 1, BudgetInput::Shape::limits, "dBm"},
                   {"attenuation", 30, 0.5, BudgetInput::Shape::limits, "dB"},
                   {"mismatch", 1, 0.04, BudgetInput::Shape::arcsine, ""}}},
                 {scope,
                  {{"volts", 44.7, 1.3, BudgetInput::Shape::limits, "V"},
                   {"load", 50, 0.5, BudgetInput::Shape::normal, "ohm"}}}};
    for (const auto& c : cases) {
        const PowerBudget budget = budgetOf(c.formula, c.inputs);
        double sum = 0, squares = 0;
        constexpr int kTrials = 200000;
        for (int i = 0; i < kTrials; ++i) {
            std::vector<double> x;
            for (const BudgetInput& input : c.inputs) x.push_back(drawn(input, random));
            const double watts = c.formula(x);
            sum += watts;
            squares += watts * watts;
        }
        const double mean = sum / kTrials, deviation = std::sqrt(squares / kTrials - mean * mean);
        // First order leaves out what the curve adds: 3 % of the deviation at these spreads.
        CHECK(budget.deviation == Approx(deviation).epsilon(0.03));
        CHECK(budget.watts == Approx(mean).epsilon(0.02));
        CHECK(budget.lines.front().watts >= budget.lines.back().watts);
        double all = 0;
        for (const BudgetLine& line : budget.lines) all += line.watts * line.watts;
        CHECK(std::sqrt(all) == Approx(budget.deviation));
    }
}

TEST_CASE("the limits of attenuator and level are in the power as their decibels have it") {
    PowerWay level = way("analyser");
    level.dbm = 7;
    level.attenuation = 30;
    level.dbmError = 1;
    level.attenuationError = 0;
    // d ln P = ln 10/10 a decibel, and a limit is √3 deviations.
    const auto power = powerBy(level);
    CHECK(power->deviation == Approx(power->watts * std::log(10.0) / 10 / std::sqrt(3.0)));
    level.dbmError = 0;
    level.sourceLoss = 20;  // |Γ| 0.1
    level.loadLoss = 26;    // |Γ| 0.05: ±1 % at most
    CHECK(powerBy(level)->deviation == Approx(power->watts * 0.01 / std::sqrt(2.0)).epsilon(0.01));
}

TEST_CASE("what is missing, or makes no power, is said: two ways are held against each other") {
    for (const std::string& id : powerWays()) {
        PowerWay none;
        none.method = id;
        INFO(id);
        const auto refused = powerBy(none);
        REQUIRE_FALSE(refused);
        CHECK_FALSE(refused.error().sentence.empty());
    }
    CHECK_FALSE(powerBy(way("guess")).has_value());
    PowerWay absurd = way("peak-to-peak");
    absurd.volts = 1e300;
    CHECK_FALSE(powerBy(absurd).has_value());
    PowerBudget a, b;
    a.watts = 5;
    a.deviation = 0.2;
    b.watts = 4.8;
    b.deviation = 0.1;
    CHECK(combined(a, b).agree);
    CHECK(combined(a, b).watts == Approx((5 / 0.04 + 4.8 / 0.01) / (1 / 0.04 + 1 / 0.01)));
    b.watts = 4.2;
    CHECK_FALSE(combined(a, b).agree);
    b.deviation = 0;
    CHECK(combined(a, b).watts == 4.2);
}
