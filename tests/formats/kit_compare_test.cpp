#include "formats/kit_compare.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "bench_fixture.h"
#include "formats/files.h"
#include "formats/kit_edit.h"
#include "formats/kit_json.h"
#include "formats/kit_upgrade.h"
#include "formats/kit_variants.h"

using namespace ombrek;
using Json = nlohmann::ordered_json;

namespace {

const std::vector<MagneticCore>& cores() { return shippedTables().cores; }

Json& rowOf(Json& kit, const char* list, const char* key, const std::string& name) {
    for (Json& row : kit[list]) {
        if (row[key] == name) return row;
    }
    FAIL(name << " is not there");
    return kit;
}

/// The next issue of the practice kit's file.
std::string nextIssue() {
    Json kit = Json::parse(practiceKit().text);
    rowOf(kit, "parts", "ref", "R1")["value"] = "12k";
    rowOf(kit, "parts", "ref", "R1").erase("place");
    rowOf(kit, "coils", "ref", "L2")["windings"][0]["turns"] = 13;
    kit["parts"].push_back({{"ref", "R99"}, {"kind", "resistor"}, {"value", "1k"}, {"tolerance", 5}});
    std::string text = withErratum(kit.dump(), Subject::check("rail8"), "the manual says 9 V");
    return withErratum(text, Subject::part("R2"), "bands swapped in the list");
}

}  // namespace

TEST_CASE("two issues of a kit are compared in words") {
    const auto differences = compareKits(practiceKit().text, nextIssue());
    CHECK(comparedInWords(differences) == "2 values, 2 errata and 1 other entry differ. R99 is new.");
    CHECK(comparedInWords(compareKits(practiceKit().text, practiceKit().text)) == "They say the same.");
    const auto other = compareKits(nextIssue(), practiceKit().text);
    CHECK(comparedInWords(other).find("R99 is no more there.") != std::string::npos);
    const auto value = std::find_if(differences.begin(), differences.end(),
                                    [](const KitDifference& d) { return d.subject == Subject::part("R1"); });
    REQUIRE(value != differences.end());
    CHECK(value->mine == "10k");
    CHECK(value->theirs == "12k");
}

TEST_CASE("a merge takes what theirs says and loses nothing of ours") {
    Json mine = Json::parse(practiceKit().text);
    mine["parts"].push_back({{"ref", "R98"}, {"kind", "resistor"}, {"value", "2k"}, {"tolerance", 5}});
    const std::string step = practiceKit().kit.steps[3].id;
    rowOf(mine, "steps", "id", step)["note"] = "mine";
    Build build;
    build.steps[step] = {};
    const auto merged = mergeKits(mine.dump(), nextIssue(), build, cores());
    REQUIRE(merged);
    const auto kit = readKit(merged->text, cores());
    REQUIRE(kit);
    CHECK(kit->part("R1")->nominal == 12e3);
    REQUIRE(kit->part("R1")->place);  // theirs had none
    CHECK(kit->part("R1")->place->x == practiceKit().kit.part("R1")->place->x);
    CHECK(kit->part("R98") != nullptr);
    CHECK(kit->part("R99") != nullptr);
    CHECK(kit->check("rail8")->erratum == "the manual says 9 V");
    CHECK(kit->step(step)->note == "mine");  // what is done stays as it was done
    CHECK(merged->changed == std::vector<std::string>{"R1", "L2"});
    REQUIRE(merged->kept.size() == 1);
    CHECK(merged->kept.front() == "Only yours, and kept: parts R98.");
    int fits = 0;
    for (const Step& s : kit->steps) fits += int(std::count(s.fits.begin(), s.fits.end(), "R99"));
    CHECK(fits == 1);
}

