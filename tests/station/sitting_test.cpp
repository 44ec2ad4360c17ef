#include "station/board/sitting.h"

#include <catch2/catch.hpp>

#include "bench_fixture.h"
#include "kit/package.h"
#include "station/board/loupe.h"
#include "station/board/work.h"

using namespace ombrek;

namespace {

const Kit& kit() { return practiceKit().kit; }

/// Two evenings: 0 to 60 min and a day later 0 to 30 min.
Build twoEvenings() {
    Build build;
    build.sittings = {{0, 3600}, {86400, 86400 + 1800}};
    build.steps["lay-out"] = {false, 900};
    build.steps["look-board"] = {false, 1200};
    build.steps["r-supply"] = {false, 86400 + 600};
    build.remarks["look-board"] = "a scratch by J1";
    return build;
}

}  // namespace

TEST_CASE("stretches with short pauses are one evening", "[sitting]") {
    Build build = twoEvenings();
    build.sittings.insert(build.sittings.begin() + 1, {3600 + 2400, 3600 + 3000});
    const auto evenings = eveningsOf(kit(), build);
    REQUIRE(evenings.size() == 2);
    CHECK(evenings[0].minutes == Approx(70));
    CHECK(evenings[0].steps == std::vector<std::string>{"lay-out", "look-board"});
    CHECK(evenings[1].steps == std::vector<std::string>{"r-supply"});
}

TEST_CASE("a pause is asked about until it is counted or a night has passed", "[sitting]") {
    Build build = twoEvenings();
    CHECK_FALSE(pauseToAskAbout(build));
    build.sittings.push_back({86400 + 1800 + 1500, 86400 + 1800 + 1500});
    const auto pause = pauseToAskAbout(build);
    REQUIRE(pause);
    CHECK(pause->end - pause->start == 1500);
    const double before = benchMinutes(build, 0, 200000);
    build.away.push_back(*pause);
    CHECK(benchMinutes(build, 0, 200000) == Approx(before + 25));
    CHECK_FALSE(pauseToAskAbout(build));
}

TEST_CASE("after a night the next action is another sitting", "[sitting]") {
    const Build build = twoEvenings();
    CHECK_FALSE(newSitting(Build{}, 500000));
    CHECK_FALSE(newSitting(build, build.sittings.back().end + 3600));
    CHECK(newSitting(build, build.sittings.back().end + 4 * 3600));
}

TEST_CASE("a clock set back gives no negative time", "[sitting]") {
    Build build;
    build.sittings = {{5000, 9000}, {1000, 1600}};
    CHECK(benchMinutes(build, 0, 100000) == Approx((4000 + 600) / 60.0));
    CHECK(eveningsOf(kit(), build).size() == 2);
    CHECK_FALSE(pauseToAskAbout(build));
}

TEST_CASE("what steps took comes from the bench clock, the night left out", "[sitting]") {
    const auto done = workDone(kit(), twoEvenings());
    REQUIRE(done.size() == 3);
    CHECK(done[0].took == Approx(15));  // lay-out: from the start to 900 s
    CHECK(done[1].took == Approx(5));
    // The rest of the first evening, 40 min, and ten of the second: longer than planned by more than ten
    // times.
    CHECK(done[2].took == Approx(50));
    // An hour's winding between two steps, ended by a coil's reading, is no soldering; a reading of a part
    // that the step itself fits is part of it.
    Build between;
    between.sittings = {{0, 7200}};
    between.steps["lay-out"] = {false, 600};
    between.steps["look-board"] = {false, 4500};
    Reading reading;
    reading.subject = Subject::coil("L1");
    reading.at = 4200;
    between.readings = {reading};
    CHECK(workDone(kit(), between)[1].took == Approx(5));
    between.readings.front().at = 5000;  // afterwards: it tells nothing of that step
    CHECK(workDone(kit(), between)[1].took == Approx(65));
    between.steps["r-supply"] = {false, 5400};
    between.readings.front().subject = Subject::part(kit().step("r-supply")->fits.front());
    between.readings.front().at = 5100;
    CHECK(workDone(kit(), between)[2].took == Approx(15));

    Build batch;
    batch.sittings = {{0, 3600}};
    batch.steps["lay-out"] = {false, 900};
    batch.steps["look-board"] = {false, 905};
    const auto shared = workDone(kit(), batch);
    REQUIRE(shared.size() == 2);
    CHECK(shared[0].took / shared[0].planned == Approx(shared[1].took / shared[1].planned));
    batch.steps["look-board"] = {false, 960};  // a minute later is still together, a second more is not
    CHECK(workDone(kit(), batch)[0].took < 15);
    batch.steps["look-board"] = {false, 961};
    CHECK(workDone(kit(), batch)[0].took == Approx(15));
}

