#include <catch2/catch.hpp>
#include <cmath>
#include <complex>
#include <numbers>

#include "core/coil/air_core.h"
#include "core/coil/loss.h"
#include "core/coil/reach.h"
#include "core/coil/winding.h"

using namespace ombrek;

namespace {

constexpr double kPi = std::numbers::pi;

/// J_n of a complex argument by Bessel's integral, (1/π)∫0^π cos(nθ − z sin θ) dθ, with the trapezoid rule,
/// which converges faster than any power for a periodic integrand. Source: Abramowitz & Stegun 9.1.21.
std::complex<double> besselByIntegral(int n, std::complex<double> z) {
    constexpr int steps = 4000;
    std::complex<double> sum = 0;
    for (int i = 0; i < steps; ++i) {
        const double theta = kPi * (i + 0.5) / steps;
        sum += std::cos(double(n) * theta - z * std::sin(theta));
    }
    return sum / double(steps);
}

/// Nagaoka's coefficient exactly, by complete elliptic integrals. Source: H. Nagaoka 1909.
/// K = 4/(3π·k')·[(k'²/k²)·(K(k) − E(k)) + E(k) − k], k² = D²/(D² + l²).
double nagaoka(double diameter, double length) {
    const double k = diameter / std::hypot(diameter, length), kk = 1 - k * k;
    const double first = std::comp_ellint_1(k), second = std::comp_ellint_2(k);
    return 4 / (3 * kPi * std::sqrt(kk)) * (kk / (k * k) * (first - second) + second - k);
}

/// Current-sheet inductance with Nagaoka's coefficient [H].
double sheetInductance(double radius, double length, int turns) {
    const double mu0 = 4e-7 * kPi;
    return mu0 * turns * turns * kPi * radius * radius / length * nagaoka(2 * radius, length);
}

MagneticCore ring(double od, double id, double h, double al) {
    MagneticCore out;
    out.outerDiameter = od;
    out.innerDiameter = id;
    out.height = h;
    out.al = al;
    return out;
}

}  // namespace

TEST_CASE("skin depth in copper", "[reference]") {
    // Source: any text on electromagnetics; 20.9 µm at 10 MHz for 1.7241e-8 Ω·m (IEC 60028).
    CHECK(skinDepth(10e6) == Approx(20.9e-6).epsilon(0.002));
    CHECK(skinDepth(1e6) / skinDepth(4e6) == Approx(2));
    CHECK_THROWS_AS(skinDepth(0), std::domain_error);
}

TEST_CASE("round-wire resistance agrees with an independent evaluation of the Bessel functions",
          "[reference]") {
    for (const double diameter : {0.1e-3, 0.255e-3, 0.405e-3, 0.812e-3}) {
        for (const double frequency : {1e3, 1e5, 1e6, 3.5e6, 7e6, 14e6, 21e6, 30e6}) {
            const Wire wire{diameter, diameter};
            const double x = diameter / 2 / skinDepth(frequency);
            if (x > 30) continue;  // beyond, the integral's cosh needs more digits than a double has
            const std::complex<double> z(x, -x);
            const double exact = (z / 2.0 * besselByIntegral(0, z) / besselByIntegral(1, z)).real();
            INFO(diameter << " m at " << frequency << " Hz");
            CHECK(acResistanceRatio(wire, frequency) == Approx(exact).epsilon(1e-9));
        }
    }
}

TEST_CASE("round-wire resistance has the known limits", "[reference]") {
    // Thin wire: 1 + x⁴/48 with x = a/δ; thick wire: x/2 + 1/4. Source: series and asymptote of the Bessel
    // solution.
    const double delta = skinDepth(1e6);
    CHECK(acResistanceRatio({0.4 * delta, 0}, 1e6) == Approx(1 + std::pow(0.2, 4) / 48).epsilon(1e-6));
    CHECK(acResistanceRatio({200 * delta, 0}, 1e6) == Approx(50.25).epsilon(1e-3));
    CHECK(acResistanceRatio({20000 * delta, 0}, 1e6) == Approx(5000.25).epsilon(1e-6));
    double last = 1;
    for (double f = 1e3; f < 1e9; f *= 1.5) {
        const double ratio = acResistanceRatio({0.4e-3, 0.45e-3}, f);
        CHECK(ratio >= last);
        last = ratio;
    }
}

TEST_CASE("copper Q is the reactance over the wire's resistance") {
    const Wire wire = enamelledWire(awgDiameter(28));
    const double r = acResistance(wire, 0.3, 21e6);
    CHECK(copperQ(1.1e-6, wire, 0.3, 21e6) == Approx(2 * kPi * 21e6 * 1.1e-6 / r));
    CHECK_THROWS_AS(copperQ(0, wire, 0.3, 21e6), std::domain_error);
}

