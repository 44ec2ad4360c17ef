#include <cmath>

#include "bench_fixture.h"
#include "core/coil/winding.h"
#include "kit/instrument.h"
#include "station/winding/winding.h"

using namespace ombrek;

// A coil between the reel and the board, from the records alone.

namespace {

const Kit& kit() { return practiceKit().kit; }

void measured(Build& build, const std::string& coil, double value) {
    build.readings.push_back(
        {0, Subject::coil(coil), value, Unit::henry, usualUncertainty(Unit::henry, value), {}, "typed", 0});
}

void wind(Build& build, const Coil& coil) {
    for (const Winding& w : coil.windings) build.windings[coil.ref + "/" + w.name] = {w.turns, true};
}

}  // namespace

TEST_CASE("a coil passes its stages in order and never skips one") {
    const Coil& coil = *kit().coil("T1");
    Build build;
    CHECK(coilStage(coil, build) == CoilStage::cut);
    build.windings["T1/main"].turns = 1;  // begun without a word on cutting: it has been cut
    CHECK(coilStage(coil, build) == CoilStage::wind);
    wind(build, coil);
    CHECK(coilStage(coil, build) == CoilStage::measure);
    measured(build, "T1", coil.target * 1.08);
    CHECK(coilStage(coil, build) == CoilStage::advice);
    measured(build, "T1", coil.target);
    CHECK(coilStage(coil, build) == CoilStage::strip);
    build.coilChecks["T1/strip"] = "flame";
    for (const Winding& w : coil.windings) {
        CHECK(coilStage(coil, build) == CoilStage::continuity);
        CHECK(coil.windings[*windingToProve(coil, build)].name == w.name);
        build.coilChecks["T1/" + w.name + "/continuity"] = "ok";
    }
    CHECK(coilStage(coil, build) == CoilStage::isolation);
    build.coilChecks["T1/isolation"] = "ok";
    CHECK(coilStage(coil, build) == CoilStage::ready);
}

TEST_CASE("the coil to go on with is one that is begun, until it is proved") {
    Build build;
    const Coil& first = kit().coils.front();
    CHECK(nextCoil(kit(), build) == &first);
    build.windings["L2/coil"].turns = 3;
    CHECK(nextCoil(kit(), build)->ref == "L2");
    wind(build, *kit().coil("L2"));
    measured(build, "L2", kit().coil("L2")->target);
    CHECK(nextCoil(kit(), build)->ref == "L2");  // its tails are not stripped
    build.coilChecks["L2/strip"] = "scrape";
    build.coilChecks["L2/coil/continuity"] = "ok";
    CHECK(nextCoil(kit(), build) == &first);
}

TEST_CASE("the chance to reach grows when the coil is measured in the middle") {
    const Coil& coil = *kit().coil("T1");
    Build build;
    const auto before = coilReach(kit(), coil, build);
    REQUIRE(before);
    wind(build, coil);
    measured(build, "T1", coil.target);
    const auto after = coilReach(kit(), coil, build);
    CHECK(after->healthy >= before->healthy);
    measured(build, "T1", coil.target * 2);
    CHECK(coilReach(kit(), coil, build)->reaches == 0);
    CHECK_FALSE(coilReach(kit(), *kit().coil("L2"), build));
}

TEST_CASE("the transformers of the practice kit have reactance enough") {
    int checked = 0;
    for (const Coil& coil : kit().coils) {
        const auto check = coilTransformer(coil);
        if (!check) continue;
        ++checked;
        INFO(coil.ref << ": " << check->sentence);
        CHECK(check->state == VerdictState::pass);
    }
    CHECK(checked == 2);
    const auto t4 = coilTransformer(*kit().coil("T4"));
    CHECK(t4->impedanceRatio == Approx(16.0 / 36));
    CHECK(t4->secondary == Approx(22.2 * 36 / 16).epsilon(0.01));
}

TEST_CASE("every winding of the practice kit fits in one layer over 300 degrees") {
    for (const Coil& coil : kit().coils) {
        if (coil.core.shape != MagneticCore::Shape::ring) continue;
        int turns = 0;
        for (const Winding& w : coil.windings) turns += w.turns;
        INFO(coil.ref);
        CHECK(turns <= turnsOver300(coil.core, coil.wire));
    }
}
