#include "core/antenna/coupler.h"

#include <catch2/catch.hpp>
#include <numbers>
#include <random>

#include "core/antenna/load_text.h"

using namespace ombrek;
using Complex = std::complex<double>;

namespace {

/// Impedance at the rig with the knobs as they stand, by the formulas of a series and a parallel connection.
Complex atRig(const Coupler& c, double l, double c1, double c2, bool atLoad, Complex load, double f) {
    const double w = 2 * std::numbers::pi * f;
    const auto coil = [&] { return Complex(w * l / c.coilQ, w * l); };
    const auto cap = [&](double v) { return Complex(1 / (w * v * c.capacitorQ), -1 / (w * v)); };
    const auto across = [](Complex a, Complex b) { return a * b / (a + b); };
    switch (c.kind) {
        case Coupler::Kind::t:
            return cap(c1) + across(coil(), load + cap(c2));
        case Coupler::Kind::pi:
            return across(cap(c1), coil() + across(cap(c2), load));
        default: {
            if (atLoad) return coil() + (c1 > 0 ? across(cap(c1), load) : load);
            const Complex z = coil() + load;
            return c1 > 0 ? across(cap(c1), z) : z;
        }
    }
}

double swr(Complex z, double r) {
    const double g = std::abs((z - r) / (z + r));
    return (1 + g) / (1 - g);
}

/// The least standing wave ratio of all settings, by trying.
double bruteForce(const Coupler& c, Complex load, double f) {
    const int n = 90;
    double best = 1e9;
    const auto pick = [&](const PartRange& r, int i) {
        return r.low * std::pow(r.high / r.low, double(i) / (n - 1));
    };
    for (int i = 0; i < n; ++i) {
        for (int j = 0; j < n; ++j) {
            for (int k = 0; k < (c.kind == Coupler::Kind::l ? 2 : n); ++k) {
                const bool l = c.kind == Coupler::Kind::l;
                const Complex z =
                    atRig(c, pick(c.l, i), pick(c.c1, j), l ? 0 : pick(c.c2, k), l && k == 1, load, f);
                best = std::min(best, swr(z, c.source));
            }
        }
    }
    return best;
}

}  // namespace

TEST_CASE("which loads a coupler reaches agrees with trying all settings", "[reference]") {
    // Source: exhaustive search over a grid of 90 settings a part.
    std::mt19937 dice(7);
    const auto ratio = [&](double low, double high) {
        return low * std::pow(high / low, std::uniform_real_distribution<>(0, 1)(dice));
    };
    int reached = 0, not_ = 0, unclear = 0;
    for (int i = 0; i < 45; ++i) {
        Coupler c;
        c.kind = Coupler::Kind(i % 3);
        c.l = {0.2e-6, ratio(2e-6, 20e-6)};
        c.c1 = {10e-12, ratio(100e-12, 800e-12)};
        c.c2 = {10e-12, ratio(100e-12, 800e-12)};
        const double r = ratio(8, 2000), x = r * std::uniform_real_distribution<>(-3, 3)(dice);
        const double f = ratio(3.5e6, 28e6);
        const CouplerMatch m = match(c, {r, x}, f, 5);
        const double tried = bruteForce(c, {r, x}, f);
        INFO(int(c.kind) << " " << r << " " << x << " at " << f << ": tried " << tried << ", found "
                         << m.swr);
        CHECK(m.swr <= tried * 1.001);  // never worse than trying
        const double there = swr(atRig(c, m.l, m.c1, m.c2, m.atLoad, {r, x}, f), c.source);
        CHECK(there == Approx(m.swr).epsilon(1e-3));  // and the settings do what is said of them
        for (const auto& [value, range] : {std::pair{m.l, c.l}, std::pair{m.c1, c.c1}}) {
            CHECK(value >= range.low * 0.999999);
            CHECK(value <= range.high * 1.000001);
        }
        if (tried > 1.4 && tried < 1.6)
            ++unclear;
        else if (m.reaches == (tried <= 1.5))
            (m.reaches ? reached : not_)++;
        else if (m.swr > 1.4)
            ++unclear;  // the grid is too coarse for it
        else
            CHECK(tried < 2.5);
    }
    CHECK(reached > 10);
    CHECK(not_ > 5);
    CHECK(unclear < 10);
}

