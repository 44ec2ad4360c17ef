#include "core/quantity/verdict.h"

#include <cmath>
#include <set>

#include "core/quantity/instrument.h"

using namespace ombrek;

namespace {

VerdictState guarded(double reading, double low, double high, double u) {
    return judge(reading, {low, high}, u, VerdictRule::guardBand, Unit::none).state;
}

}  // namespace

TEST_CASE("the meter's error is combined in quadrature from rectangular parts", "[reference]") {
    // Source: JCGM 100 (GUM) 4.3.7: a rectangular limit a has u = a/√3; 6.3: U = 2u. Worked here by hand:
    // 1 % of 23.6 pF is 0.236 pF; with 0.5 pF: 2·√(0.236² + 0.5²)/√3 = 0.6384 pF.
    InstrumentError meter;
    meter.percentOfReading = 1;
    meter.digits = 1;
    meter.resolution = 0.5e-12;
    CHECK(expandedUncertainty(meter, 23.6e-12) == Approx(0.6384e-12).epsilon(1e-3));
    InstrumentError ofRange;
    ofRange.percentOfRange = 0.5;
    ofRange.range = 20;
    CHECK(expandedUncertainty(ofRange, 12) == Approx(2 * 0.1 / std::sqrt(3.0)));
    CHECK(expandedUncertainty(InstrumentError{}, 5) == 0.0);
}

TEST_CASE("readings that a bench sees every evening", "[reference]") {
    // Source: common practice; the verdict rule is JCGM 106 / ILAC-G8 guard banding.
    CHECK(judge(990, limitsAround(1000, 5), 2, VerdictRule::guardBand, Unit::ohm).state ==
          VerdictState::pass);
    CHECK(judge(98.4e3, limitsAround(100e3, 5), 900, VerdictRule::guardBand, Unit::ohm).state ==
          VerdictState::pass);
    CHECK(judge(98.4e3, limitsAround(10e3, 5), 900, VerdictRule::guardBand, Unit::ohm).state ==
          VerdictState::fail);
    CHECK(judge(95e-9, limitsAround(100e-9, 10), 1.2e-9, VerdictRule::guardBand, Unit::farad).state ==
          VerdictState::pass);
    CHECK(judge(33e-9, limitsAround(22e-9, 10), 0.4e-9, VerdictRule::guardBand, Unit::farad).state ==
          VerdictState::fail);
    // 23.6 pF on a 22 pF 5 % part (limits 20.9 to 23.1) with a meter of 1 % + 0.5 pF: doubtful, not fail.
    CHECK(judge(23.6e-12, limitsAround(22e-12, 5), 0.6384e-12, VerdictRule::guardBand, Unit::farad).state ==
          VerdictState::doubtful);
}

TEST_CASE("pass, doubtful and fail meet at one guard band on either side of each limit") {
    CHECK(guarded(10.0, 9, 11, 0.2) == VerdictState::pass);
    CHECK(guarded(10.79, 9, 11, 0.2) == VerdictState::pass);
    CHECK(guarded(10.81, 9, 11, 0.2) == VerdictState::doubtful);
    CHECK(guarded(11.19, 9, 11, 0.2) == VerdictState::doubtful);
    CHECK(guarded(11.21, 9, 11, 0.2) == VerdictState::fail);
    CHECK(guarded(9.21, 9, 11, 0.2) == VerdictState::pass);
    CHECK(guarded(9.19, 9, 11, 0.2) == VerdictState::doubtful);
    CHECK(guarded(8.79, 9, 11, 0.2) == VerdictState::fail);
}

TEST_CASE("a meter that is worse than the tolerance cannot tell, and says which could") {
    const Verdict v = judge(22e-12, limitsAround(22e-12, 1), 0.6e-12, VerdictRule::guardBand, Unit::farad);
    CHECK(v.state == VerdictState::cannotTell);
    CHECK(v.sentence.find("needs one good to") != std::string::npos);
    CHECK(guarded(100, 9, 11, 5) == VerdictState::fail);  // far outside is far outside with any meter
}

TEST_CASE("the simple rule counts the reading alone") {
    CHECK(judge(11.0, {9, 11}, 5, VerdictRule::simple, Unit::none).state == VerdictState::pass);
    CHECK(judge(11.01, {9, 11}, 5, VerdictRule::simple, Unit::none).state == VerdictState::fail);
    CHECK(judge(9.0, {9, 11}, 0, VerdictRule::guardBand, Unit::none).state == VerdictState::pass);
}