TEST_CASE("flux density by Faraday's law", "[reference]") {
    // Source: V = 4.44·f·N·B·Ae, any text on transformers. 10 V on 10 turns at 7 MHz on 0.1 cm²: 3.2 mT.
    const MagneticCore core = ring(12e-3, 7e-3, 4e-3, 4e-9);
    CHECK(coreArea(core) == Approx(10e-6));
    CHECK(fluxDensity(core, 10, 10, 7e6) == Approx(10 / (4.44 * 7e6 * 10 * 10e-6)));
    CHECK_THROWS_AS(fluxDensity(core, 0, 10, 7e6), std::domain_error);
}

TEST_CASE("the flux ceiling goes through its rule-of-thumb points", "[reference]") {
    // From memory of handbook tables for powder cores.
    for (const auto& [f, b] : {std::pair{1e6, 15e-3}, {7e6, 5.7e-3}, {14e6, 4.2e-3}, {28e6, 3.0e-3}})
        CHECK(fluxCeiling(f) == Approx(b));
    CHECK(fluxCeiling(21e6) < 4.2e-3);
    CHECK(fluxCeiling(21e6) > 3.0e-3);
    CHECK(fluxCeiling(50e6) < 3.0e-3);
    CHECK(fluxCeiling(0.5e6) > 15e-3);
}

TEST_CASE("drift with temperature is the table's coefficient") {
    MagneticCore core = ring(12e-3, 7e-3, 4e-3, 4e-9);
    core.tempco = 35;  // ppm/K
    CHECK(driftPercent(core, 20) == Approx(0.07));
}

TEST_CASE("Wheeler's formula is within 1 % of the exact current sheet", "[reference]") {
    // Source of the bound: Wheeler 1928, 1 % for a length beyond 0.8 of the radius.
    for (const double radius : {3e-3, 6e-3, 12.7e-3}) {
        for (const double ratio : {0.81, 1.0, 1.5, 2.0, 3.0, 5.0, 10.0}) {
            INFO("length over radius " << ratio);
            const double exact = sheetInductance(radius, ratio * radius, 12);
            CHECK(airCoreInductance(radius, ratio * radius, 12) == Approx(exact).epsilon(0.0101));
        }
    }
    CHECK_THROWS_AS(airCoreInductance(1e-3, 0, 3), std::domain_error);
}

TEST_CASE("Nagaoka's coefficient itself has its tabled values", "[reference]") {
    // Source: Nagaoka 1909, table of K against diameter over length (from memory): 1.0 → 0.6884, 0.5 →
    // 0.8181.
    CHECK(nagaoka(1, 1) == Approx(0.6884).margin(0.0001));
    CHECK(nagaoka(0.5, 1) == Approx(0.8181).margin(0.0001));
}

TEST_CASE("turns of an air-core coil are the nearest whole number") {
    const int turns = airCoreTurns(4e-3, 0.6e-3, 0.5e-6);
    const double off = std::fabs(airCoreInductance(4e-3, 0.6e-3 * turns, turns) - 0.5e-6);
    CHECK(off <= std::fabs(airCoreInductance(4e-3, 0.6e-3 * (turns + 1), turns + 1) - 0.5e-6));
    CHECK(off <= std::fabs(airCoreInductance(4e-3, 0.6e-3 * (turns - 1), turns - 1) - 0.5e-6));
}

TEST_CASE("the chance to reach: sure, impossible, and the same for the same seed") {
    TankCapacitance tank{33e-12, 2e-12, 5e-12, 30e-12};
    const double middle = resonance(1.1e-6, tank.at(0.5));
    const ReachChance sure = chanceOfReach(1.1e-6, tank, {1, 1, 1, 1}, middle * 0.999, middle * 1.001);
    CHECK(sure.reaches == 1);
    CHECK(sure.healthy == 1);
    CHECK(chanceOfReach(1.1e-6, tank, {}, middle * 2, middle * 2.01).reaches == 0);
    // At the very end of the travel with even tolerances about half of the parts reach it.
    const double end = resonance(1.1e-6, tank.at(0));
    const ReachChance half = chanceOfReach(1.1e-6, tank, {}, end, end);
    CHECK(half.reaches == Approx(0.5).margin(0.05));
    CHECK(half.healthy < half.reaches);
    CHECK(chanceOfReach(1.1e-6, tank, {}, end, end).reaches == half.reaches);
    CHECK(chanceOfReach(0, tank, {}, end, end).trials == 0);
}
