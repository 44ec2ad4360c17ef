#include <catch2/catch.hpp>

#include "core/antenna/wire_antenna.h"
#include "core/proof/arrives.h"
#include "core/proof/exposure.h"
#include "core/proof/heat.h"
#include "core/proof/pads.h"
#include "core/proof/power.h"

using namespace ombrek;

namespace {
Link analyser(double most = 20) {
    Link out;
    out.name = "analyser";
    out.mostDbm = most;
    return out;
}
Link pad(double decibels, double watts) {
    Link out;
    out.name = decimals(decibels, 0) + " dB pad";
    out.attenuation = decibels;
    out.watts = watts;
    return out;
}
}  // namespace

TEST_CASE("what arrives at an analyser through a pad, and what is refused") {
    const auto good = whatArrives(5, {pad(30, 10), analyser()});
    CHECK(good.state == VerdictState::pass);
    // 5 W = 36.99 dBm (conversion of units).
    CHECK(good.arrivals.at(1).dbm == Approx(6.99).margin(0.005));
    CHECK_THAT(good.sentence,
               Catch::Contains("37 dBm \u2212 30 dB = 6.99") || Catch::Contains("\u2212 30 dB"));
    const auto deadly = whatArrives(5, {analyser()});
    CHECK(deadly.state == VerdictState::fail);
    CHECK_THAT(deadly.sentence, Catch::Contains("Do not key"));
    const auto near = whatArrives(5, {pad(20, 10), analyser()});
    CHECK(near.state == VerdictState::doubtful);
    const auto brief = whatArrives(5, {pad(30, 2), analyser()});
    CHECK(brief.state == VerdictState::doubtful);
    // Six seconds of two watts, less what it takes away meanwhile: 12 J / 3 W.
    CHECK(brief.seconds == Approx(4).margin(0.1));
    CHECK(brief.rest == Approx(5 * brief.seconds));
    CHECK(whatArrives(50, {pad(30, 2), analyser()}).state == VerdictState::fail);
    // More than three times what it is rated at is keyed into no pad that says no more of itself.
    CHECK(whatArrives(7.2, {pad(30, 2), analyser()}).state == VerdictState::fail);
}

TEST_CASE("a wattmeter that ends too early, and limits that nobody said") {
    Link meter;
    meter.name = "wattmeter";
    meter.fullScale = 10;
    const auto ends = whatArrives(24, {meter});
    CHECK(ends.state == VerdictState::fail);
    CHECK_THAT(ends.sentence, Catch::Contains("ends at 10") && Catch::Contains("expect 24"));
    Link unknown;
    unknown.name = "old box";
    CHECK(whatArrives(5, {unknown}).state == VerdictState::cannotTell);
    CHECK(whatArrives(NAN, {analyser()}).state == VerdictState::cannotTell);
    CHECK(whatArrives(0, {analyser()}).state == VerdictState::cannotTell);
    CHECK(whatArrives(5, {}).state == VerdictState::cannotTell);
    // A safe meter does not make a pad safe that nobody knows.
    Link dumb = pad(40, 0);
    CHECK(whatArrives(5, {dumb, analyser()}).state == VerdictState::cannotTell);
}

TEST_CASE("pads, a tap and a bridge of preferred values", "[reference]") {
    // Source: resistive attenuator design equations, handbook worked examples (from memory): 10 dB at 50 ohm
    // 96.25/71.15/96.25 in pi, 25.97/35.14/25.97 in T; 30 dB 53.27/789.8.
    const auto ten = designPad(PadShape::pi, 10, 50, 5, Series::e96).value();
    CHECK(ten.resistors[0].exact == Approx(96.25).epsilon(1e-4));
    CHECK(ten.resistors[1].exact == Approx(71.15).epsilon(1e-4));
    const auto t = designPad(PadShape::t, 10, 50, 5, Series::e96).value();
    CHECK(t.resistors[0].exact == Approx(25.97).epsilon(2e-4));
    CHECK(t.resistors[1].exact == Approx(35.14).epsilon(2e-4));
    const auto thirty = designPad(PadShape::pi, 30, 50, 5, Series::e24).value();
    CHECK(thirty.resistors[0].exact == Approx(53.27).epsilon(2e-4));
    CHECK(thirty.resistors[1].exact == Approx(789.8).epsilon(2e-4));
    // All of the power that does not leave stays in its resistors.
    for (const auto& p : {ten, t}) {
        double sum = 0;
        for (const auto& r : p.resistors) sum += r.watts;
        CHECK(sum == Approx(5 * (1 - std::pow(10, -p.attenuation / 10))).epsilon(0.01));
        CHECK(p.attenuation == Approx(10).margin(0.15));
        CHECK(p.returnLoss > 30);
    }
    const auto tap = designTap(40, 50, 5, Series::e24).value();
    CHECK(tap.resistors[0].exact == Approx(4950));
    CHECK(tap.attenuation == Approx(40).margin(0.4));
    CHECK_FALSE(designPad(PadShape::pi, 0, 50, 5, Series::e24).has_value());
    CHECK_FALSE(designPad(PadShape::pi, 10, -50, 5, Series::e24).has_value());
    CHECK(designBridge(50, 1, Series::e96).value().resistors.size() == 3);
    // SWR 1.5 is a return loss of 13.98 dB (definition).
    CHECK(bridgeNull(1, 0.2).value().returnLoss == Approx(13.979).epsilon(1e-3));
    CHECK(bridgeNull(1, 0.2).value().swr == Approx(1.5));
    CHECK(bridgeNull(3, 0.1, 0.3).value().atLeast);
    CHECK_FALSE(bridgeNull(1, 3).has_value());
    CHECK_FALSE(bridgeNull(0, 0).has_value());
}

