#include <catch2/catch.hpp>

#include "bench_fixture.h"
#include "formats/command_set.h"

using namespace ombrek;

namespace {

std::string withSupply(const std::string& setup, const std::string& amperes = "CURR #") {
    return R"({"format": "ombrek-instrument", "version": 1, "id": "s", "name": "supply", "setup": [")" +
           setup +
           R"("], "queries": [{"quantity": "voltage", "ask": "MEAS:VOLT?"}], "supply": {"volts": "VOLT #", "amperes": ")" +
           amperes + R"(", "volts asked": "VOLT?", "amperes asked": "CURR?", "output": "OUTP?"}})";
}

}  // namespace

TEST_CASE("the command sets that ship can be read, and none of them switches an output") {
    const auto sets = readCommandSets(std::filesystem::path(OMBREK_DATA_FOLDER) / "instruments");
    if (!sets) FAIL(sets.error().text());
    CHECK(sets->size() >= 6);
    int supplies = 0;
    for (const CommandSet& set : *sets) {
        INFO(set.id);
        CHECK_FALSE(set.name.empty());
        CHECK_FALSE(set.source.empty());
        supplies += set.supply.has_value();
        for (const auto& q : set.queries) CHECK(set.query(q.unit, q.flow) != nullptr);
    }
    CHECK(supplies == 1);
    const auto dmm =
        std::find_if(sets->begin(), sets->end(), [](auto& s) { return s.id == "bench-multimeter"; });
    REQUIRE(dmm != sets->end());
    CHECK(dmm->query(Unit::volt, Flow::ac)->ask == "MEAS:VOLT:AC?");
    CHECK(dmm->query(Unit::volt, Flow::dc)->ask == "MEAS:VOLT:DC?");
    CHECK(dmm->query(Unit::henry) == nullptr);
}

TEST_CASE("a command set that would switch an output on is refused, with its place") {
    CHECK(readCommandSet(withSupply("SYST:REM")));
    for (const char* line :
         {"OUTP ON", "OUTPUT:STATE 1", ":outp 1", "SYST:REM;OUTP ON", "INST 1:OUTP ON", "VOLT 30\\nOUTP ON",
          "INST:STAT ON", "instrument:state on", "*RCL 1", "*rcl 1", "*TRG", "VOLT 30", "SOUR:VOLT 30",
          "ROUT:CLOS (@101)", "SYST:REM\\u0007", "SYST:PRES", "STAT:PRES", "OUTP1:STAT 1", "DIAG 1"}) {
        INFO(line);
        const auto read = readCommandSet(withSupply(line));
        REQUIRE_FALSE(read);
        CHECK(read.error().place == "/setup");
    }
    CHECK_FALSE(readCommandSet(withSupply("SYST:REM", "CURR #;OUTP ON")));
    CHECK_FALSE(readCommandSet(withSupply("SYST:REM", "CURR 1")));  // nowhere to put the number
    CHECK(readCommandSet(withSupply("ROUT:TERM FRON")));
}

TEST_CASE("a faulty command set names the place") {
    for (
        const char* text :
        {"", "{}", "[]", R"({"format": "ombrek-instrument", "version": 2})",
         R"({"format": "ombrek-instrument", "version": 1, "id": "a", "name": "a", "queries": []})",
         R"({"format": "ombrek-instrument", "version": 1, "id": "a", "name": "a", "queries": [{"quantity": "mood", "ask": "M?"}]})",
         R"({"format": "ombrek-instrument", "version": 1, "id": "a", "name": "a", "queries": [{"quantity": "voltage", "ask": "MEAS:VOLT"}]})",
         R"({"format": "ombrek-instrument", "version": 1, "id": "a", "name": "a", "end": "bell", "queries": [{"quantity": "voltage", "ask": "V?"}]})"}) {
        INFO(text);
        const auto read = readCommandSet(text);
        REQUIRE_FALSE(read);
        CHECK_FALSE(read.error().text().empty());
    }
    const auto large = readCommandSet("{\"x\": 16e612930861291111}");
    REQUIRE_FALSE(large);
    CHECK(large.error().sentence.find("16e612930861291111") != std::string::npos);
    CHECK_FALSE(readCommandSets("/nowhere"));
}
