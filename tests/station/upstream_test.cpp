#include "bench_fixture.h"
#include "judged/checks.h"
#include "judged/judged.h"
#include "station/first_light/first_light.h"
#include "station/notes.h"
#include "station/rests_on.h"

using namespace ombrek;

namespace {

/// Two rails and what hangs on them, invented.
Kit rails() {
    Kit kit;
    kit.id = "rails";
    for (const char* ref : {"D1", "U1", "R3"}) {
        Part part;
        part.ref = ref;
        kit.parts.push_back(part);
    }
    Check rail, mixer, lamp;
    rail.id = "rail", rail.title = "8 V rail", rail.at = "U1 output", rail.from = "D1",
    rail.limits = {7.7, 8.3};
    mixer.id = "mixer", mixer.title = "Mixer feed", mixer.at = "U3 pin 8", mixer.from = "U1";
    mixer.limits = {7.6, 8.3};
    lamp.id = "lamp", lamp.title = "lamp", lamp.seen = "the lamp lights", lamp.unit = Unit::none;
    lamp.limits.low = 0.5;
    kit.checks = {rail, mixer, lamp};
    return kit;
}

void read(Build& build, const char* check, double value, Unit unit = Unit::volt) {
    Reading reading;
    reading.id = std::int64_t(build.readings.size()) + 1;
    reading.subject = Subject::check(check);
    reading.value = value;
    reading.unit = unit;
    build.readings.push_back(reading);
}

std::string adviceAt(const Kit& kit, const Build& build, const char* check) {
    return upstreamAdvice(Judged(kit, build), *kit.check(check));
}

}  // namespace

TEST_CASE("without a circuit, what feeds a point says where to look") {
    const Kit kit = rails();
    CHECK(feedOf(kit, *kit.check("mixer")) == kit.check("rail"));
    CHECK(feedOf(kit, *kit.check("rail")) == nullptr);
    CHECK(feedOf(kit, *kit.check("lamp")) == nullptr);
    Build build;
    CHECK(adviceAt(kit, build, "mixer") == "It is fed from U1: read \"8 V rail\" first.");
    read(build, "mixer", 2.1);
    read(build, "rail", 2.2);
    CHECK(adviceAt(kit, build, "mixer") == "It is fed from U1, and \"8 V rail\" is off, too: begin there.");
    read(build, "rail", 8.0);
    CHECK(adviceAt(kit, build, "mixer") == "Its feed, 8 V rail, is right: look between U1 and here.");
    CHECK(adviceAt(kit, build, "rail") == "It is fed from D1: see first whether that gives its voltage.");
    CHECK(adviceAt(kit, build, "lamp").empty());
}

TEST_CASE("a check rests on what feeds it") {
    const auto on = restsOn(rails(), Subject::check("mixer"));
    CHECK(std::find(on.begin(), on.end(), Subject::part("U1")) != on.end());
}

TEST_CASE("what is seen or heard is a yes or a no, never a number") {
    const Kit kit = rails();
    Build build;
    const auto state = [&] { return checkVerdict(kit, *kit.check("lamp"), build).state; };
    CHECK(state() == VerdictState::notDone);
    read(build, "lamp", 0, Unit::none);
    CHECK(state() == VerdictState::fail);
    read(build, "lamp", 1, Unit::none);
    CHECK(state() == VerdictState::pass);
    CHECK(std::isnan(checkVerdict(kit, *kit.check("lamp"), build).reading));
}

TEST_CASE("what the paper has wrong and what was done otherwise, in the order of the kit") {
    Kit kit = rails();
    kit.parts[2].erratum = "printed R4 on the board";
    kit.checks[0].erratum = "the table says 9 V";
    Build build;
    build.remarks["part:U1"] = "a socket of my own. It was in the drawer";
    build.remarks["part:R3"] = "4.7 kΩ";
    build.remarks["a step"] = "a remark is no deviation";
    const auto notes = notesOf(kit, build);
    REQUIRE(notes.size() == 3);
    CHECK(notes[0].at == Subject::part("U1"));
    CHECK(notes[1].erratum == "printed R4 on the board");
    CHECK(notes[1].otherwise == "4.7 kΩ");
    CHECK(notes[2].at == Subject::check("rail"));
    CHECK(noteText(kit, build, Subject::part("R3")) ==
          "The paper is wrong here: printed R4 on the board. Made otherwise: 4.7 kΩ.");
    CHECK(noteText(kit, build, Subject::part("D1")).empty());
}
