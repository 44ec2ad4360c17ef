#include "core/coil/own_core.h"

#include <catch2/catch.hpp>

#include "core/coil/winding.h"

using namespace ombrek;

namespace {

MagneticCore table() {
    MagneticCore core;
    core.designation = "T50-2";
    core.outerDiameter = 12.7e-3;
    core.innerDiameter = 7.7e-3;
    core.height = 4.83e-3;
    core.al = 4.9e-9;
    core.alTolerancePercent = 5;
    core.tempco = 95;
    core.paint = "red";
    return core;
}

}  // namespace

TEST_CASE("a ring described in words winds as the same ring of the table", "[own core]") {
    MagneticCore own;
    CHECK(takeOwnCore(own, "12.7x7.7x4.83"));
    CHECK_FALSE(whole(own));
    CHECK(takeOwnCore(own, "AL4.9n"));
    REQUIRE(whole(own));
    const Wire wire = parseWire("26AWG").value();
    // Source: definition of AL; 21 turns at 4.9 nH are 2.16 µH (handbook, from memory).
    CHECK(inductance(own, 21) == Approx(2.16e-6).epsilon(0.002));
    CHECK(turnsThatFit(own, wire) == turnsThatFit(table(), wire));
    CHECK(wireOnCore(own, wire, 21) == Approx(wireOnCore(table(), wire, 21)));
    MagneticCore comma;
    CHECK((takeOwnCore(comma, "al=4,9nH") && takeOwnCore(comma, "12,7X7,7X4,83")));
    CHECK(comma.al == own.al);
    CHECK(comma.height == Approx(own.height));
}

TEST_CASE("a table's ring changed by a word keeps its size, not what only the table knew", "[own core]") {
    MagneticCore core = table();
    REQUIRE(takeOwnCore(core, "AL10n"));
    CHECK(core.innerDiameter == table().innerDiameter);
    CHECK(core.tempco == 0);
    CHECK(core.paint.empty());
    CHECK(core.designation != "T50-2");
    CHECK(whole(core));
}

TEST_CASE("what is no core leaves the core alone", "[own core]") {
    for (const char* word :
         {"", "x", "AL", "AL4.9", "AL-3n", "AL0n", "AL4.9p4", "AL1", "ALICE", "12x7", "7x12x5", "12x7x0",
          "12x7x5x3", "12xx5", "12mmx7x5", "9000x1x1", "T50-2", "26", "7x7x7"}) {
        INFO(word);
        MagneticCore core = table();
        CHECK_FALSE(takeOwnCore(core, word));
        CHECK(core.designation == "T50-2");
    }
}