TEST_CASE("an upgrade removes, bridges, changes and adds, behind what is there") {
    const auto text =
        readFile(std::filesystem::path(OMBREK_DATA_FOLDER) / "demo" / "lantern-15.upgrade.json", 100000);
    REQUIRE(text);
    const auto up = withUpgrade(practiceKit().text, *text, cores());
    REQUIRE(up);
    const auto kit = readKit(up->text, cores());
    REQUIRE(kit);
    CHECK(kit->part("R51") == nullptr);
    CHECK(kit->part("C44")->nominal == Approx(33e-9));
    CHECK(kit->part("C44")->place);  // it sits where the other sat
    CHECK(kit->part("C90") != nullptr);
    CHECK(kit->upgrades == std::vector<std::string>{"Night ear"});
    std::vector<std::string> titles;
    for (std::size_t i = practiceKit().kit.steps.size(); i < kit->steps.size(); ++i)
        titles.push_back(kit->steps[i].title);
    CHECK(titles == std::vector<std::string>{"Take out R51", "Bridge the two holes of R51 with a cut lead",
                                             "Replace C44, 22n, by 33n", "Fit C90",
                                             "Look at every joint and cut of this upgrade"});
    CHECK(kit->steps.back().hold);
    CHECK(kit->steps[practiceKit().kit.steps.size()].caution.find("Unplugged") == 0);
    CHECK(up->again == std::vector<Subject>{Subject::part("R51"), Subject::part("C44"), Subject::part("C90"),
                                            Subject::check("u5-feed")});
    CHECK_FALSE(withUpgrade(up->text, *text, cores()));  // it is in already
}

TEST_CASE("an upgrade that does not say what to measure again asks everything") {
    Json up{{"format", "ombrek-upgrade"}, {"version", 1}, {"id", "x"}, {"name", "X"}, {"remove", {"R51"}}};
    const auto done = withUpgrade(practiceKit().text, up.dump(), cores());
    REQUIRE(done);
    const auto asks = [&](const Subject& subject) {
        return std::find(done->again.begin(), done->again.end(), subject) != done->again.end();
    };
    CHECK(asks(Subject::power()));
    CHECK(asks(Subject::harmonic(2)));
    for (const Check& check : practiceKit().kit.checks) CHECK(asks(Subject::check(check.id)));
    for (const Adjustment& a : practiceKit().kit.adjustments) CHECK(asks(Subject::adjustment(a.id)));
}

TEST_CASE("what is no upgrade, is for another kit or names what is not there is a sentence") {
    const Json good{{"format", "ombrek-upgrade"}, {"version", 1}, {"id", "x"}, {"name", "X"}};
    const auto with = [&](const char* field, const Json& value) {
        Json out = good;
        out[field] = value;
        return withUpgrade(practiceKit().text, out.dump(), cores());
    };
    CHECK(withUpgrade(practiceKit().text, good.dump(), cores()));
    CHECK_FALSE(with("for", "another-kit"));
    CHECK_FALSE(with("remove", {"R777"}));
    CHECK_FALSE(with("remove", "R1"));
    CHECK_FALSE(with("parts", "R1"));
    CHECK_FALSE(with("parts", {"R1"}));
    CHECK_FALSE(with("parts", Json::array({{{"ref", "R1"}, {"kind", "resistor"}, {"value", "moss"}}})));
    CHECK_FALSE(with("coils", 7));
    CHECK_FALSE(with("format", "ombrek-kit"));
    CHECK_FALSE(with("version", 2));
    CHECK_FALSE(with("steps", Json::array({{{"do", "x"}, {"fits", {"R777"}}}})));
    CHECK_FALSE(with("colour", "red"));
    CHECK_FALSE(withUpgrade(practiceKit().text, "not json", cores()));
    CHECK_FALSE(withUpgrade(practiceKit().text, "[]", cores()));
}

TEST_CASE("a merge never takes another variant's values nor an upgrade back") {
    Json ten = Json::parse(practiceKit().text), twenty = ten;
    rowOf(twenty, "parts", "ref", "R1")["value"] = "20k";
    const std::vector<KitVersion> versions{{"ten", ten.dump()}, {"twenty", twenty.dump()}};
    const auto merged =
        mergeKits(withVariants(versions, "ten"), withVariants(versions, "twenty"), Build(), cores());
    REQUIRE(merged);
    const auto kit = readKit(merged->text, cores());
    CHECK(kit->variant == "ten");
    CHECK(kit->part("R1")->nominal == 10e3);
    CHECK_FALSE(mergeKits(practiceKit().text, withVariants(versions, "ten"), Build(), cores()));
    Json up{{"format", "ombrek-upgrade"}, {"version", 1}, {"id", "x"}, {"name", "X"}, {"remove", {"R51"}}};
    const auto done = withUpgrade(practiceKit().text, up.dump(), cores());
    REQUIRE(done);
    CHECK_FALSE(mergeKits(done->text, practiceKit().text, Build(), cores()));
    CHECK(mergeKits(done->text, done->text, Build(), cores()));
}
