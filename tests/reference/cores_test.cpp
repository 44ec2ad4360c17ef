#include <algorithm>
#include <cmath>
#include <numbers>

#include "formats/tables.h"

using namespace ombrek;

namespace {

const std::vector<MagneticCore>& cores() {
    static const auto cores = readTables(OMBREK_DATA_FOLDER)->cores;
    return cores;
}

/// AL of a ring of rectangular section from its geometry [H]; sizes in metres.
double geometric(double permeability, double height, double outer, double inner) {
    return 4e-7 * std::numbers::pi * permeability * height * std::log(outer / inner) / (2 * std::numbers::pi);
}

}  // namespace

TEST_CASE("the core table agrees with the geometry of its rings", "[reference]") {
    // Source: inductance of a rectangular toroid, any text on inductors. What a ring may be off by comes from
    // what its makers promise (from memory of their data sheets), not from the table: ±0.015 inch on each
    // size up to one inch and 1.5 % above, the AL tolerance of the row, and a permeability that is given for
    // the mix in whole or half numbers, or for a ferrite within the same tolerance as AL.
    int rings = 0;
    for (const MagneticCore& core : cores()) {
        if (core.shape != MagneticCore::Shape::ring || core.initialPermeability < 3) continue;
        const auto play = [](double size) { return std::max(size * 0.015, std::min(0.38e-3, size * 0.05)); };
        const double h = core.height, od = core.outerDiameter, id = core.innerDiameter;
        const double mu = core.ferrite() ? core.initialPermeability * core.alTolerancePercent / 100 : 0.5;
        const double most =
            geometric(core.initialPermeability + mu, h + play(h), od + play(od), id - play(id));
        const double least =
            geometric(core.initialPermeability - mu, h - play(h), od - play(od), id + play(id));
        INFO(core.designation << ": " << core.al * 1e9 << " nH, geometry " << least * 1e9 << " to "
                              << most * 1e9);
        CHECK(core.al <= most * (1 + core.alTolerancePercent / 100));
        CHECK(core.al >= least * (1 - core.alTolerancePercent / 100));
        ++rings;
    }
    CHECK(rings > 20);
}

TEST_CASE("two-hole cores of one size share their dimensions, and AL goes with the mix") {
    const auto sizeOf = [](const MagneticCore& c) { return c.designation.substr(c.designation.find('-')); };
    int cored = 0;
    for (const MagneticCore& a : cores()) {
        if (a.shape != MagneticCore::Shape::twoHole) continue;
        ++cored;
        for (const MagneticCore& b : cores()) {
            if (b.shape != MagneticCore::Shape::twoHole || sizeOf(a) != sizeOf(b)) continue;
            CHECK(a.outerDiameter == b.outerDiameter);
            CHECK(a.turnLength == b.turnLength);
            // AL of one size goes with the initial permeability: 125, 800, 2500 for mixes 61, 43, 73 (from
            // memory), within the tolerance of both.
            const auto mu = [](const MagneticCore& c) {
                return c.mix == "61" ? 125.0 : c.mix == "43" ? 800.0 : 2500.0;
            };
            const double play = (1 + a.alTolerancePercent / 100) * (1 + b.alTolerancePercent / 100);
            CHECK(a.al / b.al <= mu(a) / mu(b) * play);
        }
    }
    CHECK(cored >= 9);
}

TEST_CASE("rings of one size share their dimensions, and of one mix their paint") {
    for (const MagneticCore& a : cores()) {
        for (const MagneticCore& b : cores()) {
            const auto size = [](const MagneticCore& c) {
                return c.designation.substr(0, c.designation.find('-'));
            };
            const bool rings = a.shape == MagneticCore::Shape::ring && b.shape == MagneticCore::Shape::ring;
            if (rings && size(a) == size(b)) CHECK(a.outerDiameter == b.outerDiameter);
            if (!a.ferrite() && !b.ferrite() && a.mix == b.mix) CHECK(a.paint == b.paint);
        }
    }
}
