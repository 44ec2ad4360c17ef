#include "formats/kit_json.h"
#include "formats/kit_edit.h"

#include <fstream>
#include <nlohmann/json.hpp>
#include <random>

#include "bench_fixture.h"

using namespace ombrek;
using nlohmann::json;

namespace {

/// A kit as small as a kit can be, with one of everything, to break one thing at a time.
json smallKit() {
    return json::parse(R"({
      "format": "ombrek-kit", "version": 1, "id": "tiny", "name": "Tiny", "summary": "s",
      "board": {"width_mm": 50, "height_mm": 40},
      "parts": [
        {"ref": "R1", "kind": "resistor", "value": "4k7", "tolerance": 5, "place": {"x": 10, "y": 10, "w": 7, "h": 3}},
        {"ref": "C1", "kind": "capacitor", "value": "18p", "tolerance": 5},
        {"ref": "C2", "kind": "trimmer", "value": "5 to 30 pF", "low": "5p", "high": "30p"},
        {"ref": "L1", "kind": "coil", "value": "ring"},
        {"ref": "Q1", "kind": "transistor", "value": "NPN", "x-note": "mine"}],
      "coils": [{"ref": "L1", "core": "T37-6", "wire": "28AWG", "target": "1.45u", "windings": [{"name": "main", "turns": 22}],
                 "tune": {"trimmer": "C2", "fixed": ["C1"], "stray": "4p", "low": "21M", "high": "21.15M"}}],
      "steps": [{"id": "a", "do": "Solder R1", "fits": ["R1"], "minutes": 3},
                {"id": "b", "do": "Fit L1", "fits": ["L1"], "after": ["a"], "hold": {"needs": ["coil:L1"], "say": "why"}}],
      "look_aheads": [{"from": "a", "until": "b", "say": "keep leads"}],
      "checks": [{"id": "v", "do": "Rail", "quantity": "voltage", "low": "4.8", "high": "5.2", "gate": true}],
      "adjustments": [{"id": "p", "do": "Peak", "adjuster": "C2", "kind": "peak", "quantity": "voltage", "coil": "L1"}],
      "low_pass": [{"ref": "C1", "arm": "shunt"}, {"ref": "L1", "arm": "series"}],
      "ratings": {"power": "3 W", "supply": "12.5", "frequency": "21.06M"}
    })");
}

Result<Kit> read(const json& document) { return readKit(document.dump(), shippedTables().cores); }

/// The kit with one value replaced (or, with a null, removed) by JSON pointer.
json broken(const char* pointer, const json& value) {
    json kit = smallKit();
    kit[json::json_pointer(pointer)] = value;
    return kit;
}

json without(const char* parent, const char* name) {
    json kit = smallKit();
    kit[json::json_pointer(parent)].erase(name);
    return kit;
}

}  // namespace

TEST_CASE("a small whole kit is read") {
    const auto kit = read(smallKit());
    REQUIRE(kit);
    CHECK(kit->parts.size() == 5);
    CHECK(kit->parts[0].nominal == 4700);
    CHECK(kit->coils[0].target == 1.45e-6);
    CHECK(kit->coils[0].tolerance == 5);
    CHECK(kit->coils[0].tune->stray == 4e-12);
    CHECK(tankOf(*kit, *kit->coils[0].tune).at(0) == Approx(27e-12));
    CHECK(kit->checks[0].gate);
    CHECK(kit->ratings.powerLow == Approx(2.4));
    CHECK(lowPassOf(*kit).size() == 2);
}

TEST_CASE("all kits that ship are whole") {
    for (const char* name : {"lantern-15", "breakwater", "slack-tide", "bell-buoy", "night-ferry"}) {
        const auto kit = readKitFile(std::string(OMBREK_DATA_FOLDER) + "/demo/" + name + ".kit.json",
                                     shippedTables().cores);
        INFO(name);
        if (!kit) INFO(kit.error().text());
        CHECK(kit);
    }
}

