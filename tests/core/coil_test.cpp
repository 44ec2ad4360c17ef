#include <cmath>
#include <numbers>
#include <stdexcept>

#include "core/coil/air_core.h"
#include "core/coil/tank.h"
#include "core/coil/trim.h"
#include "core/coil/winding.h"
#include "core/coil/wire.h"

using namespace ombrek;

namespace {

constexpr double mm = 1e-3, nH = 1e-9, uH = 1e-6, pF = 1e-12, MHz = 1e6;

MagneticCore ring(double od, double id, double h, double al, const char* material = "powdered-iron") {
    MagneticCore core;
    core.designation = "ring";
    core.material = material;
    core.outerDiameter = od * mm;
    core.innerDiameter = id * mm;
    core.height = h * mm;
    core.al = al * nH;
    core.alTolerancePercent = 5;
    return core;
}

MagneticCore half() { return ring(12.7, 7.7, 4.83, 4.9); }  // the half-inch ring of the tables
MagneticCore small() { return ring(9.52, 5.21, 3.25, 3.0); }

}  // namespace

TEST_CASE("inductance is AL times turns squared", "[reference]") {
    // Source: definition of AL; worked values of a handbook (from memory): 21 turns at 4.9 nH 2.16 µH, 24
    // → 2.82 µH, 15 turns at 3.0 nH → 0.675 µH.
    CHECK(inductance(half(), 21) == Approx(2.16 * uH).epsilon(0.002));
    CHECK(inductance(half(), 24) == Approx(2.82 * uH).epsilon(0.002));
    CHECK(inductance(small(), 15) == Approx(0.675 * uH).epsilon(1e-9));
    CHECK_THROWS_AS(inductance(half(), 0), std::domain_error);
    CHECK_THROWS_AS(inductance(half(), -3), std::domain_error);
}

TEST_CASE("the range follows the core's tolerance") {
    const auto range = inductanceRange(small(), 20);
    CHECK(range.low == Approx(1.14 * uH));
    CHECK(range.high == Approx(1.26 * uH));
}

TEST_CASE("turns for an inductance are the nearest whole number") {
    CHECK(turnsFor(small(), 1.2 * uH) == 20);
    CHECK(turnsFor(half(), 2.16 * uH) == 21);
    CHECK(turnsFor(half(), 1 * nH) == 1);
    for (int n = 1; n < 200; ++n) REQUIRE(turnsFor(small(), inductance(small(), n)) == n);
    for (double l = 0.05 * uH; l < 50 * uH; l *= 1.07) {  // no neighbour is nearer
        const int n = turnsFor(small(), l);
        const double error = std::fabs(inductance(small(), n) - l);
        REQUIRE(error <= std::fabs(inductance(small(), n + 1) - l));
        if (n > 1) REQUIRE(error <= std::fabs(inductance(small(), n - 1) - l));
    }
    CHECK_THROWS_AS(turnsFor(half(), 0), std::domain_error);
    CHECK_THROWS_AS(turnsFor(half(), NAN), std::domain_error);
}

TEST_CASE("American wire gauge", "[reference]") {
    // Source: ASTM B258: d = 0.127 mm · 92^((36−n)/39), table values rounded to 1 µm.
    const auto row = GENERATE(table<int, double>(
        {{20, 0.812}, {22, 0.644}, {24, 0.511}, {26, 0.405}, {28, 0.321}, {30, 0.255}, {36, 0.127}}));
    CHECK(awgDiameter(std::get<0>(row)) / mm == Approx(std::get<1>(row)).margin(0.0006));
    CHECK_THROWS_AS(awgDiameter(57), std::domain_error);
    CHECK_THROWS_AS(awgDiameter(-1), std::domain_error);
}

