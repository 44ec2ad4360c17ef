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

TEST_CASE("a core is known again from its size, paint and ten trial turns, and odds mean what they say") {
    // Clues as things are, not as the estimator takes them: a ring anywhere within its makers' ±0.25 mm (from
    // memory of data sheets), a calliper in steps of 0.05 mm (DIN 862), an AL anywhere within its published
    // tolerance, a meter of ±1 % and a digit, all rectangular.
    std::mt19937 engine(9);
    std::uniform_real_distribution<double> within(-1, 1);
    int right = 0, sure = 0, sureAndRight = 0, all = 0, inThree = 0;
    const auto calliper = [&](double size) {
        return std::round((size + 0.25e-3 * within(engine)) / 0.05e-3) * 0.05e-3;
    };
    for (int round = 0; round < 5; ++round) {
        for (const MagneticCore& c : cores()) {
            if (c.shape != MagneticCore::Shape::ring) continue;
            CoreClues clues;
            clues.outerDiameter = calliper(c.outerDiameter);
            clues.innerDiameter = calliper(c.innerDiameter);
            clues.height = calliper(c.height);
            clues.paint = c.paint.empty() ? "none" : c.paint;
            const double wound = inductance(c, 10) * (1 + c.alTolerancePercent / 100 * within(engine));
            clues.inductance = std::round(wound * (1 + 0.01 * within(engine)) / 1e-8) * 1e-8;
            clues.error = 0.01 * clues.inductance + 1e-8;
            if (!(clues.inductance > 0)) continue;
            const auto guesses = whichCore(clues, cores());
            double sum = 0;
            for (const CoreGuess& g : guesses) sum += g.odds;
            CHECK(sum == Approx(1));
            ++all;
            right += guesses.front().core == &c;
            inThree +=
                std::any_of(guesses.begin(), guesses.begin() + 3, [&](auto& g) { return g.core == &c; });
            if (guesses.front().odds < 0.9) continue;
            ++sure;
            sureAndRight += guesses.front().core == &c;
        }
    }
    INFO(right << " right, " << inThree << " in three, of " << all << "; sure of " << sure << ", right in "
               << sureAndRight);
    CHECK(sure > all / 2);
    CHECK(sureAndRight >= 0.9 * sure);  // what odds of 0.9 and more promise
    CHECK(inThree >= 0.95 * all);
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

TEST_CASE("odds between two rings are those of Bayes' theorem") {
    // Source: Bayes' theorem with equal priors; normal densities of the calliper (0.15 mm and 1 % of the
    // size, added as squares) and of ln AL (a third of the makers' limit and half the meter's U, added as
    // squares).
    MagneticCore a, b;
    a.designation = "A";
    a.outerDiameter = 12.7e-3;
    a.al = 5e-9;
    a.alTolerancePercent = 5;
    b = a;
    b.designation = "B";
    b.outerDiameter = 30e-3;  // its 1 % counts
    b.al = 9e-9;
    b.alTolerancePercent = 20;
    CoreClues clues;
    clues.outerDiameter = 13.2e-3;
    clues.callipers = 4e-3;  // so that both stay thinkable
    clues.inductance = 0.66e-6;
    clues.error = 0.02e-6;
    const auto density = [](double x, double mean, double sigma) {
        return std::exp(-std::pow((x - mean) / sigma, 2) / 2) / sigma;
    };
    const auto weight = [&](const MagneticCore& c) {
        const double size = std::hypot(4e-3, 0.01 * c.outerDiameter);
        const double al = std::hypot(c.alTolerancePercent / 100 / 3, 0.02 / 2 / 0.66);
        return density(13.2e-3, c.outerDiameter, size) * density(std::log(0.66e-6 / (c.al * 100)), 0, al);
    };
    const std::vector<MagneticCore> two{a, b};
    for (const CoreGuess& guess : whichCore(clues, two))
        CHECK(guess.odds == Approx(weight(*guess.core) / (weight(a) + weight(b))).epsilon(1e-9));
}