TEST_CASE("all that a kit says of an adjustment is kept when it is written and read again") {
    const auto& kit = tuningKit();
    std::string text = kit.text;
    for (const Adjustment& a : kit.kit.adjustments) text = withAdjustment(text, a);
    const auto again = readKit(text, shippedTables().cores);
    REQUIRE(again);
    REQUIRE(again->adjustments.size() == kit.kit.adjustments.size());
    for (std::size_t i = 0; i < again->adjustments.size(); ++i) {
        const Adjustment &a = kit.kit.adjustments[i], &b = again->adjustments[i];
        INFO(a.id);
        CHECK(a.kind == b.kind);
        CHECK(a.unit == b.unit);
        CHECK(a.turned == b.turned);
        CHECK(a.scale == b.scale);
        CHECK(a.target == b.target);
        CHECK(a.tolerance == b.tolerance);
        CHECK(a.never == b.never);
        CHECK(a.volts == b.volts);
        CHECK(a.safe == b.safe);
        CHECK(a.after == b.after);
        CHECK(a.needs == b.needs);
        CHECK(a.ready == b.ready);
        CHECK(a.each == b.each);
        CHECK(a.partners == b.partners);
        CHECK(a.warmUp == b.warmUp);
        CHECK(a.keyDown == b.keyDown);
        CHECK(a.rest == b.rest);
    }
}

TEST_CASE("a coil and a check that are entered anew keep what the entry does not speak of") {
    json kit = smallKit();
    kit["coils"][0]["tail_mm"] = 18;
    kit["coils"][0]["tolerance"] = 3;
    kit["coils"][0]["impedance"] = 200;
    kit["coils"][0]["windings"][0]["start"] = {{"x", 3}, {"y", 4}};
    kit["coils"][0]["windings"][0]["finish"] = {{"x", 9}, {"y", 4}};
    kit["checks"].push_back({{"id", "i"},
                             {"do", "Current"},
                             {"quantity", "current"},
                             {"low", "1m"},
                             {"high", "3m"},
                             {"bridge", "JP2"}});
    const Kit before = *read(kit);
    Coil coil = before.coils[0];
    coil.windings[0].turns = 20;
    const Kit wound = *readKit(withCoil(kit.dump(), coil), shippedTables().cores);
    CHECK(wound.coils[0].windings[0].turns == 20);
    CHECK(wound.coils[0].tail == Approx(0.018));
    CHECK(wound.coils[0].tolerance == 3);
    CHECK(wound.coils[0].impedance == 200);
    REQUIRE(wound.coils[0].windings[0].finish);
    CHECK(wound.coils[0].windings[0].finish->x == 9);
    coil.core = *std::find_if(shippedTables().cores.begin(), shippedTables().cores.end(),
                              [](const MagneticCore& c) { return c.designation == "T50-2"; });
    CHECK(readKit(withCoil(kit.dump(), coil), shippedTables().cores)->coils[0].tolerance == 5);
    Check check = before.checks[1];
    check.limits.high = 2.5e-3;
    const Kit checked = *readKit(withChecks(kit.dump(), {check}), shippedTables().cores);
    CHECK(checked.checks[1].bridge == "JP2");
    CHECK(checked.checks[1].limits.high == Approx(2.5e-3));
    CHECK(checked.checks.size() == 2);
}

TEST_CASE("strays that a builder says stand at the coil alone") {
    const std::string text = smallKit().dump();
    const Kit kit = *readKit(withStray(text, "L1", 7e-12), shippedTables().cores);
    CHECK(kit.coils[0].tune->stray == Approx(7e-12));
    CHECK(kit.coils[0].tune->fixed == std::vector<std::string>{"C1"});
    CHECK(readKit(withStray(text, "L9", 7e-12), shippedTables().cores)->coils[0].tune->stray ==
          Approx(4e-12));
    CHECK_FALSE(readKit(withStray(text, "L1", -1e-12), shippedTables().cores));
}

