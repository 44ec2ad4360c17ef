#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "bench_fixture.h"
#include "formats/accuracy_text.h"
#include "judged/bag.h"
#include "judged/checks.h"
#include "judged/evidence.h"
#include "judged/hold.h"
#include "judged/judged.h"
#include "judged/sign_off.h"
#include "judged/tune_next.h"
#include "kit/instrument.h"
#include "station/board/board.h"
#include "station/board/work.h"
#include "station/first_light/first_light.h"
#include "station/parts_in/parts_in.h"
#include "station/proof/proof.h"
#include "station/readings.h"
#include "station/subjects.h"
#include "station/tune/tune.h"
#include "station/winding/winding.h"

using namespace ombrek;

namespace {

const Kit& kit() { return practiceKit().kit; }

void read(Build& build, const Subject& subject, double value, Unit unit, double setting = 0,
          const std::string& method = "typed") {
    build.readings.push_back({std::int64_t(build.readings.size() + 1), subject, value, unit,
                              usualUncertainty(unit, value), settingsOf(subject, method, setting), method,
                              0});
}

void wind(Build& build, const Coil& coil) {
    for (const Winding& w : coil.windings) build.windings[coil.ref + "/" + w.name] = {w.turns, true};
}

}  // namespace

TEST_CASE("a fresh bag waits for its first part") {
    const Build build;
    const BagCount bag = countBag({kit(), build});
    CHECK(bag.total == int(kit().parts.size()));
    CHECK(bag.waiting == bag.total);
    CHECK(nextPart({kit(), build})->ref == "R51");  // the smallest resistor: sorted by kind and value
}

TEST_CASE("a reading, a look or a miss accounts for a part") {
    Build build;
    read(build, Subject::part("R1"), 10.05e3, Unit::ohm);
    read(build, Subject::part("R2"), 22e3, Unit::ohm);
    build.parts["J1"] = PartMark::seen;
    build.parts["R3"] = PartMark::missing;
    build.parts["R4"] = PartMark::trusted;
    CHECK(partVerdict(*kit().part("R1"), build).state == VerdictState::pass);
    CHECK(partVerdict(*kit().part("R2"), build).state == VerdictState::fail);
    CHECK(partVerdict(*kit().part("R2"), build).sentence.find("looks like 22") != std::string::npos);
    CHECK(partVerdict(*kit().part("J1"), build).state == VerdictState::pass);
    CHECK(partVerdict(*kit().part("R3"), build).sentence == "Not found in the bag.");
    CHECK(partVerdict(*kit().part("R4"), build).sentence.find("trust") != std::string::npos);
    const BagCount bag = countBag({kit(), build});
    CHECK(bag.in == 3);
    CHECK(bag.missing == 1);
    CHECK(bag.wrong == 1);
    CHECK(bag.waiting == bag.total - 5);
}

TEST_CASE("the verdict counts the L/C meter's error") {
    Build build;
    const Part& c25 = *kit().part("C25");  // 22 pF, 5 %
    read(build, Subject::part("C25"), 23.6e-12, Unit::farad);
    CHECK(partVerdict(c25, build).state == VerdictState::doubtful);
    build.rule = VerdictRule::simple;
    CHECK(partVerdict(c25, build).state == VerdictState::fail);
}

TEST_CASE("a coil goes from winding to measuring to advice") {
    Build build;
    const Coil& t1 = *kit().coil("T1");
    CHECK(nextCoil(kit(), build) == &kit().coils.front());
    CHECK(windingInHand(t1, build) == 0u);
    build.windings["T1/main"] = {22, true};
    CHECK(windingInHand(t1, build) == 1u);
    wind(build, t1);
    CHECK(wound(t1, build));
    CHECK(coilVerdict(t1, build).state == VerdictState::notDone);
    CHECK_FALSE(coilAdvice(t1, build));
    read(build, Subject::coil("T1"), 1.46e-6, Unit::henry);
    CHECK(coilVerdict(t1, build).state == VerdictState::pass);
    CHECK(coilAdvice(t1, build)->act == TrimAdvice::Act::leave);
    CHECK(coilCover(kit(), t1, build)->state == VerdictState::pass);
    read(build, Subject::coil("T1"), 0.8e-6, Unit::henry);
    CHECK(coilAdvice(t1, build)->act == TrimAdvice::Act::addTurns);
    CHECK(coilCover(kit(), t1, build)->state == VerdictState::fail);
}

