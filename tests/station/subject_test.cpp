#include <catch2/catch.hpp>
#include <unordered_set>

#include "bench_fixture.h"
#include "judged/evidence.h"
#include "judged/judged.h"
#include "station/subjects.h"

using namespace ombrek;

TEST_CASE("a subject has one text form, and what is no subject keeps its text") {
    const std::vector<Subject> all{Subject::part("R14"),  Subject::loose(2),   Subject::coil("T1"),
                                   Subject::check("a:b"), Subject::power(),    Subject::adjustment("rx"),
                                   Subject::harmonic(3),  Subject::supply(),   Subject::frequency(),
                                   Subject::openClips(),  Subject::part("é@2")};
    std::unordered_set<Subject> different;
    for (const Subject& s : all) {
        INFO(s.text());
        CHECK(readSubject(s.text()) == s);
        CHECK(different.insert(s).second);
    }
    CHECK(Subject::harmonic(3).text() == "proof:harmonic:3");
    for (const char* text : {"", "part", "part:", "proof:powers", "proof:power ", "replaced:R1", "Part:R1"}) {
        INFO(text);
        CHECK(readSubject(text).kind == Subject::Kind::unknown);
        CHECK(readSubject(text).text() == text);
    }
}

TEST_CASE("a subject may be of one band and one condition") {
    Subject power = Subject::power();
    power.band = "40m";
    CHECK(power.text() == "proof:power@40m");
    CHECK(readSubject("proof:power@40m") == power);
    CHECK(power != Subject::power());
    for (const auto condition : {Subject::Condition::powerOff, Subject::Condition::icsOut,
                                 Subject::Condition::receive, Subject::Condition::keyDown}) {
        Subject check = Subject::check("rail5");
        check.condition = condition;
        CHECK(check.text() != Subject::check("rail5").text());
        CHECK(readSubject(check.text()) == check);
    }
    CHECK(readSubject("check:rail5#key-down").condition == Subject::Condition::keyDown);
}

TEST_CASE("of every kind the table says unit, title and evidence") {
    const Kit& kit = practiceKit().kit;
    const Build build;
    const Judged judged(kit, build);
    const struct {
        Subject subject;
        Unit unit;
        const char* title;
    } rows[] = {{Subject::part("R1"), Unit::ohm, "R1 10\u202fkΩ"},
                {Subject::coil("L1"), Unit::henry, "L1 "},
                {Subject::check("rail5"), Unit::volt, ""},
                {Subject::adjustment("bias"), Unit::ampere, ""},
                {readSubject("step:hold-l1"), Unit::none, ""},
                {Subject::supply(), Unit::volt, "Supply"},
                {Subject::power(), Unit::watt, "Power"},
                {Subject::frequency(), Unit::hertz, "Frequency"},
                {Subject::harmonic(2), Unit::decibel, "Harmonic 2"}};
    for (const auto& row : rows) {
        INFO(row.subject.text());
        CHECK(exists(kit, row.subject));
        CHECK(unitOf(kit, row.subject) == row.unit);
        CHECK(titleOf(kit, row.subject).starts_with(row.title));
        const Evidence evidence = evidenceOf(row.subject, judged);
        CHECK(evidence.state == VerdictState::notDone);
        CHECK_FALSE(evidence.what.empty());
        CHECK_FALSE(evidence.sentence.empty());
        CHECK_FALSE(evidence.onTrust);
    }
}

TEST_CASE("on trust is what was neither read nor looked at") {
    const Kit& kit = practiceKit().kit;
    const auto trusted = [&](const Build& build) {
        return evidenceOf(Subject::part("R1"), {kit, build}).onTrust;
    };
    Build build;
    CHECK_FALSE(trusted(build));
    build.parts["R1"] = PartMark::seen;
    CHECK_FALSE(trusted(build));
    build.parts["R1"] = PartMark::trusted;
    CHECK(trusted(build));
    build.readings.push_back({1, Subject::part("R1"), 10e3, Unit::ohm, 50, {}, "typed", 0});
    CHECK_FALSE(trusted(build));
}
