#include "core/plan/pace.h"

#include <cmath>

#include "core/plan/schedule.h"

using namespace ombrek;

TEST_CASE("before anything is done the pace is the plan's, with its spread", "[pace]") {
    const Pace pace;
    CHECK(pace.factor(WorkKind::solder) == Approx(1));
    // Builder 0.5 and kind 0.25 in quadrature.
    CHECK(pace.of(WorkKind::winding).deviation == Approx(std::hypot(0.5, 0.25)));
}

TEST_CASE("the update agrees with a hand computation", "[pace]") {
    // One kind of work seen n times at ratio r: the sum of builder and kind is one normal unknown with
    // variance t = 0.5² + 0.25² = 0.3125 seen with variance s = 0.4² = 0.16. Posterior mean n·ln r·t/(s +
    // n·t) and variance s·t/(s + n·t): any text on Bayesian inference for a normal mean. By hand for n = 4, r
    // = 2: 4 · 0.693147 · 0.3125 / 1.41 = 0.614492; 0.16 · 0.3125 / 1.41 = 0.0354610.
    const std::vector<WorkDone> done(4, {WorkKind::solder, 10, 20});
    const Pace::Log log = Pace(done).of(WorkKind::solder);
    CHECK(log.mean == Approx(0.614492).epsilon(1e-5));
    CHECK(log.deviation * log.deviation == Approx(0.0354610).epsilon(1e-5));
    // Another kind learns only the builder's share, 0.25/0.3125 of it: 0.491594.
    CHECK(Pace(done).of(WorkKind::test).mean == Approx(0.491594).epsilon(1e-5));
    // A step that took no time or was planned with none tells nothing.
    CHECK(Pace({{WorkKind::solder, 0, 20}, {WorkKind::solder, 10, 0}}).of(WorkKind::solder).mean == 0);
}

TEST_CASE("what is left has a middle and a spread that shrink with what is learnt", "[pace]") {
    const std::vector<WorkLeft> left(40, {WorkKind::solder, 5});
    const auto before = Pace().left(left);
    CHECK(before.low < before.middle);
    CHECK(before.middle < before.high);
    // The middle of a log-normal sum near 200 min · e^(0.4²/2); a factor of e^(1.2816·0.559) either way
    // covers eight of ten.
    CHECK(before.middle == Approx(200 * std::exp(0.08)).epsilon(0.06));
    CHECK(before.high / before.middle == Approx(std::exp(1.2816 * 0.559)).epsilon(0.1));
    const auto after = Pace(std::vector<WorkDone>(40, {WorkKind::solder, 5, 5})).left(left);
    CHECK(after.high / after.low < 0.5 * before.high / before.low);
    CHECK(Pace().left(left, 2000, 7).middle == Pace().left(left, 2000, 7).middle);
    CHECK(Pace().left({}).high == 0);
}

TEST_CASE("odds of a finishing evening", "[schedule]") {
    std::vector<FreeTime> evenings;
    for (int i = 0; i < 20; ++i) evenings.push_back({i * 86400, 120});
    const std::vector<WorkLeft> left(60, {WorkKind::solder, 10});  // about ten hours
    const auto odds = finishOdds(Pace(), left, evenings, 0, 4000, 3);
    REQUIRE(odds);
    CHECK(std::is_sorted(odds->doneBy.begin(), odds->doneBy.end()));
    // Ten evenings of two hours hold twice the plan: the pace must stay below 2/e^0.08, at 0.559: 86 %.
    CHECK(odds->doneBy[9] == Approx(0.86).margin(0.03));
    const auto missed = finishOdds(Pace(), left, evenings, 0.5, 4000, 3);
    CHECK(missed->doneBy[9] < odds->doneBy[9]);
    CHECK(*odds->evening(0.5) < *odds->evening(0.9));
    CHECK_FALSE(odds->evening(1.1));
    CHECK(finishOdds(Pace(), left, {}, 0, 100, 1)->doneBy.empty());
    CHECK(finishOdds(Pace(), {}, evenings, 0, 100, 1)->doneBy[0] == 1);
    CHECK_FALSE(finishOdds(Pace(), left, evenings, 0, 4000, 3, [](double) { return false; }));
}

TEST_CASE("a schedule says now and then how far it is, and stops when told", "[schedule]") {
    const std::vector<FreeTime> evenings{{0, 120}};
    std::vector<double> told;
    REQUIRE(finishOdds(Pace(), {}, evenings, 0, 1024, 1, [&](double share) {
        told.push_back(share);
        return true;
    }));
    CHECK(told == std::vector<double>{0, 0.25, 0.5, 0.75});
    int asked = 0;
    CHECK_FALSE(finishOdds(Pace(), {}, evenings, 0, 1024, 1, [&](double) { return ++asked < 2; }));
    CHECK(asked == 2);
}
