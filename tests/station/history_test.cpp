#include "judged/history.h"

#include <catch2/catch.hpp>

#include "bench_fixture.h"
#include "judged/evidence.h"
#include "station/first_light/key_down.h"
#include "station/subjects.h"

using namespace ombrek;

namespace {

const Kit& kit() { return practiceKit().kit; }

Build eventful() {
    Build build;
    build.started = 100;
    build.readings = {
        {1, Subject::coil("T1"), 1.45e-6, Unit::henry, 1e-8, {}, "L/C meter", 200},
        {2, Subject::adjustment("rx"), 0.5, Unit::volt, 1e-3, {{"position", 0.42}}, "typed", 300},
        {3, Subject::coil("T1"), 1.40e-6, Unit::henry, 1e-8, {}, "typed", 400},
        {4, readSubject("replaced:R1"), 47, Unit::ohm, 1, {}, "typed", 450}};
    build.changes = {{Subject::coil("T1"), 1, 350, "wound"}};
    build.steps["lay-out"] = {false, 150};
    build.steps["hold-l1"] = {true, 500, "measured before it went in"};
    build.findings = {{1, "C42", Finding::What::dry, 600, 700}};
    build.gates["licence"] = {"confirmed", 800};
    build.gates[kLoadOn] = {"on", 250};
    build.gates["checks"] = {"a better meter comes on Monday", 900};
    build.photos = {{1, "lay-out", true, 160}};
    build.repairs = {{950, "R1", "burnt", "a new one"}};
    build.readings[0].who = "Mara";
    return build;
}

}  // namespace

TEST_CASE("history holds everything once, newest first, and leaves out nothing that was changed") {
    const Build build = eventful();
    const auto lines = history({kit(), build});
    CHECK(lines.size() == 1 + 4 + 1 + 1 + 2 + 2 + 3 + 1);
    CHECK(std::is_sorted(lines.begin(), lines.end(), [](auto& a, auto& b) { return a.at > b.at; }));
    const auto at = [&](std::int64_t when) {
        const auto hit = std::find_if(lines.begin(), lines.end(), [&](auto& l) { return l.at == when; });
        REQUIRE(hit != lines.end());
        return *hit;
    };
    CHECK(at(100).text == "begun");
    CHECK(at(200).retired);
    CHECK_FALSE(at(400).retired);
    CHECK(at(200).station == Station::winding);
    CHECK(at(200).text.find("L/C meter, by Mara") != std::string::npos);
    CHECK(at(350).text == "wound");
    CHECK(at(950).what == "R1");
    CHECK(at(950).text == "repaired; found: burnt; done: a new one");
    CHECK(at(300).text.find("42") != std::string::npos);  // where the trimmer stood
    CHECK(at(450).what == "replaced:R1");                 // an older book's word is kept
    CHECK(at(200).state == VerdictState::notDone);
    CHECK(at(300).state == evidenceOf(Subject::adjustment("rx"), {kit(), build}).state);
    CHECK(at(500).state == VerdictState::doubtful);
    CHECK(at(500).text.find("before it went in") != std::string::npos);
    CHECK(at(600).state == VerdictState::fail);
    CHECK(at(700).text.find("mended") != std::string::npos);
    CHECK(at(250).what == "Dummy load");
    CHECK(at(800).text == "confirmed by the builder");
    CHECK(at(900).text.find("Monday") != std::string::npos);
    CHECK(at(900).what == "Voltages and currents right");
    CHECK(at(160).text == "photograph, after");
    // The trimmer was read with the coil as it was: when the coil is changed, that reading is of the past
    // too.
    Build changed = build;
    changed.changes = {{Subject::coil("T1"), 3}};
    for (const HistoryLine& line : history({kit(), changed})) {
        if (line.at == 300 || line.at == 400) CHECK(line.retired);
    }
}

TEST_CASE("the history of a build just begun is its beginning") {
    Build build;
    build.started = 5;
    const auto lines = history({Kit{}, build});
    REQUIRE(lines.size() == 1);
    CHECK(lines.front().at == 5);
}
