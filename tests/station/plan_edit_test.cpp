#include "station/board/plan_edit.h"

#include "bench_fixture.h"
#include "formats/kit_edit.h"
#include "lists/instructions.h"
#include "station/board/plan_from_parts.h"
#include "station/board/work.h"
#include "station/parts_in/hardware.h"

using namespace ombrek;

namespace {

Kit four() {
    Kit kit;
    kit.id = "four";
    for (int i = 1; i <= 4; ++i) {
        Part part;
        part.ref = "R" + std::to_string(i);
        part.kind = PartKind::resistor;
        kit.parts.push_back(part);
    }
    Step a, b, hold, chips;
    a.id = "a", a.title = "Solder R1 to R3", a.fits = {"R1", "R2", "R3"}, a.minutes = 6, a.tools = {"iron"};
    b.id = "b", b.title = "Solder R4", b.fits = {"R4"}, b.minutes = 2, b.caution = "hot";
    hold.id = "hold", hold.title = "Prove the volts", hold.hold = HoldPoint{{}, "5 V"},
    hold.after = {"a", "b"};
    chips.id = "chips", chips.title = "Press in the chips", chips.after = {"hold"};
    kit.steps = {a, b, hold, chips};
    return kit;
}

std::vector<std::string> titles(const std::vector<Step>& steps) {
    std::vector<std::string> out;
    for (const Step& step : steps) out.push_back(step.title);
    return out;
}

/// Every part in exactly one step, whatever was done to the plan.
bool whole(const Kit& kit, const std::vector<Step>& steps) {
    std::vector<std::string> fitted;
    for (const Step& step : steps) fitted.insert(fitted.end(), step.fits.begin(), step.fits.end());
    std::sort(fitted.begin(), fitted.end());
    return fitted.size() == kit.parts.size() &&
           std::adjacent_find(fitted.begin(), fitted.end()) == fitted.end();
}

}  // namespace

TEST_CASE("a step moves as far as what it waits for") {
    const Kit kit = four();
    const auto moved = movedStep(kit, "b", -1);
    REQUIRE(moved);
    CHECK(titles(*moved).front() == "Solder R4");
    CHECK_FALSE(movedStep(kit, "b", 1));  // the hold waits for it
    CHECK_FALSE(movedStep(kit, "chips", -1));
    CHECK_FALSE(movedStep(kit, "a", -1));
    CHECK_FALSE(movedStep(kit, "chips", 1));
    CHECK_FALSE(movedStep(kit, "moss", 1));
}

TEST_CASE("steps are joined, but not past a hold") {
    const Kit kit = four();
    const auto joined = joinedStep(kit, "a");
    REQUIRE(joined);
    CHECK(joined->size() == 3);
    CHECK(joined->front().fits.size() == 4);
    CHECK(joined->front().minutes == Approx(8));
    CHECK(joined->front().caution == "hot");
    CHECK((*joined)[1].after == std::vector<std::string>{"a"});
    CHECK(whole(kit, *joined));
    CHECK_FALSE(joinedStep(kit, "hold"));
    CHECK_FALSE(joinedStep(kit, "chips"));
}

TEST_CASE("a step is split, and what waits for it waits for both halves") {
    const Kit kit = four();
    const auto split = splitStep(kit, "a", 1);
    REQUIRE(split);
    REQUIRE(split->size() == 5);
    CHECK((*split)[0].fits == std::vector<std::string>{"R1"});
    CHECK((*split)[1].fits == std::vector<std::string>{"R2", "R3"});
    CHECK((*split)[3].after == std::vector<std::string>{"a", "b", (*split)[1].id});
    CHECK(whole(kit, *split));
    CHECK_FALSE(splitStep(kit, "b", 1));
    CHECK_FALSE(splitStep(kit, "a", 0));
    CHECK_FALSE(splitStep(kit, "a", 3));
    CHECK(addedStep(kit, "Clean the flux off", "b")[2].after == std::vector<std::string>{"b"});
}

TEST_CASE("any moves, joins and splits of the practice kit's plan leave every part in one step") {
    Kit kit = practiceKit().kit;
    const std::size_t parts = [&] {
        std::size_t out = 0;
        for (const Step& step : kit.steps) out += step.fits.size();
        return out;
    }();
    std::uint64_t seed = 7;
    const auto any = [&](std::size_t most) {
        seed = seed * 6364136223846793005ULL + 1442695040888963407ULL;
        return std::size_t((seed >> 33) % most);
    };
    for (int i = 0; i < 300; ++i) {
        const Step& step = kit.steps[any(kit.steps.size())];
        const auto changed = i % 3 == 0   ? movedStep(kit, step.id, any(2) == 0 ? -1 : 1)
                             : i % 3 == 1 ? splitStep(kit, step.id, int(any(4)))
                                          : joinedStep(kit, step.id);
        if (changed) kit.steps = *changed;
        std::size_t fitted = 0;
        for (const Step& s : kit.steps) fitted += s.fits.size();
        REQUIRE(fitted == parts);
        REQUIRE(stepOrder(kit, Order::manual));
    }
    CHECK(readKit(withSteps(practiceKit().text, kit.steps), shippedTables().cores));
}

TEST_CASE("sizes that words name, and what a calliper finds") {
    CHECK(sizesIn("M3 x 6 screws") == std::vector<double>{3e-3, 6e-3});
    CHECK(sizesIn("M2.5x10 countersunk") == std::vector<double>{2.5e-3, 10e-3});
    CHECK(sizesIn("0.4 mm enamelled wire") == std::vector<double>{0.4e-3});
    CHECK(sizesIn("1/4 in spacer").front() == Approx(6.35e-3));
    CHECK(sizesIn("RG174 coax").empty());
    CHECK(sizesIn("4 \u00d7 rubber feet").empty());
    Kit kit;
    for (const auto& [ref, value] : {std::pair{"HW1", "4 \u00d7 M3 x 6 screws"},
                                     {"HW2", "2 m 0.4 mm enamelled wire"},
                                     {"HW3", "4 \u00d7 M3 nuts"}}) {
        Part part;
        part.ref = ref;
        part.value = value;
        kit.parts.push_back(part);
    }
    const auto thread = hardwareOfSize(kit, 2.9e-3);  // an M3 thread over its crests, common practice
    REQUIRE(thread.size() == 2);
    CHECK(hardwareOfSize(kit, 6.05e-3).front().part->ref == "HW1");
    CHECK(hardwareOfSize(kit, 0.45e-3).front().part->ref == "HW2");
    CHECK(hardwareOfSize(kit, 20e-3).empty());
    CHECK(hardwareOfSize(kit, -1).empty());
    CHECK(hardwareOfSize(kit, NAN).empty());
    CHECK(namesThing("Fix the board with the four screws.", kit.parts[0]));
    CHECK_FALSE(namesThing("Fix the board.", kit.parts[0]));
}

TEST_CASE("an instruction that speaks of a thing of the list fits it, once") {
    Kit kit = four();
    Part sink;
    sink.ref = "HW1";
    sink.value = "1 \u00d7 heat sink";
    kit.parts.push_back(sink);
    const auto steps = stepsOf(
        readInstructions("1. Solder R1.\n2. R2 goes under the heat sink.\n3. Clean the heat sink.\n"), kit);
    REQUIRE(steps.size() == 3);
    CHECK(std::count(steps[1].fits.begin(), steps[1].fits.end(), "HW1") == 1);
    CHECK(std::count(steps[2].fits.begin(), steps[2].fits.end(), "HW1") == 0);
}
