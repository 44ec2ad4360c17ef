#include <catch2/catch.hpp>

#include "formats/files.h"
#include "formats/tables.h"
#include "station/first_light/symptoms.h"

using namespace ombrek;

namespace {

Kit kitWith(std::initializer_list<Part> parts) {
    Kit kit;
    kit.parts = parts;
    return kit;
}
Part part(const char* ref, const char* what) {
    Part out;
    out.ref = ref;
    out.what = what;
    return out;
}

}  // namespace

TEST_CASE("symptoms: the shipped ones read, every cause has a test, contrast is first for a dark display") {
    const auto text = readFile(dataFolder() / "symptoms.csv", 1000000);
    REQUIRE(text);
    const auto all = readSymptoms(*text);
    REQUIRE(all);
    CHECK(all->size() >= 12);
    for (const Symptom& s : *all) {
        INFO(s.id);
        CHECK_FALSE(s.title.empty());
        CHECK(s.causes.size() >= 2);
        CHECK(std::count_if(all->begin(), all->end(), [&](const Symptom& o) { return o.id == s.id; }) == 1);
    }
    const Kit kit =
        kitWith({part("R5", "contrast trimmer"), part("DS1", "LCD module"), part("J3", "phones jack")});
    const auto mine = symptomsOf(kit, *all);
    CHECK(mine.size() == all->size());
    CHECK(mine.front().id == "display-blank");
    // There is nothing to be lit: it stands behind what this kit has.
    CHECK(mine.back().id != "no-sound");
    const auto causes = causesNow(kit, Build(), mine.front());
    CHECK(causes.front().cause.suspect.find("contrast") == 0);
    CHECK(causes.front().refs == std::vector<std::string>{"R5"});
    double sum = 0;
    for (const CauseNow& c : causes) sum += c.share;
    CHECK(sum == Approx(1));
}

TEST_CASE("symptoms: what was tried goes to the end and comes back: a kit's own words go first") {
    const Symptom shipped{
        "dark",
        "Dark",
        {},
        {{"lamp", {}, "look", "it glows", 4, false}, {"wire", {}, "pull", "it is loose", 2, false}}};
    Kit kit = kitWith({part("LA1", "lamp")});
    Build build;
    build.remarks[triedName(shipped)] = triedWith(build, shipped, "lamp");
    auto causes = causesNow(kit, build, shipped);
    CHECK(causes.front().cause.suspect == "wire");
    CHECK(causes.back().ruledOut);
    build.remarks[triedName(shipped)] = triedWith(build, shipped, "lamp");
    CHECK(causesNow(kit, build, shipped).front().cause.suspect == "lamp");
    kit.symptoms = {{"dark", "", {}, {{"switch S1", {}, "push it", "it clicks", 5, true}}},
                    {"smell", "", {}, {}}};
    const auto all = symptomsOf(kit, {shipped});
    REQUIRE(all.size() == 2);
    CHECK(all[0].title == "Dark");
    CHECK(causesNow(kit, Build(), all[0]).front().cause.suspect == "switch S1");
    CHECK(all[1].title == "smell");
    CHECK(causesNow(kit, Build(), all[1]).empty());
    // Nothing of the parts at all: everything is offered.
    CHECK(symptomsOf(Kit(), {shipped}).size() == 1);
}

TEST_CASE("symptoms: a cause names the parts that it may be, and no others") {
    const auto text = readFile(dataFolder() / "symptoms.csv", 1000000);
    const auto all = readSymptoms(*text);
    REQUIRE(all);
    Kit kit = kitWith({part("X1", "clock crystal"), part("X2", "filter crystal"), part("U1", "processor"),
                       part("L1", "coil, band-pass"), part("L5", "coil"), part("Q7", "N-MOSFET final")});
    kit.lowPass = {{"L5", true}};
    const auto refsOf = [&](const char* id, const char* suspect) {
        const auto symptom = std::find_if(all->begin(), all->end(), [&](auto& s) { return s.id == id; });
        REQUIRE(symptom != all->end());
        for (const CauseNow& now : causesNow(kit, Build(), *symptom)) {
            if (now.cause.suspect.find(suspect) != std::string::npos) return now.refs;
        }
        FAIL("no such cause: " << suspect);
        return std::vector<std::string>();
    };
    using Refs = std::vector<std::string>;
    CHECK(refsOf("display-blank", "processor does not run") == Refs{"X1", "U1"});
    CHECK(refsOf("no-power", "low-pass coil") == Refs{"L5"});
    CHECK(refsOf("no-power", "final") == Refs{"Q7"});
    kit.lowPass.clear();  // unknown names none
    CHECK(refsOf("no-power", "low-pass coil").empty());
}

TEST_CASE("symptoms: a table that is not one says so, with its line") {
    for (const auto& [text, place] :
         {std::pair{"", "line 1"}, std::pair{"symptom,title\na,b\n", "line 2"},
          std::pair{"symptom,title,needs,weight,suspect,parts,test,tells\na,b,,much,s,,t,\n",
                    "line 2, weight"},
          std::pair{"symptom,title,needs,weight,suspect,parts,test,tells\na,b,,0,s,,t,\n", "line 2, weight"},
          std::pair{"symptom,title,needs,weight,suspect,parts,test,tells\na,b,,1,,,t,\n",
                    "line 2, suspect"}}) {
        const auto read = readSymptoms(text);
        INFO(text);
        REQUIRE_FALSE(read);
        CHECK(read.error().place.find(place) == 0);
    }
}