TEST_CASE("heat: what goes in and does not leave, at each mode's duty") {
    HeatQuestion q;
    q.volts = 13.8;
    q.amps = 0.8;
    q.watts = 5;
    q.sink = 20;
    q.junctionToCase = 5;
    const auto h = heatOf(q).value();
    CHECK(h.dissipated == Approx(13.8 * 0.8 - 5));
    CHECK(h.efficiency == Approx(5 / 11.04));
    CHECK(h.modes.back().caseDegrees == Approx(25 + h.dissipated * 20));
    CHECK(h.modes.back().junctionDegrees == Approx(25 + h.dissipated * 25));
    CHECK(h.modes[0].caseDegrees < h.modes.back().caseDegrees);
    q.sink = 0;
    CHECK(std::isnan(heatOf(q)->modes[0].caseDegrees));
    q.watts = 20;
    CHECK_FALSE(heatOf(q).has_value());
    CHECK_FALSE(heatOf({}).has_value());
}

TEST_CASE("how long the key may be down, from two temperatures") {
    // Source: T = Ta + rise·(1 − e^(−t/τ)) put in: rise 80 K, τ 100 s; 25 + 80·(1 − e^(−t/100)) = 85 at 138.6
    // s.
    const auto at = [](double t) { return 25 + 80 * (1 - std::exp(-t / 100)); };
    CHECK(keyDownTo(25, 30, at(30), 60, at(60), 85).value() == Approx(138.63).epsilon(0.01));
    CHECK(std::isinf(keyDownTo(25, 30, at(30), 60, at(60), 120).value()));
    // A straight line is taken as one.
    CHECK(keyDownTo(25, 10, 35, 20, 45, 85).value() == Approx(60).epsilon(0.01));
    CHECK_FALSE(keyDownTo(25, 30, 20, 60, 45, 85).has_value());
    CHECK_FALSE(keyDownTo(25, 30, 50, 60, 45, 85).has_value());
    CHECK(withFin(20, 20) == Approx(10));
    CHECK(plateResistance(0.005) == Approx(10));
}

TEST_CASE("a distance to keep, and what cannot be told") {
    // Source: the formula by hand: 7 MHz, 180/49 mW/cm² = 36.7 W/m²; 100 W, 2.15 dBi, all the time, ground
    // ×4: √(4·100·1.641/(4π·36.7)) = 1.19 m.
    const auto e = exposureOf(100, 2.15, 1, 7e6).value();
    CHECK(e.limit == Approx(36.73).epsilon(1e-3));
    CHECK(e.metres == Approx(1.193).epsilon(2e-3));
    CHECK_THAT(e.sentence, Catch::Contains("estimate"));
    CHECK_FALSE(exposureOf(100, 0, 1, 1e9).has_value());
    CHECK_FALSE(exposureOf(-1, 0, 1, 7e6).has_value());
    CHECK_FALSE(exposureOf(1, 0, 2, 7e6).has_value());
}

TEST_CASE("a wire against ground: a quarter wave shows 36.5 ohms of radiation", "[reference]") {
    // Source: any antenna text: 73.1 Ω of a half-wave dipole, half of it over ground.
    const double f = 7.1e6, quarter = 299792458 / f / 4;
    CHECK(radiationResistance(quarter, f) == Approx(36.55).epsilon(5e-3));
    const auto z = wireImpedance(quarter, 0.001, f);
    CHECK(z.real() == Approx(36.5).epsilon(0.05));
    CHECK(wireImpedance(2 * quarter * 0.98, 0.001, f).real() > 1000);  // its end is a high impedance
    CHECK(wireImpedance(quarter / 3, 0.001, f).imag() < -100);
    CHECK(wireImpedance(quarter, 0.001, f, 20).real() == Approx(z.real() + 20));
    CHECK_THROWS_AS(wireImpedance(0, 0.001, f), std::domain_error);
}
