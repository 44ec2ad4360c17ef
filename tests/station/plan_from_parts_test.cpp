#include "station/board/plan_from_parts.h"

#include <catch2/catch.hpp>
#include <random>
#include <set>

#include "bench_fixture.h"
#include "station/board/work.h"

using namespace ombrek;

namespace {

Kit planned(std::vector<Part> parts) {
    Kit kit;
    kit.parts = std::move(parts);
    kit.steps = planFromParts(kit.parts);
    return kit;
}

Part part(const char* ref, PartKind kind, const char* value, const char* what = "") {
    Part out;
    out.ref = ref;
    out.kind = kind;
    out.value = value;
    out.what = what;
    return out;
}

const Step& fitting(const Kit& kit, const std::string& ref) {
    for (const Step& step : kit.steps) {
        if (std::find(step.fits.begin(), step.fits.end(), ref) != step.fits.end()) return step;
    }
    FAIL(ref);
    return kit.steps.front();
}

std::size_t placeOf(const Kit& kit, const std::vector<std::size_t>& order, const std::string& id) {
    for (std::size_t i = 0; i < order.size(); ++i) {
        if (kit.steps[order[i]].id == id) return i;
    }
    return order.size();
}

}  // namespace

TEST_CASE("a plan from the practice kit's parts fits each part once, in every school", "[plan]") {
    const Kit kit = planned(practiceKit().kit.parts);
    std::multiset<std::string> fitted;
    double minutes = 0;
    for (const Step& step : kit.steps) {
        fitted.insert(step.fits.begin(), step.fits.end());
        minutes += step.minutes;
        CHECK(step.fits.size() <= 8);
    }
    CHECK(fitted.size() == kit.parts.size());
    for (const Part& p : kit.parts) CHECK(fitted.count(p.ref) == 1);
    // A hundred parts take a first-time builder about ten hours, winding and measuring in it (common
    // practice): the board alone between a third of that and all of it.
    CHECK(minutes / double(kit.parts.size()) * 100 > 200);
    CHECK(minutes / double(kit.parts.size()) * 100 < 600);
    for (const School& s : schools()) REQUIRE(stepOrder(kit, s.order));
}

TEST_CASE("ICs wait for the voltages, sockets do not, and the case comes last, in every school", "[plan]") {
    const Kit kit =
        planned({part("D1", PartKind::other, "LCD display"), part("U1", PartKind::ic, "dual op-amp"),
                 part("XU1", PartKind::other, "IC socket, 8 pins"), part("R1", PartKind::resistor, "1 kΩ"),
                 part("J1", PartKind::other, "supply socket"), part("T1", PartKind::coil, "ring"),
                 part("H1", PartKind::other, "case"), part("Q1", PartKind::transistor, "NPN")});
    const std::string ic = fitting(kit, "U1").id, socket = fitting(kit, "XU1").id,
                      lcd = fitting(kit, "D1").id;
    for (const School& s : schools()) {
        const auto order = stepOrder(kit, s.order).value();
        CHECK(placeOf(kit, order, socket) < placeOf(kit, order, "prove-volts"));
        CHECK(placeOf(kit, order, "prove-volts") < placeOf(kit, order, ic));
        CHECK(placeOf(kit, order, ic) < placeOf(kit, order, lcd));
        CHECK(placeOf(kit, order, ic) < placeOf(kit, order, fitting(kit, "H1").id));
        // Five minutes, and eighteen seconds a part, under the loupe (common practice).
        CHECK(kit.step("look-joints")->minutes == Approx(5 + 0.3 * double(kit.parts.size())));
        CHECK(placeOf(kit, order, "look-joints") > placeOf(kit, order, fitting(kit, "J1").id));
    }
    CHECK(fitting(kit, "Q1").caution.find("Static") != std::string::npos);
    CHECK(fitting(kit, "T1").note.find("unglued") != std::string::npos);
    const auto lowest = stepOrder(kit, Order::lowestFirst).value(),
               hardest = stepOrder(kit, Order::hardestFirst).value();
    CHECK(placeOf(kit, lowest, fitting(kit, "R1").id) < placeOf(kit, lowest, fitting(kit, "T1").id));
    CHECK(placeOf(kit, hardest, fitting(kit, "T1").id) < placeOf(kit, hardest, fitting(kit, "R1").id));
}

TEST_CASE("odd lists still make a plan", "[plan]") {
    CHECK(planFromParts({}).size() == 3);
    const Kit ics = planned({part("U1", PartKind::ic, "x"), part("U2", PartKind::ic, "y")});
    REQUIRE(stepOrder(ics, Order::manual));
    std::mt19937 engine(9);
    for (int round = 0; round < 50; ++round) {
        std::vector<Part> parts;
        for (int i = 0; i < int(engine() % 60); ++i)
            parts.push_back(part(("P" + std::to_string(i)).c_str(), PartKind(engine() % kPartKinds),
                                 engine() % 3 ? "a" : "b"));
        const Kit kit = planned(parts);
        for (const School& s : schools()) REQUIRE(stepOrder(kit, s.order));
    }
}

TEST_CASE("the practice kit: what kind of work its steps are, and what its schools move", "[plan]") {
    const Kit& kit = practiceKit().kit;
    CHECK(workOf(kit, *kit.step("r-supply")) == WorkKind::solder);
    CHECK(workOf(kit, *kit.step("d1")) == WorkKind::polarised);
    CHECK(workOf(kit, *kit.step("hold-supply")) == WorkKind::test);
    CHECK(workOf(kit, *kit.step("look-supply")) == WorkKind::inspect);
    CHECK(workOf(kit, *kit.step("t1")) == WorkKind::winding);
    CHECK(hardnessOf(kit, *kit.step("t1")) > hardnessOf(kit, *kit.step("l1")));
    std::set<std::vector<std::size_t>> orders;
    for (const School& s : schools()) {
        const auto order = stepOrder(kit, s.order).value();
        orders.insert(order);
        const auto hold = placeOf(kit, order, "hold-supply");
        for (const Step& step : kit.steps) {
            if (std::find(step.after.begin(), step.after.end(), "hold-supply") != step.after.end())
                CHECK(hold < placeOf(kit, order, step.id));
        }
    }
    CHECK(orders.size() == schools().size());
}