TEST_CASE("turns counted beyond the kit's figure are the coil's turns") {
    Build build;
    const Coil& t1 = *kit().coil("T1");
    CHECK(mainTurns(t1, build) == 22);
    build.windings["T1/main"] = {25, true};
    CHECK(mainTurns(t1, build) == 25);
    CHECK(coreFill(t1) > 0.3);
    CHECK(coreFill(*kit().coil("T3")) == 0.0);
}

TEST_CASE("gates stop the checks that follow them") {
    Build build;
    CHECK(nextCheck(Judged(kit(), build))->id == "short");
    CHECK(barredBy(Judged(kit(), build), *kit().check("short")) == nullptr);
    CHECK(barredBy(Judged(kit(), build), *kit().check("rail8"))->id == "short");
    read(build, Subject::check("short"), 2000, Unit::ohm);
    read(build, Subject::check("polarity"), 12.5, Unit::volt);
    CHECK(nextCheck(Judged(kit(), build))->id == "first-current");
    read(build, Subject::check("first-current"), 0.2, Unit::ampere);
    CHECK(checkVerdict(kit(), *kit().check("first-current"), build).state == VerdictState::fail);
    CHECK(nextCheck(Judged(kit(), build))->id == "first-current");
    CHECK(barredBy(Judged(kit(), build), *kit().check("rail5"))->id == "first-current");
    read(build, Subject::check("first-current"), 0.008, Unit::ampere);
    CHECK(nextCheck(Judged(kit(), build))->id == "after-d1");
}

TEST_CASE("a hold point is earned by its evidence") {
    Build build;
    const Step& hold = *kit().step("hold-l1");
    CHECK_FALSE(holdEarned(hold, {kit(), build}));
    REQUIRE(holdEvidence(hold, {kit(), build}).size() == 1);
    wind(build, *kit().coil("L1"));
    read(build, Subject::coil("L1"), 2.70e-6, Unit::henry);
    CHECK(holdEarned(hold, {kit(), build}));
    CHECK(holdEarned(*kit().step("hold-t3"), {kit(), build}));  // asks for the builder's own eyes only
}

TEST_CASE("look-aheads stand from their first step until the one they are for") {
    Build build;
    REQUIRE_FALSE(kit().lookAheads.empty());
    for (const LookAhead& ahead : kit().lookAheads) {
        build.steps.clear();
        const auto says = [&](const std::string& step) {
            const auto aheads = lookAheadsAt(*kit().step(step), kit(), build);
            return std::any_of(aheads.begin(), aheads.end(),
                               [&](const LookAhead& a) { return a.say == ahead.say; });
        };
        INFO(ahead.say);
        CHECK(says(ahead.from));
        CHECK_FALSE(says("lay-out"));
        build.steps[ahead.from] = {};
        CHECK(says("lay-out"));
        build.steps[ahead.until] = {};
        CHECK_FALSE(says("lay-out"));
    }
}

TEST_CASE("what is to be laid aside is asked for once, and is no \"not yet\"") {
    Build build;
    const auto keeps = [&](const char* step) {
        std::vector<std::string> out;
        for (const KeepAhead& keep : keepsAt(*kit().step(step), kit(), build)) out.push_back(keep.what);
        return out;
    };
    CHECK(keeps("r-supply") == std::vector<std::string>{"cut leads"});
    CHECK(keeps("j1").empty());
    build.steps["r-supply"] = {};
    build.kept["cut leads"] = 5;
    CHECK(keeps("j1") == std::vector<std::string>{"cut leads"});
    CHECK(keepsAt(*kit().step("j1"), kit(), build).front().kept == 5);
    for (const LookAhead& ahead : lookAheadsAt(*kit().step("j1"), kit(), build))
        CHECK(ahead.say.find("cut leads") == std::string::npos);
    build.steps["links"] = {};
    CHECK(keeps("j1").empty());
}

