#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/air/receive_comparison.h"

using namespace ombrek;

TEST_CASE("what a builder hears is a difference in decibels") {
    CHECK(readComparison("equal")->decibels == 0);
    CHECK(readComparison(" Weaker ")->decibels < 0);
    CHECK(readComparison("much weaker")->decibels < readComparison("weaker")->decibels);
    CHECK(readComparison("not heard")->decibels < readComparison("much weaker")->decibels);
    // An S-unit is 6 dB (IARU Region 1 recommendation R.1).
    CHECK(readComparison("S5 S7")->decibels == Approx(-12));
}

TEST_CASE("levels and differences are read, nonsense is not") {
    CHECK(readComparison("-73 -70 dBm")->decibels == Approx(-3));
    CHECK(readComparison("-6 dB")->decibels == Approx(-6));
    for (const char* wrong : {"", "loud", "7", "S5", "S99 S7", "-999 dB", "dB", "nan dB", "S5 S7 S9"}) {
        INFO(wrong);
        CHECK_FALSE(readComparison(wrong));
    }
}

TEST_CASE("fewer than three comparisons tell nothing, many equal ones pass, weak ones fail with a remedy") {
    const auto times = [](const char* word, int count) {
        return std::vector<HeardDifference>(std::size_t(count), *readComparison(word));
    };
    CHECK(judgeReceive({}).state == VerdictState::notDone);
    CHECK(judgeReceive(times("equal", 2)).state == VerdictState::cannotTell);
    CHECK(judgeReceive(times("equal", 3)).state == VerdictState::pass);
    CHECK(judgeReceive(times("stronger", 4)).state == VerdictState::pass);
    const ReceiveVerdict deaf = judgeReceive(times("much weaker", 4));
    CHECK(deaf.state == VerdictState::fail);
    CHECK_FALSE(deaf.remedy.empty());
    CHECK(judgeReceive(times("weaker", 3)).state != VerdictState::pass);
}

TEST_CASE("simulated fading: a rig that hears alike is hardly ever called weak, a deaf one hardly ever passes") {
    // Each comparison is one draw of the true difference with 4 dB of fading between the two looks.
    std::mt19937 random(3);
    std::normal_distribution<double> fading(0, 4);
    int calledWeak = 0, passed = 0;
    for (int i = 0; i < 1000; ++i) {
        std::vector<HeardDifference> alike, deaf;
        for (int k = 0; k < 6; ++k) {
            alike.push_back({fading(random), 1.5});
            deaf.push_back({-15 + fading(random), 1.5});
        }
        calledWeak += judgeReceive(alike).state == VerdictState::fail;
        passed += judgeReceive(deaf).state == VerdictState::pass;
    }
    CHECK(calledWeak <= 25);  // beyond 2u on one side: about one in forty
    CHECK(passed == 0);
}