TEST_CASE("wire as written on the reel") {
    CHECK(parseWire("26AWG")->bare == Approx(awgDiameter(26)));
    CHECK(parseWire("#26")->bare == Approx(awgDiameter(26)));
    CHECK(parseWire("26 awg")->bare == Approx(awgDiameter(26)));
    CHECK(parseWire("28SWG")->bare == Approx(0.376 * mm));  // from memory of the imperial table
    CHECK(parseWire("26 SWG")->bare == Approx(0.457 * mm));
    CHECK(parseWire("0.4mm")->bare == Approx(0.4 * mm));
    CHECK(parseWire("0,4 mm")->bare == Approx(0.4 * mm));
    CHECK(parseWire("5mm"));  // the thickest of a workshop's table, and the thinnest
    CHECK(parseWire("0.02mm"));
    for (const char* text : {"5.1mm", "0.019mm", "", "AWG", "99AWG", "-3AWG", "13SWG", "0mm", "1 m", "thin",
                             "26", "#", "26AWGx"}) {
        INFO(text);
        const auto wire = parseWire(text);
        CHECK_FALSE(wire);
        if (!wire) CHECK(wire.error().sentence.find("26AWG") != std::string::npos);
    }
}

TEST_CASE("enamel adds 0.03 to 0.06 mm", "[reference]") {
    // Source: IEC 60317-0-1 grades, from memory.
    for (double d = 0.05; d <= 2.0; d += 0.05) {
        const Wire wire = enamelledWire(d * mm);
        CHECK(wire.enamelled - wire.bare >= 0.0299 * mm);
        CHECK(wire.enamelled - wire.bare <= 0.0601 * mm);
    }
    CHECK_THROWS_AS(enamelledWire(0), std::domain_error);
    CHECK_THROWS_AS(enamelledWire(1), std::domain_error);
}

TEST_CASE("a metre of 0.5 mm copper", "[reference]") {
    // Source: IEC 60028, 1.7241e-8 Ω·m at 20 °C: ρ·l/A = 87.8 mΩ.
    CHECK(copperResistance({0.5 * mm, 0.55 * mm}, 1.0) == Approx(0.0878).epsilon(0.001));
}

TEST_CASE("turns in one layer agree with the handbook table within 3 %", "[reference]") {
    // Source: handbook table of turns on a ring by hole (from memory): 0.205 in 26 AWG 31, 28 AWG 41; 0.303
    // in 26 AWG 49, 28 AWG 63; 0.370 in 24 AWG 49, 26 AWG 62.
    const auto row = GENERATE(table<double, int, int>({{0.205, 26, 31},
                                                       {0.205, 28, 41},
                                                       {0.303, 26, 49},
                                                       {0.303, 28, 63},
                                                       {0.370, 24, 49},
                                                       {0.370, 26, 62}}));
    MagneticCore core = half();
    core.innerDiameter = std::get<0>(row) * 25.4 * mm;
    core.outerDiameter = core.innerDiameter * 1.7;
    const int fit = turnsThatFit(core, enamelledWire(awgDiameter(std::get<1>(row))));
    INFO(std::get<0>(row) << " in, AWG " << std::get<1>(row) << ": " << fit);
    CHECK(std::fabs(fit - std::get<2>(row)) <= std::max(1.0, 0.03 * std::get<2>(row)));
}

TEST_CASE("a wire thicker than the hole does not fit, and two holes have no layer") {
    CHECK(turnsThatFit(small(), enamelledWire(4.9 * mm)) == 0);
    MagneticCore two = half();
    two.shape = MagneticCore::Shape::twoHole;
    CHECK_THROWS_AS(turnsThatFit(two, enamelledWire(0.3 * mm)), std::domain_error);
}

TEST_CASE("wire length is the rounded perimeter times turns, and a little more for the advance") {
    // Worked by hand: 12.7 × 7.7 × 4.83 with 0.45 mm over enamel: 2·4.83 + 5.0 + π·0.45 = 16.07 mm a turn.
    const Wire wire{0.405 * mm, 0.45 * mm};
    const double perTurn = (2 * 4.83 + 5.0 + std::numbers::pi * 0.45) * mm;
    const double length = wireOnCore(half(), wire, 21);
    CHECK(length > 21 * perTurn);
    CHECK(length < 21 * perTurn * 1.02);
    CHECK(wireOnCore(half(), wire, 1) == Approx(perTurn));
    CHECK_THROWS_AS(wireOnCore(half(), wire, 0), std::domain_error);
}

TEST_CASE("the cut is the length and the tails, 10 to 15 % more, to the next centimetre") {
    const Wire wire = *parseWire("26AWG");
    for (int turns = 1; turns < 60; ++turns) {
        const double exact = wireOnCore(half(), wire, turns) + 2 * 30 * mm;
        const double cut = wireToCut(half(), wire, turns, 30 * mm);
        REQUIRE(cut >= exact * 1.10);
        REQUIRE(cut <= exact * 1.15 + 0.01);
        REQUIRE(std::fabs(cut * 100 - std::round(cut * 100)) < 1e-6);
    }
}