TEST_CASE("the plan's order holds for every school") {
    for (const Order school : {Order::manual, Order::lowestFirst}) {
        const auto order = stepOrder(kit(), school).value();
        CHECK(order.size() == kit().steps.size());
        std::set<std::string> done;
        for (const std::size_t i : order) {
            for (const auto& before : kit().steps[i].after) REQUIRE(done.contains(before));
            done.insert(kit().steps[i].id);
        }
    }
}

TEST_CASE("parts that are not in are named at the step that fits them") {
    Build build;
    read(build, Subject::part("R2"), 10e3, Unit::ohm);
    CHECK(partsNotIn(*kit().step("r-supply"), kit(), build) == std::vector<std::string>{"R1"});
    build.parts["R1"] = PartMark::trusted;
    CHECK(partsNotIn(*kit().step("r-supply"), kit(), build).empty());
}

TEST_CASE("coils that are not wound and measured are named at the step that fits them") {
    Build build;
    const Step& step = *kit().step("lowpass");
    CHECK(coilsNotReady(step, kit(), build) == std::vector<std::string>{"L2", "L3", "L4"});
    wind(build, *kit().coil("L2"));
    read(build, Subject::coil("L2"), 435e-9, Unit::henry);
    CHECK(coilsNotReady(step, kit(), build) == std::vector<std::string>{"L3", "L4"});
    CHECK(coilsNotReady(*kit().step("j1"), kit(), build).empty());
}

TEST_CASE("time at the bench gives a pace") {
    Build build;
    const PlanTime fresh = planTime(kit(), build, timeLeft(kit(), build));
    CHECK(fresh.plannedDone == 0);
    CHECK(fresh.left.low < fresh.plannedLeft);
    CHECK(fresh.left.high > fresh.plannedLeft);
    CHECK(fresh.plannedLeft >
          300);  // a hundred parts: some ten hours for a first-time builder (common practice)
    CHECK(fresh.plannedLeft < 900);
    build.steps["lay-out"] = {false, 3600};
    build.sittings.push_back({0, 3600});
    const PlanTime slow = planTime(kit(), build, timeLeft(kit(), build));
    CHECK(slow.spent == Approx(60));
    CHECK(slow.left.middle > fresh.left.middle);
}

TEST_CASE("evidence of what the kit does not have is never a pass") {
    const Build build;
    for (const char* text : {"coil:X9", "check:nothing", "adjust:none", "part:Z1", "step:none", "moon:full",
                             "", "proof:harmonic:1", "proof:harmonic:99", "proof:harmonic:x", "part:"}) {
        INFO(text);
        const Subject subject = readSubject(text);
        CHECK_FALSE(exists(kit(), subject));
        CHECK(unitOf(kit(), subject) == Unit::none);
        CHECK(titleOf(kit(), subject) == text);
        CHECK(evidenceOf(subject, {kit(), build}).state == VerdictState::notDone);
    }
}

TEST_CASE("tuning: a peak with its end stop and remedy") {
    Build build;
    const Adjustment& rx = *kit().adjustment("rx");
    CHECK(tuneState(kit(), rx, build).state == VerdictState::notDone);
    const auto y = [](double x, double peak) { return 0.8 / std::sqrt(1 + std::pow((x - peak) / 0.07, 2)); };
    for (const double x : {0.3, 0.38, 0.46, 0.55, 0.4})
        read(build, Subject::adjustment("rx"), y(x, 0.4), Unit::volt, x);
    const TuneState good = tuneState(kit(), rx, build);
    CHECK(good.state == VerdictState::pass);
    CHECK(good.bestPosition == Approx(0.4).margin(0.001));
    CHECK(good.remedy.empty());
    build.readings.clear();
    for (const double x : {0.6, 0.8, 0.9, 1.0})
        read(build, Subject::adjustment("rx"), y(x, 1.4), Unit::volt, x);
    const TuneState end = tuneState(kit(), rx, build);
    CHECK(end.state == VerdictState::fail);
    CHECK(end.remedy.find("Add") == 0);
    CHECK(end.remedy.find("on T1") != std::string::npos);
}