TEST_CASE("a bias has a safe end, and what must never be reached lies above what is wanted") {
    json kit = smallKit();
    json& a = kit["adjustments"][0];
    a.erase("coil");
    a["kind"] = "bias";
    a["quantity"] = "current";
    const auto bias = read(kit);
    REQUIRE(bias);
    CHECK(bias->adjustments[0].safe == SafeEnd::low);
    a["safe_end"] = "none";
    CHECK(read(kit).error().place == "/adjustments/0/safe_end");
    a["safe_end"] = "high";
    a["target"] = "50m";
    a["never"] = "40m";
    CHECK(read(kit).error().place == "/adjustments/0/never");
    a["scale"] = "bar";
    a["never"] = "400m";
    CHECK(read(kit).error().place == "/adjustments/0/scale");
    a = {{"id", "c"}, {"do", "Contrast"}, {"adjuster", "C2"}, {"kind", "contrast"}};
    CHECK(read(kit)->adjustments[0].unit == Unit::none);
    a["kind"] = "level";
    CHECK_FALSE(read(kit).has_value());  // a level is of something
}

TEST_CASE("a kit brings a core of its own, a ring or with two holes") {
    json kit = smallKit();
    kit["coils"][0].erase("core");
    kit["coils"][0]["own_core"] = {{"name", "club ring"}, {"shape", "ring"},   {"material", "powdered-iron"},
                                   {"al", "3.2n"},        {"al_tolerance", 8}, {"outer_mm", 9.5},
                                   {"inner_mm", 5.2},     {"height_mm", 3.3}};
    const auto own = read(kit);
    REQUIRE(own);
    CHECK(own->coils[0].core.designation == "club ring");
    CHECK(own->coils[0].core.al == 3.2e-9);
    CHECK(own->coils[0].core.innerDiameter == Approx(5.2e-3));
    CHECK(own->coils[0].tolerance == 5);
    const std::pair<const char*, json> faults[] = {{"shape", "pot"}, {"inner_mm", 9.5}, {"inner_mm", 12},
                                                   {"outer_mm", 0},  {"al", "0"},       {"turn_mm", 17}};
    for (const auto& [field, value] : faults) {
        INFO(field);
        json wrong = kit;
        wrong["coils"][0]["own_core"][field] = value;
        const auto refused = read(wrong);
        REQUIRE_FALSE(refused);
        CHECK(refused.error().place.find("/coils/0/own_core") == 0);
    }
}

