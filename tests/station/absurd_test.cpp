#include <catch2/catch.hpp>
#include <cmath>
#include <limits>

#include "bench_fixture.h"
#include "judged/before_plug.h"
#include "judged/judged.h"
#include "judged/sign_off.h"
#include "station/board/board.h"
#include "station/expected.h"
#include "station/first_light/first_light.h"
#include "station/parts_in/parts_in.h"
#include "station/proof/power_table.h"
#include "station/proof/proof.h"
#include "station/readings.h"
#include "station/tune/tune.h"
#include "station/winding/winding.h"

using namespace ombrek;

namespace {

const std::vector<double> kAbsurd{0.0,   -0.0, -1.0,  1e-20, 1e-15, 1e-9,     10e-9,    1.0,
                                  4.7e3, 1e15, 1e300, -1e30, NAN,   INFINITY, -INFINITY};

/// Every subject of a kit with one reading each.
Build readEverywhere(const Kit& kit, double value, double setting) {
    Build build;
    const auto put = [&](const Subject& subject, Unit unit, const std::string& method = "typed") {
        build.readings.push_back({std::int64_t(build.readings.size() + 1), subject, value, unit,
                                  std::fabs(value), settingsOf(subject, method, setting), method, 0,
                                  std::isinf(value)});
    };
    for (const Part& part : kit.parts) put(Subject::part(part.ref), part.unit);
    for (const Coil& coil : kit.coils) {
        put(Subject::coil(coil.ref), Unit::henry);
        for (const Winding& w : coil.windings) build.windings[coil.ref + "/" + w.name] = {w.turns, true};
    }
    for (const Check& check : kit.checks) put(Subject::check(check.id), check.unit);
    for (const Adjustment& a : kit.adjustments) {
        for (int i = 0; i < 4; ++i) put(Subject::adjustment(a.id), a.unit);
    }
    put(Subject::supply(), Unit::volt);
    for (const PowerMethod& method : powerMethods())
        put(Subject::power(), method.unit, std::string(method.id));
    put(Subject::frequency(), Unit::hertz);
    for (int order = 2; order <= 5; ++order) put(Subject::harmonic(order), Unit::decibel);
    return build;
}

void askEverything(const Kit& kit, const Build& build, const LimitProfile& profile) {
    for (const Part& part : kit.parts) partVerdict(part, build);
    for (const Coil& coil : kit.coils) {
        coilVerdict(coil, build);
        coilAdvice(coil, build);
        coilCover(kit, coil, build);
        coilReach(kit, coil, build);
        coilStage(coil, build);
        mayStillChange(kit, coil, build);
    }
    for (const Check& check : kit.checks) checkVerdict(kit, check, build);
    for (const Adjustment& a : kit.adjustments) tuneState(kit, a, build);
    lowPassAsBuilt(kit, build);
    proofState(kit, build, profile);
    readiness({kit, build, profile});
}

}  // namespace

TEST_CASE("no reading, however absurd, makes a station throw, pass or give advice in turns by the hundred") {
    const Kit& kit = practiceKit().kit;
    const LimitProfile& profile = shippedTables().profile("");
    for (const double value : kAbsurd) {
        for (const double setting : {0.0, 1.0, -5.0, 1e300, double(NAN)}) {
            INFO(value << " at " << setting);
            const Build build = readEverywhere(kit, value, setting);
            REQUIRE_NOTHROW(askEverything(kit, build, profile));
            for (const Coil& coil : kit.coils) {
                CHECK(coilVerdict(coil, build).state != VerdictState::pass);
                const auto advice = coilAdvice(coil, build);
                if (advice) CHECK(advice->turns < 20);
                if (advice && !(value > 1e-8 && value < 1)) CHECK(advice->act == TrimAdvice::Act::distrust);
            }
            CHECK_FALSE(readiness({kit, build, profile}).fit());
        }
    }
}

TEST_CASE("kits with next to nothing in them hold, too") {
    const LimitProfile& profile = shippedTables().profile("");
    Kit none;
    Kit one;
    Part part;
    part.ref = "R1";
    part.kind = PartKind::resistor;
    part.unit = Unit::ohm;
    part.nominal = 47;
    part.tolerance = 5;
    one.parts = {part};
    Kit bareTune = practiceKit().kit;  // coils whose trimmer is not in the list
    bareTune.parts.clear();
    for (const Kit& kit : {none, one, bareTune}) {
        for (const double value : kAbsurd) {
            INFO(value);
            const Build build = readEverywhere(kit, value, 0.5);
            REQUIRE_NOTHROW(askEverything(kit, build, profile));
            CHECK_FALSE(readiness({kit, build, profile}).fit());
        }
    }
}