TEST_CASE("tuning: power is peaked by its root, settings by their target") {
    Build build;
    const Adjustment& tx = *kit().adjustment("tx");
    const auto watts = [](double x) { return 3.0 / (1 + std::pow((x - 0.6) / 0.07, 2)); };
    for (const double x : {0.5, 0.56, 0.68, 0.6})
        read(build, Subject::adjustment("tx"), watts(x), Unit::watt, x);
    CHECK(tuneState(kit(), tx, build).bestPosition == Approx(0.6).margin(1e-6));
    CHECK(tuneState(kit(), tx, build).state == VerdictState::pass);
    const Adjustment& bfo = *kit().adjustment("bfo");
    read(build, Subject::adjustment("bfo"), 16.0020e6, Unit::hertz, 0.2);
    CHECK(tuneState(kit(), bfo, build).state == VerdictState::doubtful);
    read(build, Subject::adjustment("bfo"), 15.9990e6, Unit::hertz, 0.8);
    CHECK(tuneState(kit(), bfo, build).nextPosition == Approx(0.48));
    read(build, Subject::adjustment("bfo"), 16.00062e6, Unit::hertz, 0.48);
    CHECK(tuneState(kit(), bfo, build).state == VerdictState::pass);
    CHECK(nextAdjustment({kit(), build})->id == "vfo");
}

TEST_CASE("proof: power at the supply used, beside the rated figure") {
    Build build;
    const LimitProfile& profile = shippedTables().profile("us-below-30");
    read(build, Subject::supply(), 11.5, Unit::volt);
    read(build, Subject::power(), 34.0 - 30, Unit::dbm, 30,
         "attenuator");  // 2.51 W at 11.5 V is 2.97 W at 12.5 V
    const ProofState proof = proofState(kit(), build, profile);
    REQUIRE(proof.power);
    CHECK(proof.power->watts == Approx(2.512).margin(0.001));
    CHECK(proof.powerAtRated == Approx(2.512 * std::pow(12.5 / 11.5, 2)).margin(0.001));
    CHECK(proof.powerVerdict.state == VerdictState::pass);
    CHECK(proof.frequencyVerdict.state == VerdictState::notDone);
    CHECK(proof.harmonicVerdicts.size() == 2);
}

TEST_CASE("proof: every method by its own formula") {
    CHECK(powerOf({0, Subject::power(), 34.64, Unit::volt, 0, {}, "peak-to-peak", 0}, 50).watts ==
          Approx(3.0).margin(0.001));
    CHECK(powerOf({0, Subject::power(), 16.97, Unit::volt, 0, {{"diode drop", 0.35}}, "diode-probe", 0}, 50)
              .watts == Approx(3.0).margin(0.001));
    CHECK(
        powerOf({0, Subject::power(), 2.5, Unit::watt, 0, {{"correction", 1.2}}, "wattmeter", 0}, 50).watts ==
        Approx(3.0));
    CHECK(powerOf({0, Subject::power(), 4.771, Unit::dbm, 0, {{"attenuation", 30}}, "attenuator", 0}, 50)
              .watts == Approx(3.0).margin(0.001));
    CHECK(powerMethod("no such method").id == powerMethods().front().id);
    CHECK(inWatts({0, Subject::adjustment("tx"), 4.771, Unit::dbm, 0.2, {{"position", 0.5}}, "", 0}).value ==
          Approx(3.0).margin(0.001));
}

TEST_CASE("proof: harmonics by the chosen profile") {
    Build build;
    read(build, Subject::power(), 4.77, Unit::dbm, 30, "attenuator");
    read(build, Subject::harmonic(2), 46, Unit::decibel);
    read(build, Subject::harmonic(3), 60, Unit::decibel);
    const auto at = [&](const char* profile) {
        return proofState(kit(), build, shippedTables().profile(profile));
    };
    CHECK(at("us-below-30").harmonicVerdicts[0].state == VerdictState::pass);
    CHECK(at("itu-below-30").harmonicVerdicts[0].state == VerdictState::fail);  // 47.8 dB at 3 W
    CHECK(at("itu-below-30").harmonicVerdicts[1].state == VerdictState::pass);
}

TEST_CASE("the low-pass as built takes the measured values") {
    Build build;
    CHECK(lowPassAsBuilt(kit(), build)[1].value == Approx(432e-9));
    read(build, Subject::coil("L2"), 440e-9, Unit::henry);
    read(build, Subject::part("C74"), 148e-12, Unit::farad);
    CHECK(lowPassAsBuilt(kit(), build)[0].value == Approx(148e-12));
    CHECK(lowPassAsBuilt(kit(), build)[1].value == Approx(440e-9));
}