TEST_CASE("a two-hole core uses its stated turn") {
    MagneticCore two;
    two.shape = MagneticCore::Shape::twoHole;
    two.turnLength = 17 * mm;
    two.al = 1300 * nH;
    CHECK(wireOnCore(two, enamelledWire(0.25 * mm), 10) == Approx(0.17));
}

TEST_CASE("turns to target go with the root of the ratio", "[reference]") {
    // Source: definition of AL: N2 = N1·√(L2/L1). 20 turns that read 1.0 µH want 22 for 1.2 µH (21.9).
    const TurnChange change = turnsToTarget(20, 1.0 * uH, 1.2 * uH);
    CHECK(change.turns == 2);
    CHECK(change.inductance == Approx(1.21 * uH));
    CHECK(turnsToTarget(20, 1.2 * uH, 1.2 * uH).turns == 0);
    CHECK(turnsToTarget(20, 1.5 * uH, 1.2 * uH).turns == -2);
    CHECK(turnsToTarget(1, 100 * uH, 1 * nH).turns == 0);  // never fewer than one turn
    CHECK_THROWS_AS(turnsToTarget(0, 1, 1), std::domain_error);
    CHECK_THROWS_AS(turnsToTarget(5, -1, 1), std::domain_error);
    CHECK_THROWS_AS(turnsToTarget(5, 1, NAN), std::domain_error);
}

TEST_CASE("advice after measuring") {
    using Act = TrimAdvice::Act;
    const auto act = [](double measured, double fill = 0.5) {
        return adviseTrim(small(), 20, measured * uH, 1.2 * uH, 2, fill).act;
    };
    CHECK(act(1.2) == Act::leave);
    CHECK(act(1.22) == Act::leave);
    CHECK(act(1.13) == Act::squeeze);  // too low: turns together
    CHECK(act(1.27) == Act::spread);   // too high: turns apart
    CHECK(act(1.0) == Act::addTurns);
    CHECK(act(1.5) == Act::removeTurns);
    CHECK(act(1.10, 0.95) == Act::addTurns);  // a full ring does not give 8 %
    CHECK(adviseTrim(small(), 20, 1.0 * uH, 1.2 * uH, 2, 0.5).turns == 2);
    CHECK(adviseTrim(small(), 20, 1.0 * uH, 1.2 * uH, 2, 0.5).deviationPercent ==
          Approx(-16.67).epsilon(0.001));
}

TEST_CASE("a ferrite is left alone when one turn would overshoot") {
    const MagneticCore ferrite = ring(9.52, 4.75, 3.17, 350, "ferrite");
    const TrimAdvice advice = adviseTrim(ferrite, 4, 5.0 * uH, 5.6 * uH, 5, 0.2);
    CHECK(advice.act == TrimAdvice::Act::leave);
    CHECK(advice.sentence.find("one turn") != std::string::npos);
    CHECK(adviseTrim(ferrite, 4, 3.0 * uH, 5.6 * uH, 5, 0.2).act == TrimAdvice::Act::addTurns);
}

TEST_CASE("every advice has a sentence and its working") {
    for (double measured = 0.6; measured < 2.0; measured += 0.05) {
        const TrimAdvice advice = adviseTrim(small(), 20, measured * uH, 1.2 * uH, 2, 0.5);
        CHECK_FALSE(advice.sentence.empty());
        CHECK(advice.working.lines.size() == 2);
        CHECK_FALSE(advice.working.source.empty());
    }
}

TEST_CASE("resonance", "[reference]") {
    // Source: Thomson's formula: 1 µH with 100 pF is 15.915 MHz.
    CHECK(resonance(1 * uH, 100 * pF) == Approx(15.915 * MHz).epsilon(1e-4));
    CHECK(inductanceFor(15.915 * MHz, 100 * pF) == Approx(1 * uH).epsilon(1e-4));
    CHECK_THROWS_AS(resonance(0, 1), std::domain_error);
    CHECK_THROWS_AS(inductanceFor(-1, 1), std::domain_error);
}

