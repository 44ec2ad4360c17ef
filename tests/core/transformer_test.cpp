#include <catch2/catch.hpp>
#include <cmath>
#include <numeric>
#include <random>

#include "core/coil/transformer.h"
#include "core/coil/twisted_bundle.h"

using namespace ombrek;

TEST_CASE("impedance goes with the square of the turns, reactance is held against it") {
    MagneticCore core;
    core.al = 350e-9;
    // 10 turns at 3.5 MHz: 2π·3.5 MHz·35 µH = 770 Ω, 15 times 50 Ω. Source: definition of AL.
    TransformerCheck check = checkTransformer(core, 10, 5, 50, 3.5e6);
    CHECK(check.impedanceRatio == 4);
    CHECK(check.secondary == Approx(12.5));
    CHECK(check.reactance == Approx(769.7).epsilon(1e-3));
    CHECK(check.state == VerdictState::pass);
    check = checkTransformer(core, 5, 5, 50, 3.5e6);  // 192 Ω: 3.8 times
    CHECK(check.state == VerdictState::fail);
    CHECK(check.sentence.find("at least 6 turns") != std::string::npos);
    CHECK_THROWS_AS(checkTransformer(core, 5, 0, 50, 3.5e6), std::domain_error);
    CHECK_THROWS_AS(checkTransformer(core, 0, 5, 50, 3.5e6), std::domain_error);
}

TEST_CASE("counts as they are seen before the tails are parted") {
    // The case seen by builders: true 30-3-3-3, seen 29-3-3-4 (common practice).
    CHECK(turnsAsSeen({30, 3, 3, 3}) == std::vector<int>{29, 3, 3, 4});
    CHECK(turnsAsSeen({26}) == std::vector<int>{26});
    CHECK(turnsAsSeen({}).empty());
    const auto seen = turnsAsSeen({14, 4});
    CHECK(std::accumulate(seen.begin(), seen.end(), 0) == 18);
}

TEST_CASE("every way a bundle may be twisted is told in the tests promised, and two wires in one") {
    CHECK(TwistedBundle::mostTests(2) == 1);
    CHECK(TwistedBundle::mostTests(3) == 3);
    CHECK(TwistedBundle::mostTests(4) == 5);
    for (int n = 2; n <= 6; ++n) {
        std::vector<int> truth(static_cast<std::size_t>(n));
        std::iota(truth.begin(), truth.end(), 0);
        do {
            TwistedBundle bundle(n);
            int tests = 0;
            while (!bundle.known()) {
                const WireTest test = bundle.next();
                REQUIRE_FALSE(test.others.empty());
                const int other = truth[std::size_t(test.lead)];
                bundle.answer(std::find(test.others.begin(), test.others.end(), other) != test.others.end());
                REQUIRE(++tests <= TwistedBundle::mostTests(n));
            }
            REQUIRE(bundle.otherEnds() == truth);
        } while (std::next_permutation(truth.begin(), truth.end()));
    }
    CHECK_THROWS_AS(TwistedBundle(1), std::domain_error);
}
