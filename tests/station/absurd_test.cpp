#include <catch2/catch.hpp>
#include <cmath>
#include <limits>

#include "bench_fixture.h"
#include "station/board.h"
#include "station/first_light.h"
#include "station/judged.h"
#include "station/parts_in.h"
#include "station/proof.h"
#include "station/readings.h"
#include "station/sign_off.h"
#include "station/tune.h"
#include "station/winding.h"

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