TEST_CASE("sign-off: nothing is earned in a fresh build, and each gate names its station") {
    const Build build;
    const Readiness ready = readiness({kit(), build, shippedTables().profile("")});
    CHECK(ready.gates.size() == 11);
    CHECK(ready.earned() == 0);
    CHECK_FALSE(ready.fit());
    for (const Gate& gate : ready.gates) {
        CHECK(gate.station != Station::none);
        CHECK_FALSE(gate.evidence.empty());
        for (const Evidence& e : gate.evidence) CHECK_FALSE(e.sentence.empty());
    }
}

TEST_CASE("sign-off: a hold passed knowingly is doubtful until its evidence comes") {
    Build build;
    build.steps["hold-l1"] = {true, 0};
    const auto holds = [&] {
        for (const Gate& gate : readiness({kit(), build, shippedTables().profile("")}).gates) {
            if (gate.id == "holds") return gate;
        }
        return Gate{};
    };
    CHECK(holds().summary().find("1 doubtful") != std::string::npos);
    wind(build, *kit().coil("L1"));
    read(build, Subject::coil("L1"), 2.70e-6, Unit::henry);
    CHECK(holds().summary().find("doubtful") == std::string::npos);
}

TEST_CASE("sign-off: a kit that does not transmit has no power to prove") {
    Kit load =
        readKitFile(std::string(OMBREK_DATA_FOLDER) + "/demo/breakwater.kit.json", shippedTables().cores)
            ->kit;
    const Readiness ready = readiness({load, Build{}, shippedTables().profile("")});
    for (const Gate& gate : ready.gates)
        CHECK((gate.id == "parts" || gate.id == "steps" || gate.id == "holds" || gate.id == "checks"));
}

TEST_CASE("the usual instruments' errors") {
    // Common practice: what the data sheets of hand-held meters of 6,000 counts, of simple L/C meters, of
    // counters with a crystal of 1 ppm and of simple detectors promise.
    const std::map<Unit, std::string> sheets{{Unit::ohm, "0.8 % + 2 digits of 6000"},
                                             {Unit::volt, "0.5 % + 2 digits of 6000"},
                                             {Unit::ampere, "1 % + 3 digits of 6000"},
                                             {Unit::farad, "1 % + 0.5 pF"},
                                             {Unit::henry, "1 % + 10 nH"},
                                             {Unit::hertz, "1 ppm + 10 Hz"},
                                             {Unit::dbm, "0.2 dB"},
                                             {Unit::decibel, "1 dB"}};
    REQUIRE(usualMeters().size() == sheets.size());
    for (const MeterLine& line : usualMeters()) {
        std::string text = accuracyText(line);
        for (const std::string blank : {"\u202f", "\u00a0"}) {
            for (std::size_t at = 0; (at = text.find(blank)) != std::string::npos;)
                text.replace(at, blank.size(), " ");
        }
        CHECK(text == sheets.at(line.unit));
        MeterLine again = line;
        again.percent = again.digits = again.floor = -1;
        REQUIRE(readAccuracy(text, again));  // as it is shown, so it can be typed
        CHECK(again.percent == Approx(line.percent));
        CHECK(again.digits == line.digits);
        CHECK(again.floor == Approx(line.floor));
    }
    CHECK(usualUncertainty(Unit::farad, 23.6e-12) == Approx(0.638e-12).epsilon(0.001));
    CHECK(usualUncertainty(Unit::hertz, 16e6) == Approx(2 * std::hypot(16.0, 10.0) / std::sqrt(3.0)));
    CHECK(usualUncertainty(Unit::volt, 5) == Approx(2 * std::hypot(0.025, 0.002) / std::sqrt(3.0)));
    CHECK(usualUncertainty(Unit::watt, 5) == 0);
    CHECK(usualUncertainty(Unit::volt, NAN) == 0);
    for (const Unit unit :
         {Unit::volt, Unit::ohm, Unit::farad, Unit::henry, Unit::hertz, Unit::dbm, Unit::ampere}) {
        CHECK_FALSE(word(instrumentFor(unit)).empty());
    }
}