TEST_CASE("each kind of fault in a kit is told at its path") {
    struct Fault {
        const char* pointer;
        json value;
        const char* place;
    };
    const std::vector<Fault> faults{
        {"/format", "other", "/format"},
        {"/version", 2, "/version"},
        {"/version", "1", "/version"},
        {"/version", 1.5, "/version"},
        {"/name", 7, "/name"},
        {"/parts", json::array(), "/parts"},
        {"/parts", "R1", "/parts"},
        {"/parts/0", "R1", "/parts/0"},
        {"/parts/0/ref", "", "/parts/0/ref"},
        {"/parts/0/ref", std::string(40, 'R'), "/parts/0/ref"},
        {"/parts/0/kind", "gizmo", "/parts/0/kind"},
        {"/parts/0/value", "4k7F", "/parts/0/value"},
        {"/parts/0/value", "many", "/parts/0/value"},
        {"/parts/0/value", -5, "/parts/0/value"},
        {"/parts/0/value", json::array(), "/parts/0/value"},
        {"/parts/0/tolerance", 0, "/parts/0/tolerance"},
        {"/parts/0/tolerance", "5", "/parts/0/tolerance"},
        {"/parts/0/tolerence", 5, "/parts/0/tolerence"},
        {"/parts/0/place/x", -3, "/parts/0/place/x"},
        {"/parts/0/place/w", 0, "/parts/0/place/w"},
        {"/parts/1/ref", "R1", "/parts/1"},
        {"/parts/2/low", "40p", "/parts/2/high"},
        {"/coils/0/core", "T99-99", "/coils/0/core"},
        {"/coils/0/wire", "thick", "/coils/0/wire"},
        {"/coils/0/target", "-1u", "/coils/0/target"},
        {"/coils/0/windings", json::array(), "/coils/0/windings"},
        {"/coils/0/windings/0/turns", -4, "/coils/0/windings/0/turns"},
        {"/coils/0/windings/0/turns", 2.5, "/coils/0/windings/0/turns"},
        {"/coils/0/windings/1", json{{"name", "main"}, {"turns", 3}}, "/coils/0/windings/1/name"},
        {"/coils/0/windings/0/start", json{{"x", 1}, {"y", 1}}, "/coils/0/windings/0/start"},
        {"/coils/0/windings/0/taps", json::array({json{{"at", 22}, {"name", "end"}}}),
         "/coils/0/windings/0/taps/0/at"},
        {"/coils/0/windings/0/taps",
         json::array({json{{"at", 9}, {"name", "a"}}, json{{"at", 4}, {"name", "b"}}}),
         "/coils/0/windings/0/taps/1/at"},
        {"/coils/0/twisted", json::array({"main"}), "/coils/0/twisted"},
        {"/coils/0/twisted", json::array({"main", "ghost"}), "/coils/0/twisted"},
        {"/coils/0/sense", "widdershins", "/coils/0/sense"},
        {"/coils/0/impedance", "0", "/coils/0/impedance"},
        {"/coils/0/tune/trimmer", "C9", "/coils/0/tune/trimmer"},
        {"/coils/0/tune/trimmer", "R1", "/coils/0/tune/trimmer"},
        {"/coils/0/tune/fixed/0", "Q1", "/coils/0/tune/fixed"},
        {"/coils/0/tune/high", "20M", "/coils/0/tune/high"},
        {"/steps/0/fits/0", "R9", "/steps/0/fits"},
        {"/steps/0/minutes", 0, "/steps/0/minutes"},
        {"/steps/0/after", json::array({"b"}), "/steps, a"},
        {"/steps/1/after/0", "ghost", "/steps, b"},
        {"/steps/1/id", "a", "/steps/1"},
        {"/steps/1/hold/needs/0", "coil:L9", "/steps/1/hold/needs"},
        {"/steps/1/hold/needs/0", "nonsense", "/steps/1/hold/needs"},
        {"/look_aheads/0/from", "zz", "/look_aheads/0/from"},
        {"/checks/0/quantity", "warmth", "/checks/0/quantity"},
        {"/checks/0/bridge", "JP1", "/checks/0/bridge"},  // a voltage has no gap
        {"/checks/0/low", "6", "/checks/0/low"},
        {"/checks/0/gate", "yes", "/checks/0/gate"},
        {"/adjustments/0/kind", "wiggle", "/adjustments/0/kind"},
        {"/adjustments/0/kind", "set", "/adjustments/0/target"},
        {"/adjustments/0/turned", "knob", "/adjustments/0/turned"},
        {"/adjustments/0/turned", "menu", "/adjustments/0/to"},
        {"/adjustments/0/scale", "stars", "/adjustments/0/scale"},
        {"/adjustments/0/blocks", 1, "/adjustments/0/blocks"},
        {"/adjustments/0/never", "-2", "/adjustments/0/never"},
        {"/adjustments/0/after", json::array({"nobody"}), "/adjustments/0/after"},
        {"/adjustments/0/after", json::array({"p"}), "/adjustments/0/after"},
        {"/adjustments/0/needs", json::array({"check:none"}), "/adjustments/0/needs"},
        {"/adjustments/0/each", json::array({"Q9"}), "/adjustments/0/each"},
        {"/adjustments/0/warm_up_minutes", -1, "/adjustments/0/warm_up_minutes"},
        {"/adjustments/0/adjuster", "C9", "/adjustments/0/adjuster"},
        {"/adjustments/0/coil", "L9", "/adjustments/0/coil"},
        {"/low_pass/0/arm", "sideways", "/low_pass/0/arm"},
        {"/low_pass/0/ref", "C9", "/low_pass/0/ref"},
        {"/ratings/frequency", 0, "/ratings/frequency"},
        {"/ratings/harmonics", 1, "/ratings/harmonics"},
        {"/board/width_mm", 1e9, "/board/width_mm"},
        {"/surprise", true, "/surprise"},
        {"/name", std::string("a\0b", 3), "/name"},
        {"/note", std::string(5000, 'x'), "/note"},
    };
    for (const Fault& fault : faults) {
        const auto kit = read(broken(fault.pointer, fault.value));
        INFO(fault.pointer << " = " << fault.value.dump().substr(0, 60));
        REQUIRE_FALSE(kit);
        CHECK(kit.error().place == fault.place);
        CHECK(kit.error().sentence.size() > 10);
        CHECK(kit.error().sentence.back() == '.');
    }
}

