#include <catch2/catch.hpp>

#include "judged/hold.h"
#include "judged/judged.h"
#include "kit/kit.h"
#include "station/board/board.h"

using namespace ombrek;

namespace {

/// A kit with one chip, a check of its pin 8, and a step in these words before going on.
Kit kitWith(const std::string& words, const std::string& at = "U1 pin 8") {
    Kit kit;
    Part part;
    part.ref = "U1";
    part.kind = PartKind::other;
    kit.parts.push_back(part);
    Check check;
    check.id = "pin8";
    check.title = "supply of U1";
    check.at = at;
    check.limits = {4.75, 5.25};
    kit.checks.push_back(check);
    Step step;
    step.id = "look";
    step.title = words;
    step.hold = HoldPoint{};
    step.hold->say = words;
    kit.steps.push_back(step);
    return kit;
}

bool passesByEye(const std::string& words) {
    const Kit kit = kitWith(words);
    const Build build;
    const Judged judged(kit, build);
    return holdEarned(kit.steps[0], judged);
}

}  // namespace

TEST_CASE("a step that speaks of a check is passed by its reading, not by Enter") {
    for (const char* words : {"Pin 8 must show 5 V", "U1, pin 8: it should read 4.9 to 5.1 V",
                              "Measure at pin 8 of U1", "pin 8 reads 5v or stop here"}) {
        INFO(words);
        CHECK_FALSE(passesByEye(words));
    }
    // Another pin, another value, another part: the builder's own eyes, as before.
    for (const char* words :
         {"Pin 7 must show 5 V", "Pin 8 must show 12 V", "Look at every joint with the loupe"}) {
        INFO(words);
        CHECK(passesByEye(words));
    }
}

TEST_CASE("once the check has passed, so has the step") {
    const Kit kit = kitWith("Pin 8 must show 5 V");
    Build build;
    Reading reading;
    reading.subject = Subject::check("pin8");
    reading.value = 5.0;
    reading.unit = Unit::volt;
    reading.uncertainty = 0.02;
    build.readings.push_back(reading);
    const Judged judged(kit, build);
    CHECK(holdEarned(kit.steps[0], judged));
}

TEST_CASE("a coil that nobody wound is not fitted without a word") {
    Kit kit;
    Coil coil;
    coil.ref = "L1";
    coil.windings.push_back({});
    coil.windings.front().turns = 12;
    kit.coils.push_back(coil);
    Step step;
    step.id = "fit";
    step.fits = {"L1"};
    kit.steps.push_back(step);
    Build build;
    CHECK(coilsUntouched(step, kit, build) == std::vector<std::string>{"L1"});
    Reading reading;
    reading.subject = Subject::coil("L1");
    reading.value = 1e-6;
    reading.unit = Unit::henry;
    build.readings.push_back(reading);
    CHECK(coilsUntouched(step, kit, build).empty());
}