TEST_CASE("on return: the last step, what was odd, what was touched", "[sitting]") {
    Build build = twoEvenings();
    build.findings.push_back({1, "R1", Finding::What::dry, 0, 0});
    const auto back = whereOneWas(kit(), build);
    REQUIRE(back);
    CHECK(back->last == kit().step("r-supply")->title);
    CHECK(back->touched == kit().step("r-supply")->fits);
    CHECK(back->odd == std::vector<std::string>{"R1: dry joint, still open"});
    build.steps.erase("r-supply");
    CHECK(whereOneWas(kit(), build)->odd.front().find("a scratch by J1") != std::string::npos);
    CHECK_FALSE(whereOneWas(kit(), Build{}));
}

TEST_CASE("what a sitting will want is known before it begins", "[sitting]") {
    Build build;
    const auto order = stepOrder(kit(), Order::manual).value();
    const SittingAhead ahead = sittingAhead(kit(), build, order, 120);
    CHECK(ahead.minutes <= 120);
    CHECK(ahead.steps.front()->id == "lay-out");
    CHECK_FALSE(ahead.tools.empty());
    CHECK_FALSE(ahead.keeps.empty());
    CHECK(ahead.keeps.front().what.find("0 kept so far") != std::string::npos);
    CHECK_FALSE(ahead.holds.empty());
    for (const auto& want : ahead.notYet) CHECK(want.what.find("Keep") == std::string::npos);
    build.kept["cut leads"] = 5;
    CHECK(sittingAhead(kit(), build, order, 120).keeps.front().what.find("5 kept so far") !=
          std::string::npos);
    for (const Step& step : kit().steps) build.steps[step.id] = {};
    CHECK(sittingAhead(kit(), build, order, 120).steps.empty());
}

TEST_CASE("under the loupe: this evening's joints, to and fro over the board", "[loupe]") {
    Build build = twoEvenings();
    auto joints = jointsToLookAt(kit(), build);
    REQUIRE(joints.size() == kit().step("r-supply")->fits.size());
    for (std::size_t i = 1; i < joints.size(); ++i)
        CHECK(std::floor(joints[i - 1]->place->y / 12) <= std::floor(joints[i]->place->y / 12));
    build.joints[joints.front()->ref] = 86400 + 700;
    CHECK(jointsToLookAt(kit(), build).size() == joints.size() - 1);
    build.steps["d1"] = {false, 86400 + 900};
    const auto senses = sensesToLookAt(kit(), build);
    REQUIRE(senses.size() == 1);
    CHECK(senses.front().part->ref == "D1");
    CHECK_FALSE(senses.front().look.empty());
    build.senses["D1"] = 1;
    CHECK(sensesToLookAt(kit(), build).empty());
}

TEST_CASE("an open finding stands at the step that fitted the part, until it is closed", "[loupe]") {
    Build build = twoEvenings();
    build.findings = {{1, "R1", Finding::What::bridge, 5, 0}, {2, "R2", Finding::What::dry, 5, 9}};
    REQUIRE(findingsAt(*kit().step("r-supply"), build).size() == 1);
    CHECK(findingsAt(*kit().step("d1"), build).empty());
    for (const JointLook& look : jointLooks()) {
        CHECK(word(look.what) == look.word);
        CHECK_FALSE(look.mend.empty());
    }
}

TEST_CASE("packages by their words, their kind, and the kit's own size", "[package]") {
    Part part;
    part.kind = PartKind::resistor;
    part.what = "chip, 0805";
    CHECK(packageOf(part).width == 2.0);  // size code 0805: 2.0 by 1.25 mm (IEC 60115-8)
    part.what = "";
    CHECK(packageOf(part).width > 5);
    part.place = Place{1, 1, 10, 3, 0};
    CHECK(packageOf(part).width == 10);
    part.kind = PartKind::diode;
    CHECK(packageOf(part).mark == Package::Mark::band);
    CHECK(packageOf(part).heatShy);
}

TEST_CASE("a part without a size is drawn as its kind usually is", "[package]") {
    // Common practice, leaded parts [mm]: body lengths and widths of small ones.
    const auto size = [](PartKind kind) {
        Part part;
        part.kind = kind;
        const Package package = packageOf(part);
        return std::pair(package.width, package.height);
    };
    CHECK(size(PartKind::resistor) == std::pair(6.5, 2.4));
    CHECK(size(PartKind::inductor) == std::pair(7.0, 3.0));
    CHECK(size(PartKind::diode) == std::pair(4.2, 2.0));
    CHECK(size(PartKind::crystal) == std::pair(11.2, 4.8));
    CHECK(size(PartKind::coil) == std::pair(11.0, 11.0));
    CHECK(size(PartKind::other) == std::pair(8.0, 8.0));
}
