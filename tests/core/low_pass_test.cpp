#include "core/proof/low_pass.h"

#include <catch2/catch.hpp>
#include <numbers>
#include <random>

#include "core/circuit/prototype.h"
#include "core/proof/as_measured.h"

using namespace ombrek;
using Kind = LadderElement::Kind;

namespace {

/// A Chebyshev low-pass of seven for 50 Ω that begins with a capacitor.
std::vector<FilterPart> sevenFor(double cutOff, double spread = 5) {
    const auto g = chebyshev(7, 0.1);
    const double w = 2 * std::numbers::pi * cutOff;
    std::vector<FilterPart> out;
    for (std::size_t i = 0; i < g.size(); ++i) {
        FilterPart p;
        const bool coil = i % 2 == 1;
        p.ref = (coil ? "L" : "C") + std::to_string(i + 1);
        p.element = {coil ? Kind::seriesL : Kind::shuntC, coil ? g[i] * 50 / w : g[i] / (50 * w)};
        p.spread = spread;
        out.push_back(p);
    }
    return out;
}

FilterQuestion question() {
    FilterQuestion q;
    q.carrier = 7.03e6;
    return q;
}

}  // namespace

TEST_CASE("a filter's band holds what single filters do, and its chance is their share") {
    const auto filter = sevenFor(8.2e6, 10);
    FilterQuestion q = question();
    const std::vector<double> frequencies{7.03e6, 14.06e6, 21.09e6};
    const FilterBand band = toleranceBand(filter, q, frequencies, 4000, 1);
    REQUIRE(band.trials == 4000);
    // Source: the same drawn apart from it, by the loss of one filter at one frequency.
    std::mt19937 dice(5);
    std::uniform_real_distribution<> part(-0.1, 0.1);
    std::vector<double> losses;
    for (int i = 0; i < 4000; ++i) {
        auto elements = elementsOf(filter);
        for (auto& e : elements) e.value *= 1 + part(dice);
        losses.push_back(insertionLoss(elements, 14.06e6, 50));
    }
    std::sort(losses.begin(), losses.end());
    // A percentile of 4000 is known to a fraction of a decibel.
    CHECK(band.low[1] == Approx(losses[200]).margin(0.4));
    CHECK(band.middle[1] == Approx(losses[2000]).margin(0.3));
    CHECK(band.high[1] == Approx(losses[3800]).margin(0.4));
    // The chance is one half where the limit is what the middle filter does.
    q.required = 6.0206 + band.middle[1] - band.middle[0];
    q.harmonics = 2;
    CHECK(toleranceBand(filter, q, {}, 4000, 2).chance == Approx(0.5).margin(0.05));
    q.required = 300;
    CHECK(toleranceBand(filter, q, {}, 500, 2).chance == 0);
}

TEST_CASE("a run of trials can be stopped and says how far it came") {
    int asked = 0;
    const FilterBand band =
        toleranceBand(sevenFor(8e6), question(), {7e6}, 10000, 1, [&](double) { return ++asked < 4; });
    CHECK(band.trials == 750);
    CHECK(toleranceBand(sevenFor(8e6), question(), {7e6}, 10000, 1, [](double) { return false; }).trials ==
          0);
}

TEST_CASE("the harmonics of a final are those of its pulses, from the safe side") {
    // Source: Fourier series of a sawtooth and of a square wave: 1/n.
    CHECK(harmonicOf(Final::single, 2) == Approx(6.0206).margin(1e-3));
    CHECK(harmonicOf(Final::single, 3) == Approx(9.5424).margin(1e-3));
    CHECK(harmonicOf(Final::pushPull, 3) == Approx(9.5424).margin(1e-3));
    CHECK(harmonicOf(Final::pushPull, 2) == Approx(26.0206).margin(1e-3));
}

