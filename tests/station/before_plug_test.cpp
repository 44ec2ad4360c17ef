#include <catch2/catch.hpp>

#include "judged/before_plug.h"

using namespace ombrek;

namespace {

Check check(const char* id, Unit unit, const char* condition = "") {
    Check out;
    out.id = out.title = id;
    out.unit = unit;
    out.limits = {0, 10};
    out.condition = condition;
    return out;
}

}  // namespace

TEST_CASE(
    "before the plug: what the kit has is asked, one after another, and never again once power was on") {
    Kit kit;
    kit.ratings.supply = 12.5;
    Part chip;
    chip.ref = "U1";
    chip.kind = PartKind::ic;
    kit.parts = {chip};
    kit.checks = {check("short", Unit::ohm), check("rail", Unit::volt),
                  check("later", Unit::volt, "power off")};
    Build build;
    const auto ask = [&](std::size_t at) { return askBeforePlug(Judged(kit, build), kit.checks[at]); };
    CHECK_FALSE(ask(0));  // an ohmmeter wants no power
    CHECK_FALSE(ask(2));
    REQUIRE(ask(1));
    CHECK(ask(1)->gate == "before:senses");  // the plan knows of no step that fits it: nobody has looked
    build.gates["before:senses"] = {"seen", 1, ""};
    REQUIRE(ask(1));
    CHECK(ask(1)->gate == "before:chips");
    build.gates["before:chips"] = {"seen", 1, ""};
    REQUIRE(ask(1));
    CHECK(ask(1)->gate == "before:plug");
    CHECK(ask(1)->now.find("12.5") != std::string::npos);
    build.gates["before:plug"] = {"seen", 1, ""};
    CHECK_FALSE(ask(1));
    build.gates.clear();
    build.readings.push_back({1, Subject::check("rail"), 5, Unit::volt, 0, {}, "", 0});
    CHECK(powerWasOn(Judged(kit, build)));
    CHECK_FALSE(ask(1));
    // A kit that says nothing of itself is asked for its plug alone.
    Kit bare;
    bare.checks = {check("rail", Unit::volt)};
    const auto items = beforePlug(Judged(bare, Build()));
    CHECK(std::count_if(items.begin(), items.end(), [](const PlugItem& i) { return !i.seen; }) == 1);
}
