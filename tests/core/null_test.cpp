#include "core/adjust/null.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <functional>

using namespace ombrek;

namespace {

/// Read where it says, until it settles. @return readings taken
int follow(const std::function<double(double)>& meter, NullEstimate& out, int most = 40) {
    std::vector<AdjusterReading> readings;
    for (int i = 0; i < most; ++i) {
        out = estimateNull(readings);
        if (out.state == VerdictState::pass || out.state == VerdictState::fail) return i;
        readings.push_back({out.nextPosition, meter(out.nextPosition)});
    }
    out = estimateNull(readings);
    return most;
}

}  // namespace

// A bridge out of balance reads the distance from its balance on a floor (any text on bridges); a detector of
// power reads the square of it.
TEST_CASE("a null is found wherever it lies, linear or square, on a floor") {
    for (double at = 0.05; at <= 0.96; at += 0.07) {
        for (const bool square : {false, true}) {
            const auto meter = [&](double x) {
                const double off = std::fabs(x - at);
                return 0.02 + (square ? off * off : off);
            };
            NullEstimate out;
            const int readings = follow(meter, out);
            INFO("at " << at << (square ? " square" : " linear"));
            REQUIRE(out.state == VerdictState::pass);
            CHECK(std::fabs(out.position - at) <= kNullWidth);
            CHECK(readings <= 16);
        }
    }
}

TEST_CASE("a null beyond the end is an end stop, not a null") {
    NullEstimate out;
    follow([](double x) { return 1 + x; }, out);
    CHECK(out.state == VerdictState::fail);
    CHECK(out.sentence.find("lower end") != std::string::npos);
    follow([](double x) { return 2 - x; }, out);
    CHECK(out.state == VerdictState::fail);
}

TEST_CASE("a null passes only where the adjuster stands, and absurd readings prove nothing") {
    const std::vector<AdjusterReading> found{{0.45, 0.3}, {0.5, 0.1}, {0.55, 0.3}};
    CHECK(estimateNull(found).state == VerdictState::doubtful);  // it stands at 0.55
    auto back = found;
    back.push_back({0.5, 0.1});
    CHECK(estimateNull(back).state == VerdictState::pass);
    // Turned back, it reads more than it did: the null went elsewhere.
    back.back().reading = 0.5;
    CHECK(estimateNull(back).state != VerdictState::pass);
    CHECK(estimateNull({}).state == VerdictState::notDone);
    CHECK(estimateNull({{0.5, NAN}, {0.5, INFINITY}, {7, 1}}).state != VerdictState::pass);
    CHECK(estimateNull({{0.5, 1}, {0.5, 1}, {0.5, 1}}).state != VerdictState::pass);
}

TEST_CASE("a meter that reads the same everywhere shows no null") {
    NullEstimate out;
    follow([](double) { return 1.0; }, out);
    CHECK(out.state != VerdictState::pass);
}

TEST_CASE("noise on a flat meter is no null") {
    std::uint64_t seed = 3;
    for (int bench = 0; bench < 50; ++bench) {
        NullEstimate out;
        follow(
            [&](double) {
                seed = seed * 6364136223846793005ULL + 1442695040888963407ULL;
                return 1.0 + 0.01 * double(seed >> 40) / double(1 << 24);
            },
            out);
        CHECK(out.state != VerdictState::pass);
    }
}
