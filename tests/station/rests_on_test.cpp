#include "station/rests_on.h"

#include <algorithm>
#include <catch2/catch.hpp>

#include "bench_fixture.h"
#include "formats/kit_json.h"
#include "judged/checks.h"
#include "judged/judged.h"
#include "judged/sign_off.h"
#include "station/first_light/first_light.h"
#include "station/readings.h"

// What rests on what, and that what was changed is measured again.

using namespace ombrek;

namespace {

const Kit& kit() { return practiceKit().kit; }

bool rests(const Subject& what, const Subject& on) {
    const auto all = restsOn(kit(), what);
    return std::find(all.begin(), all.end(), on) != all.end();
}

void read(Build& build, const Subject& subject, double value, Unit unit, Settings settings = {}) {
    build.readings.push_back({std::int64_t(build.readings.size() + 1), subject, value, unit,
                              usualUncertainty(unit, value), std::move(settings), "typed", 0});
}

void repair(Build& build, const Subject& subject) {
    build.changes.push_back({subject, std::int64_t(build.readings.size()), 0, "repaired"});
}

}  // namespace

TEST_CASE("a check rests on the parts it names, power on what tunes and filters it") {
    CHECK(rests(Subject::check("rail5"), Subject::part("U2")));
    CHECK(rests(Subject::check("rail5"), Subject::part("C6")));
    CHECK_FALSE(rests(Subject::check("rail5"), Subject::part("U1")));
    CHECK(rests(Subject::check("vfo-runs"), Subject::coil("L1")));  // "L1, Q1, C23, C24"
    CHECK(rests(Subject::power(), Subject::coil("L2")));
    CHECK(rests(Subject::harmonic(2), Subject::part("C74")));
    CHECK(rests(Subject::power(), Subject::adjustment("tx")));
    CHECK(rests(Subject::frequency(), Subject::adjustment("bfo")));
    CHECK_FALSE(rests(Subject::part("R1"), Subject::part("R2")));
}

TEST_CASE("the kit adds what it knows of its circuit, and what rests on that rests on it too") {
    CHECK(rests(Subject::adjustment("bias"), Subject::part("Q6")));
    CHECK(rests(Subject::power(), Subject::part("Q6")));
    CHECK(rests(Subject::harmonic(3), Subject::part("Q6")));  // by way of the bias
    CHECK_FALSE(rests(Subject::frequency(), Subject::part("Q6")));
}

TEST_CASE("things that rest on each other in a kit's own words come to an end") {
    Kit own = kit();
    own.restsOn = {{Subject::check("rail5"), {Subject::check("rail8")}},
                   {Subject::check("rail8"), {Subject::check("rail5"), Subject::part("U1")}}};
    const auto all = restsOn(own, Subject::check("rail5"));
    CHECK(std::count(all.begin(), all.end(), Subject::part("U1")) == 1);
    CHECK(std::count(all.begin(), all.end(), Subject::check("rail5")) == 0);
}

TEST_CASE("what a repaired part was read by is made again, and bars the way until then", "[safety]") {
    Build build;
    read(build, Subject::check("short"), 2e3, Unit::ohm);
    read(build, Subject::check("polarity"), 12.5, Unit::volt);
    const Check& first = *kit().check("first-current");  // a gate that names U1 and U2
    read(build, Subject::check("first-current"), (first.limits.low + first.limits.high) / 2, Unit::ampere);
    REQUIRE(checkVerdict(kit(), first, build).state == VerdictState::pass);
    repair(build, Subject::part("U2"));
    CHECK(checkVerdict(kit(), first, build).state == VerdictState::notDone);
    CHECK(checkVerdict(kit(), first, build).sentence == "U2 was changed since: measure again.");
    CHECK(nextCheck(Judged(kit(), build)) == &first);
    CHECK(barredBy(Judged(kit(), build), *kit().check("rail5")) == &first);
    CHECK(build.readings.size() == 3);
    read(build, Subject::check("first-current"), (first.limits.low + first.limits.high) / 2, Unit::ampere);
    CHECK(checkVerdict(kit(), first, build).state == VerdictState::pass);
}

TEST_CASE("a new final ends bias, power and harmonics, and nothing before them", "[safety]") {
    Build build;
    read(build, Subject::frequency(), kit().ratings.frequency, Unit::hertz);
    read(build, Subject::supply(), 12.5, Unit::volt);
    read(build, Subject::power(), 4.8, Unit::dbm, {{"attenuation", 30}});
    read(build, Subject::harmonic(2), -50, Unit::decibel);
    repair(build, Subject::part("Q5"));
    CHECK_FALSE(lastStanding(kit(), build, Subject::power()));
    CHECK_FALSE(lastStanding(kit(), build, Subject::harmonic(2)));
    CHECK(lastStanding(kit(), build, Subject::frequency()));
    CHECK(lastStanding(kit(), build, Subject::supply()));
    CHECK(changedSince(kit(), build, Subject::power()) == "Q5 was changed since: measure again.");
}

TEST_CASE("power is brought to the rated supply by the supply it was read at") {
    Build build;
    read(build, Subject::power(), 10 * std::log10(3.0 * 1000) - 30, Unit::dbm,
         {{"attenuation", 30}, {"supply", 10}});
    read(build, Subject::supply(), 12.5, Unit::volt);  // later: says nothing of it
    const Judged judged(kit(), build);
    CHECK(judged.proof().supplyKnown);
    CHECK(judged.proof().supply == 10);
    CHECK(judged.proof().powerAtRated == Approx(3.0 * 12.5 * 12.5 / 100));  // P goes with V²
    Build without;
    read(without, Subject::power(), 4.8, Unit::dbm, {{"supply", 12.5}});  // behind an unknown attenuation
    CHECK(Judged(kit(), without).proof().powerVerdict.state == VerdictState::cannotTell);
}

TEST_CASE("a kit that names what it does not have in rests_on is refused with the place") {
    std::string text = practiceKit().text;
    const auto at = text.find("\"part:Q6\"");
    REQUIRE(at != std::string::npos);
    text.replace(at, 9, "\"part:Q66\"");
    const auto kit = readKit(text, shippedTables().cores);
    REQUIRE_FALSE(kit);
    CHECK(kit.error().text().find("rests_on/0/on") != std::string::npos);
    CHECK(kit.error().text().find("part:Q66") != std::string::npos);
}
