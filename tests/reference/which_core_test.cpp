#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/coil/loss.h"
#include "core/coil/which_core.h"
#include "core/coil/winding.h"
#include "formats/tables.h"

using namespace ombrek;

namespace {

const std::vector<MagneticCore>& cores() {
    static const auto table = readTables(OMBREK_DATA_FOLDER).value().cores;
    return table;
}

const MagneticCore& core(const std::string& name) {
    for (const MagneticCore& c : cores()) {
        if (c.designation == name) return c;
    }
    FAIL("no core " << name);
    return cores().front();
}

}  // namespace

TEST_CASE("a core is known again from its size, paint and ten trial turns") {
    std::mt19937 engine(9);
    std::normal_distribution<double> normal;
    int first = 0, all = 0;
    for (const MagneticCore& c : cores()) {
        if (c.shape != MagneticCore::Shape::ring) continue;
        CoreClues clues;
        clues.outerDiameter = c.outerDiameter + 0.1e-3 * normal(engine);
        clues.innerDiameter = c.innerDiameter + 0.1e-3 * normal(engine);
        clues.height = c.height + 0.1e-3 * normal(engine);
        clues.paint = c.paint.empty() ? "none" : c.paint;
        clues.inductance = inductance(c, 10) * (1 + c.alTolerancePercent / 300 * normal(engine));
        clues.error = 0.01 * clues.inductance;
        const auto guesses = whichCore(clues, cores());
        double sum = 0;
        for (const CoreGuess& g : guesses) sum += g.odds;
        CHECK(sum == Approx(1));
        ++all;
        first += guesses.front().core == &c;
        CHECK(std::any_of(guesses.begin(), guesses.begin() + 3, [&](auto& g) { return g.core == &c; }));
    }
    CHECK(first >= all * 9 / 10);
}

TEST_CASE("size alone leaves several mixes open, the inductance settles it") {
    const MagneticCore& c = core("T50-6");
    CoreClues clues;
    clues.outerDiameter = c.outerDiameter;
    clues.innerDiameter = c.innerDiameter;
    clues.height = c.height;
    CHECK(whichCore(clues, cores()).front().odds < 0.5);
    clues.inductance = inductance(c, 10);
    clues.error = 0.01 * clues.inductance;
    clues.paint = "yellow";
    CHECK(whichCore(clues, cores()).front().core->designation == "T50-6");
    CHECK(whichCore(clues, cores()).front().odds > 0.9);
}

TEST_CASE("another core: turns for it and what gets worse") {
    const MagneticCore& own = core("T50-6");
    const Wire wire = parseWire("28AWG").value();
    const std::vector<MagneticCore> atHand{core("T50-2"), core("T37-6"), core("FT37-43"), own};
    const auto others = otherCores(own, 2e-6, wire, 21e6, atHand);
    REQUIRE(others.size() == 3);
    for (const OtherCore& o : others) {
        CHECK(o.core->designation != own.designation);
        CHECK(o.turns == turnsFor(*o.core, 2e-6));
        CHECK(o.copperQ > 0);
    }
    CHECK(others.back().core->designation ==
          "FT37-43");  // so few turns that the step is coarse, and it drifts
    CHECK_FALSE(others.back().worse.empty());
    CHECK(otherCores(own, 2e-6, wire, 21e6, {}).empty());
}