TEST_CASE("one-sided limits never call the meter too coarse") {
    Limits least;
    least.low = 500;
    CHECK(judge(5000, least, 50, VerdictRule::guardBand, Unit::ohm).state == VerdictState::pass);
    CHECK(judge(510, least, 50, VerdictRule::guardBand, Unit::ohm).state == VerdictState::doubtful);
    CHECK(judge(100, least, 50, VerdictRule::guardBand, Unit::ohm).state == VerdictState::fail);
    CHECK(judge(100, least, 1, VerdictRule::guardBand, Unit::ohm).sentence.find("at least 500") !=
          std::string::npos);
    Limits most;
    most.high = 0.3;
    CHECK(judge(0.1, most, 0.01, VerdictRule::guardBand, Unit::volt).sentence.find("at most 300") !=
          std::string::npos);
}

TEST_CASE("limits are said with enough figures to be told apart") {
    CHECK(figuresFor({15.997e6, 16.003e6}) == 6);
    CHECK(figuresFor({4.75, 5.25}) == 4);
    CHECK(figuresFor({500, INFINITY}) == 4);
    CHECK(limitsText({15.997e6, 16.003e6}, Unit::hertz) == "15.997\u202fMHz to 16.003\u202fMHz");
    CHECK(limitsText({4.8, 5.2}, Unit::volt) == "4.8\u202fV to 5.2\u202fV");
}

TEST_CASE("no number is no verdict") {
    CHECK(judge(NAN, {9, 11}, 0.1, VerdictRule::guardBand, Unit::volt).state == VerdictState::cannotTell);
    CHECK(judge(-INFINITY, {9, 11}, 0.1, VerdictRule::simple, Unit::volt).state == VerdictState::cannotTell);
}

TEST_CASE("an overload passes a lower limit and fails an upper one") {
    const double open = INFINITY;
    const Limits isolation{500, INFINITY}, low{-INFINITY, 0.3}, band{9, 11};
    for (const VerdictRule rule : {VerdictRule::guardBand, VerdictRule::simple}) {
        CHECK(judge(open, isolation, 0, rule, Unit::ohm).state == VerdictState::pass);
        CHECK(judge(open, low, 0, rule, Unit::volt).state == VerdictState::fail);
        CHECK(judge(open, band, 0, rule, Unit::volt).state == VerdictState::fail);
    }
    // More than 20 MΩ is enough for 10 MΩ; whether it is 50 MΩ nobody can tell.
    CHECK(judgeBeyond(20e6, {10e6, INFINITY}, Unit::ohm).state == VerdictState::pass);
    CHECK(judgeBeyond(20e6, {50e6, INFINITY}, Unit::ohm).state == VerdictState::cannotTell);
    CHECK(judgeBeyond(20e6, {10e6, 50e6}, Unit::ohm).state == VerdictState::cannotTell);
    CHECK(judgeBeyond(20e6, {-INFINITY, 1e6}, Unit::ohm).state == VerdictState::fail);
    CHECK_FALSE(judgeBeyond(20e6, {50e6, INFINITY}, Unit::ohm).sentence.empty());
}

TEST_CASE("every verdict carries its numbers and a sentence") {
    for (const double reading : {8.0, 9.05, 10.0, 10.95, 12.0}) {
        const Verdict v = judge(reading, {9, 11}, 0.2, VerdictRule::guardBand, Unit::volt);
        CHECK(v.reading == reading);
        CHECK(v.limits.low == 9);
        CHECK(v.uncertainty == 0.2);
        CHECK_FALSE(v.sentence.empty());
    }
}

TEST_CASE("limits of a negative rail are in order") {
    const Limits limits = limitsAround(-12, 10);
    CHECK(limits.low == Approx(-13.2));
    CHECK(limits.high == Approx(-10.8));
}

TEST_CASE("the worst of several") {
    using S = VerdictState;
    CHECK(worst({S::pass, S::pass}) == S::pass);
    CHECK(worst({S::pass, S::notDone}) == S::notDone);
    CHECK(worst({S::pass, S::doubtful, S::notDone}) == S::doubtful);
    CHECK(worst({S::doubtful, S::cannotTell}) == S::cannotTell);
    CHECK(worst({S::pass, S::fail, S::doubtful}) == S::fail);
    CHECK(worst({}) == S::notDone);
}

TEST_CASE("each state has its own word") {
    std::set<std::string_view> words;
    for (int i = 0; i < 5; ++i) words.insert(word(static_cast<VerdictState>(i)));
    CHECK(words.size() == 5);
}

TEST_CASE("limits are written with as many figures as tell them apart, four to nine") {
    CHECK(figuresFor({0.5, 1.5}) == 4);
    CHECK(figuresFor({15.997e6, 16.003e6}) == 6);  // 3 kHz of 16 MHz
    CHECK(figuresFor({1e9 - 1, 1e9 + 1}) == 9);
    CHECK(figuresFor({5, INFINITY}) == 4);
}