TEST_CASE("each missing field is told") {
    const std::vector<std::pair<const char*, const char*>> fields{{"", "format"},
                                                                  {"", "version"},
                                                                  {"", "id"},
                                                                  {"", "name"},
                                                                  {"", "parts"},
                                                                  {"/parts/0", "ref"},
                                                                  {"/parts/0", "kind"},
                                                                  {"/parts/0", "value"},
                                                                  {"/parts/0", "tolerance"},
                                                                  {"/coils/0", "core"},
                                                                  {"/coils/0", "wire"},
                                                                  {"/coils/0", "target"},
                                                                  {"/steps/0", "id"},
                                                                  {"/steps/0", "do"},
                                                                  {"/checks/0", "quantity"},
                                                                  {"/adjustments/0", "adjuster"},
                                                                  {"/coils/0/tune", "trimmer"}};
    for (const auto& [parent, name] : fields) {
        const auto kit = read(without(parent, name));
        INFO(parent << "/" << name);
        REQUIRE_FALSE(kit);
        CHECK(kit.error().place == std::string(parent) + "/" + name);
    }
}

TEST_CASE("text that is no JSON is told with line and column") {
    const auto kit =
        readKit("{\n  \"format\": \"ombrek-kit\",\n  \"version\": 1,,\n}", shippedTables().cores);
    REQUIRE_FALSE(kit);
    CHECK(kit.error().place == "line 3, column 16");
    for (const char* text : {"", "[]", "null", "42", "\"kit\"", "{", "{\"a\":}", "\xff\xfe",
                             "{\"format\": \"ombrek-kit\"} trailing"}) {
        INFO(text);
        CHECK_FALSE(readKit(text, shippedTables().cores));
    }
    CHECK_FALSE(readKit(std::string("\0\0\0\0", 4), shippedTables().cores));
}

TEST_CASE("deep nesting is refused without a crash") {
    std::string deep = smallKit().dump();
    deep.insert(deep.size() - 1, ",\"x-deep\":" + std::string(2000, '[') + std::string(2000, ']'));
    CHECK(readKit(deep, shippedTables().cores));  // a free field may hold anything
    CHECK_FALSE(readKit(std::string(100000, '['), shippedTables().cores));
}

TEST_CASE("a kit of random bytes or with random damage never crashes") {
    const std::string whole = smallKit().dump(1);
    std::mt19937 engine(17);
    for (int i = 0; i < 4000; ++i) {
        std::string text = whole;
        for (unsigned n = 1 + engine() % 4; n > 0; --n) {
            const std::size_t at = engine() % text.size();
            switch (engine() % 3) {
                case 0:
                    text[at] = static_cast<char>(engine() % 256);
                    break;
                case 1:
                    text.erase(at, 1 + engine() % 5);
                    break;
                default:
                    text.insert(at, 1, static_cast<char>(engine() % 128));
                    break;
            }
        }
        const auto kit = readKit(text, shippedTables().cores);
        if (!kit) REQUIRE_FALSE(kit.error().sentence.empty());
    }
}

TEST_CASE("files: absent, a folder, too large") {
    const Folder folder;
    CHECK_FALSE(readKitFile(folder / "none.json", shippedTables().cores));
    CHECK_FALSE(readKitFile(std::filesystem::temp_directory_path(), shippedTables().cores));
    const auto large = folder / "large.json";
    std::ofstream(large).seekp(1000000000).put('x');  // a sparse file of 1 GB is refused by its size alone
    const auto refused = readKitFile(large, shippedTables().cores);
    REQUIRE_FALSE(refused);
    CHECK(refused.error().sentence.find("1000 MB") != std::string::npos);
}