TEST_CASE("a coil that reads as a short is not given turns") {
    const Coil& coil = *practiceKit().kit.coil("T1");
    Build build = readEverywhere(practiceKit().kit, 10e-9, 0);
    const auto advice = coilAdvice(coil, build);
    REQUIRE(advice);
    CHECK(advice->act == TrimAdvice::Act::distrust);
    CHECK(advice->sentence.find("short") != std::string::npos);
    CHECK(coilStage(coil, build) == CoilStage::advice);
}

TEST_CASE("what cannot be passes no proof, on its level or beyond its meter") {
    Kit kit;
    kit.ratings.power = 5;
    kit.ratings.powerLow = 4;
    kit.ratings.powerHigh = INFINITY;
    kit.ratings.supply = 13;
    kit.ratings.frequency = 7.03e6;
    kit.ratings.frequencyTolerance = 30;
    const LimitProfile profile;
    const Subject power = Subject::power();
    const auto stateOf = [&](double supply, bool beyond, double dbm, double attenuation) {
        Build build;
        build.readings = {{1, Subject::supply(), supply, Unit::volt, 0.05, {}, "typed", 1, beyond},
                          {2, power, dbm, Unit::dbm, 0.2, {{"attenuation", attenuation}}, "attenuator", 2}};
        return proofState(kit, build, profile);
    };
    // 6.9 dBm behind 30 dB is 4.9 W (10 dBm = 10 mW, by definition): right, and passes.
    CHECK(stateOf(13, false, 6.9, 30).powerVerdict.state == VerdictState::pass);
    // 36.9 dBm typed behind 30 dB is 4.9 kW: no such rig.
    const ProofState absurd = stateOf(13, false, 36.9, 30);
    CHECK(absurd.powerVerdict.state == VerdictState::cannotTell);
    CHECK_THAT(absurd.powerVerdict.sentence, Catch::Contains("The kit promises 5"));
    CHECK(stateOf(13, false, 36.9, 0).powerVerdict.state == VerdictState::pass);  // the same without a pad
    CHECK(stateOf(13, false, 6.9, 30).supplyVerdict.state == VerdictState::pass);
    CHECK(stateOf(60, true, 6.9, 30).supplyVerdict.state == VerdictState::cannotTell);
    CHECK(stateOf(14, true, 6.9, 30).supplyVerdict.state == VerdictState::cannotTell);
    CHECK(stateOf(18, false, 6.9, 30).supplyVerdict.state == VerdictState::doubtful);
    CHECK(stateOf(600, false, 6.9, 30).supplyVerdict.state == VerdictState::cannotTell);
    CHECK(proofState(kit, {}, profile).supplyVerdict.state == VerdictState::notDone);

    // A level behind a pad is asked about as what it was before it.
    Reading typed{0, power, 36.9, Unit::dbm, 0, {{"attenuation", 30}}, "attenuator", 0};
    CHECK_THAT(surprise(kit, typed), Catch::Contains("kW?"));
    typed.value = 6.9;
    CHECK(surprise(kit, typed).empty());
    // A limit on one side is kept by a value beyond it, any other not.
    Verdict open{VerdictState::pass, "", 1e6, {1e6, INFINITY}, 0, Unit::ohm};
    Reading beyond{0, Subject::check("x"), 1e6, Unit::ohm, 0, {}, "typed", 0, true};
    holdAgainst(kit, beyond, open);
    CHECK(open.state == VerdictState::pass);
    open.limits = {1e6, 2e6};
    holdAgainst(kit, beyond, open);
    CHECK(open.state == VerdictState::cannotTell);
}

TEST_CASE("nothing above what a kit is rated at is asked for") {
    Kit kit;
    kit.ratings.power = 5;
    for (const double rated : {9.0, 12.0, 12.5, 13.8, 20.0}) {
        kit.ratings.supply = rated;
        const auto asked = suppliesOf(kit);
        CHECK(std::all_of(asked.begin(), asked.end(), [&](double v) { return v <= rated; }));
        CHECK(std::find(asked.begin(), asked.end(), rated) != asked.end());
    }
}

TEST_CASE("nobody has looked at a board on which nothing is fitted") {
    Kit kit;
    Part chip;
    chip.ref = "U1";
    chip.kind = PartKind::ic;
    kit.parts = {chip};
    Step step;
    step.id = "fit";
    step.fits = {"U1"};
    kit.steps = {step};
    Build build;
    const auto senses = [&] { return beforePlug(Judged(kit, build, {})).front(); };
    CHECK_FALSE(senses().seen);
    build.steps["fit"] = {};
    build.steps["fit"].at = 5;
    CHECK_FALSE(senses().seen);
    build.senses["U1"] = 6;
    CHECK(senses().seen);
}