TEST_CASE("the coil to squeeze gives what is said of it, and no other coil gives more") {
    const auto filter = sevenFor(9.5e6);
    FilterQuestion q = question();
    for (const auto aim : {SqueezeFor::suppression, SqueezeFor::power}) {
        const auto advice = whichToSqueeze(filter, q, aim);
        const FilterFigures before = filterFigures(elementsOf(filter), q);
        for (const Squeeze& s : advice) {
            CHECK(std::abs(s.percent) <= 10);
            const FilterFigures after = filterFigures(s.filter, q);
            CHECK(after.loss == Approx(s.after.loss));
            if (aim == SqueezeFor::suppression) {
                CHECK(after.worstMargin > before.worstMargin);
                CHECK(after.loss <= before.loss + 0.2 + 1e-9);
                CHECK(after.worstMargin <= advice[0].after.worstMargin + 1e-9);
            } else {
                CHECK(after.loss < before.loss);
                CHECK(after.worstMargin >= std::min(before.worstMargin, 3.0) - 1e-9);
            }
        }
    }
    // Its corner lies too high: more inductance suppresses more, so a coil is squeezed.
    const auto more = whichToSqueeze(filter, q, SqueezeFor::suppression);
    REQUIRE_FALSE(more.empty());
    CHECK(more[0].percent > 0);
    // The same coils, measured a fifth over what is wanted: none of them is squeezed further.
    auto large = filter;
    for (FilterPart& part : large) {
        part.measured = true;
        part.spread = 2;
        part.wanted = part.element.value / 1.2;
    }
    for (const Squeeze& s : whichToSqueeze(large, q, SqueezeFor::suppression)) CHECK(s.percent < 0);
    for (FilterPart& part : large) part.wanted = part.element.value * 1.2;
    for (const Squeeze& s : whichToSqueeze(large, q, SqueezeFor::power)) CHECK(s.percent > 0);
}

TEST_CASE("what a measured filter's curve says of its parts", "[simulation]") {
    std::mt19937 dice(3);
    std::normal_distribution<> noise(0, 1);
    const auto parts = sevenFor(8.2e6, 5);
    const std::vector<int> turns{0, 16, 0, 18, 0, 16, 0};
    int told = 0, all = 0;
    for (int i = 0; i < 30; ++i) {
        auto real = elementsOf(parts);
        for (auto& e : real) e.value *= 1 + 0.03 * std::uniform_real_distribution<>(-1, 1)(dice);
        std::string wrong;
        if (i % 3 == 1) {
            const std::size_t coil = std::size_t(1 + 2 * (i % 2));
            const int more = i % 4 < 2 ? 1 : -1;
            real[coil].value *= std::pow(1 + double(more) / turns[coil], 2);
            wrong = parts[coil].ref;
        }
        if (i % 3 == 2) {
            const std::size_t cap = std::size_t(2 * (i % 4));
            real[cap].value *= i % 2 ? 0.1 : 10;
            wrong = parts[cap].ref;
        }
        std::vector<FilterPoint> points;
        for (double f = 1e6; f <= 25e6; f += 0.25e6) {
            const LadderSweep s = sweep(real, {&f, 1}, 50, 50);
            points.push_back({f, std::hypot(s.s21re[0], s.s21im[0]) * std::pow(10, 0.01 * noise(dice)),
                              std::hypot(s.s11re[0], s.s11im[0]) + 0.01 * noise(dice)});
        }
        const auto stories = storiesOf(parts, turns, points, 50, 50);
        REQUIRE_FALSE(stories.empty());
        ++all;
        // A filter is the same from both ends: a part may be taken for its mirror image.
        const auto mirrored = [&](const std::string& ref) {
            return ref.empty() ? ref : ref[0] + std::to_string(8 - (ref[1] - '0'));
        };
        told += stories[0].ref == wrong || stories[0].ref == mirrored(wrong);
        INFO(i << " " << wrong << ": " << stories[0].ref << " " << stories[0].what << " " << stories[0].odds);
        CHECK(stories[0].apart < 1.5);
        double sum = 0;
        for (const auto& s : stories) sum += s.odds;
        CHECK(sum == Approx(1));
    }
    INFO(told << " of " << all);
    CHECK(told >= 24);
    CHECK(storiesOf({}, {}, {}, 50, 50).empty());
}