namespace {

const TankCapacitance kTank{18 * pF, 4 * pF, 5 * pF, 30 * pF};

}  // namespace

TEST_CASE("a trimmer that covers the band in the middle of its travel passes") {
    const auto cover = trimmerCover(1.452 * uH, 22, kTank, 21.0 * MHz, 21.15 * MHz);
    CHECK(cover.state == VerdictState::pass);
    CHECK(cover.lowest == Approx(resonance(1.452 * uH, 52 * pF)));
    CHECK(cover.highest == Approx(resonance(1.452 * uH, 27 * pF)));
    CHECK(resonance(1.452 * uH, kTank.at(cover.position)) ==
          Approx(std::sqrt(21.0 * 21.15) * MHz).epsilon(1e-9));
}

TEST_CASE("near an end it is doubtful, beyond it fails with turns") {
    CHECK(trimmerCover(1.95 * uH, 22, kTank, 21.0 * MHz, 21.15 * MHz).state == VerdictState::doubtful);
    const auto few = trimmerCover(0.9 * uH, 18, kTank, 21.0 * MHz, 21.15 * MHz);
    CHECK(few.state == VerdictState::fail);
    CHECK(few.sentence.find("add 5 turns") != std::string::npos);  // 18·√(1.448/0.9) = 22.8
    const auto many = trimmerCover(2.6 * uH, 29, kTank, 21.0 * MHz, 21.15 * MHz);
    CHECK(many.state == VerdictState::fail);
    CHECK(many.sentence.find("remove") != std::string::npos);
}

TEST_CASE("the turns that centre the trimmer do centre it") {
    for (double l = 0.7; l < 2.5; l += 0.1) {
        const auto cover = trimmerCover(l * uH, 22, kTank, 21.0 * MHz, 21.15 * MHz);
        const double scaled = l * uH * std::pow(cover.turnsToCentre / 22, 2);
        CHECK(trimmerCover(scaled, 22, kTank, 21.0 * MHz, 21.15 * MHz).position == Approx(0.5).margin(1e-6));
    }
}

TEST_CASE("turns are changed at both ends of the travel, and nowhere between") {
    for (double l = 1.2; l < 2.0; l += 0.01) {
        const auto cover = trimmerCover(l * uH, 22, kTank, 21.0 * MHz, 21.15 * MHz);
        const bool middle = cover.position > 0.15 && cover.position < 0.85;  // common practice
        const int change = turnsChange(cover, 22);
        INFO(l << " µH at " << cover.position);
        CHECK((change == 0) == middle);
        if (change != 0)
            CHECK((change > 0) == (cover.position > 0.5));  // much capacitance wanted: more turns
        CHECK((cover.state == VerdictState::pass) == middle);
    }
}

TEST_CASE("cover refuses nonsense") {
    // Nothing is across the coil with the trimmer at its least.
    CHECK_FALSE(reckonable(1 * uH, {0, 4 * pF, -10 * pF, 30 * pF}, 1e6, 2e6));
    for (const TrimmerCover& cover :
         {trimmerCover(1 * uH, 0, kTank, 1, 2), trimmerCover(1 * uH, 5, kTank, 2, 1),
          trimmerCover(1 * uH, 5, TankCapacitance{}, 1, 2), trimmerCover(1e-20, 5, kTank, 1e6, 2e6),
          trimmerCover(0, 5, kTank, 1e6, 2e6), trimmerCover(INFINITY, 5, kTank, 1e6, 2e6),
          trimmerCover(NAN, 5, kTank, 1e6, 2e6)}) {
        CHECK(cover.state == VerdictState::cannotTell);
        CHECK_FALSE(cover.sentence.empty());
        CHECK(turnsChange(cover, 5) == 0);
    }
}

TEST_CASE("at any inductance the turns of an air-core coil are the nearest") {
    for (double l = 20e-9; l < 3e-6; l *= 1.07) {
        const double radius = 4e-3, pitch = 0.6e-3;
        const auto off = [&](int n) { return std::fabs(airCoreInductance(radius, n * pitch, n) - l); };
        const int turns = airCoreTurns(radius, pitch, l);
        CHECK(off(turns) <= off(turns + 1));
        if (turns > 1) CHECK(off(turns) <= off(turns - 1));
    }
}
