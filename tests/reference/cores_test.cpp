#include <cmath>

#include "formats/tables.h"

using namespace ombrek;

namespace {

const std::vector<MagneticCore>& cores() {
    static const auto cores = readTables(OMBREK_DATA_FOLDER)->cores;
    return cores;
}

/// AL of a ring of rectangular section from its geometry [H]: 0.2·µi·h·ln(OD/ID) with h in mm, in nH.
double geometric(const MagneticCore& core) {
    return 0.2e-9 * core.initialPermeability * core.height * 1e3 *
           std::log(core.outerDiameter / core.innerDiameter);
}

}  // namespace

TEST_CASE("the core table agrees with the geometry of its rings", "[reference]") {
    // Source: inductance of a rectangular toroid, any text on inductors; the table is from memory of handbook
    // tables. Powder cores with a permeability of 3 or more agree within 15 %, ferrites within 3 %; four rows
    // of the powder table stand out in the published tables themselves and are allowed 20 %.
    int beyond = 0;
    for (const MagneticCore& core : cores()) {
        if (core.initialPermeability < 3) continue;
        const double off = std::fabs(core.al / geometric(core) - 1);
        INFO(core.designation << " off by " << off * 100 << " %");
        if (core.ferrite()) {
            CHECK(off <= 0.03);
        } else {
            CHECK(off <= 0.20);
            beyond += off > 0.15;
        }
    }
    CHECK(beyond <= 4);
}

TEST_CASE("rings of one size share their dimensions, and of one mix their paint") {
    for (const MagneticCore& a : cores()) {
        for (const MagneticCore& b : cores()) {
            const auto size = [](const MagneticCore& c) {
                return c.designation.substr(0, c.designation.find('-'));
            };
            if (size(a) == size(b)) CHECK(a.outerDiameter == b.outerDiameter);
            if (!a.ferrite() && !b.ferrite() && a.mix == b.mix) CHECK(a.paint == b.paint);
        }
    }
}