TEST_CASE("a coupler's loss is what its resistances take, and its voltages are of the same currents") {
    Coupler c;
    c.l = {0.1e-6, 25e-6};
    c.c1 = c.c2 = {10e-12, 240e-12};
    const Complex load(35, -120);
    const double f = 7.03e6, w = 2 * std::numbers::pi * f;
    const CouplerMatch m = match(c, load, f, 5);
    REQUIRE(m.reaches);
    CHECK(m.swr == Approx(1).margin(1e-3));
    const double taken = std::pow(m.coil.amps, 2) * w * m.l / c.coilQ +
                         std::pow(m.first.amps, 2) / (w * m.c1 * c.capacitorQ) +
                         std::pow(m.second.amps, 2) / (w * m.c2 * c.capacitorQ);
    const double left = std::pow(m.second.amps, 2) * load.real();
    CHECK(taken + left == Approx(5).epsilon(1e-3));
    CHECK(m.lossDb == Approx(10 * std::log10(5 / left)).epsilon(1e-3));
    // V = I·X (facts of the trade), peak of a sine.
    CHECK(m.first.volts == Approx(m.first.amps / (w * m.c1) * std::sqrt(2)).epsilon(1e-3));
    CHECK(std::isinf(m.flashOver));
    CHECK_THAT(m.sentence, Catch::Contains("cannot tell"));
    c.volts = 100;
    const CouplerMatch held = match(c, load, f, 5);
    CHECK(held.flashOver ==
          Approx(5 * std::pow(100 / std::max(held.first.volts, held.second.volts), 2)).epsilon(1e-6));
}

TEST_CASE("an L network of the textbook: 200 ohms from 50 at 7 MHz") {
    // Source: L-network equations, any radio handbook: Q = √(R2/R1 − 1) = √3; X_L = Q·R1 = 86.6 Ω, X_C = R2/Q
    // = 115.5 Ω; with parts that lose nothing.
    Coupler c;
    c.kind = Coupler::Kind::l;
    c.coilQ = c.capacitorQ = 1e7;
    c.l = {0, 10e-6};
    c.c1 = {0, 1000e-12};
    const CouplerMatch m = match(c, 200, 7e6, 1);
    const double w = 2 * std::numbers::pi * 7e6;
    REQUIRE(m.reaches);
    CHECK(m.atLoad);
    CHECK(w * m.l == Approx(86.60).epsilon(1e-3));
    CHECK(1 / (w * m.c1) == Approx(115.47).epsilon(1e-3));
    CHECK(m.lossDb == Approx(0).margin(1e-4));
}

TEST_CASE("a load out of reach says so, absurd questions are refused") {
    Coupler c;
    c.kind = Coupler::Kind::pi;
    c.l = {1e-6, 2e-6};
    c.c1 = c.c2 = {10e-12, 50e-12};
    const CouplerMatch m = match(c, {3, -900}, 3.5e6, 5);
    CHECK_FALSE(m.reaches);
    CHECK_THAT(m.sentence, Catch::Contains("does not reach"));
    CHECK_THROWS_AS(match(c, {0, 10}, 7e6, 5), std::domain_error);
    CHECK_THROWS_AS(match(c, 50, 0, 5), std::domain_error);
    CHECK_THROWS_AS(match({}, 50, 7e6, 5), std::domain_error);
}

TEST_CASE("loads as people write them") {
    CHECK(parseLoad("35-120j").value() == Complex(35, -120));
    CHECK(parseLoad("35 - j120").value() == Complex(35, -120));
    CHECK(parseLoad("35\u2212j120 \u03a9").value() == Complex(35, -120));
    CHECK(parseLoad("1k2+300i").value() == Complex(1200, 300));
    CHECK(parseLoad("50").value() == Complex(50, 0));
    CHECK(parseLoad("35 -120").value() == Complex(35, -120));
    CHECK(parseLoad("12,5+j3,5").value() == Complex(12.5, 3.5));
    CHECK(parseLoad("j40").value() == Complex(0, 40));
    CHECK(parseLoad("1e2-2e1j").value() == Complex(100, -20));
    for (const char* wrong : {"", "j", "abc", "50 V", "--3", "3+4+5k", "nan", "50-jj"}) {
        INFO(wrong);
        const auto read = parseLoad(wrong);
        CHECK((!read || std::isfinite(std::abs(*read))));
    }
    CHECK_FALSE(parseLoad("").has_value());
    CHECK_FALSE(parseLoad("abc").has_value());
    CHECK_FALSE(parseLoad("50 V").has_value());
}
