#include <cmath>

#include "bench_fixture.h"
#include "judged/bag.h"
#include "judged/judged.h"
#include "judged/remedy.h"
#include "report/supplier_letter.h"
#include "station/parts_in/bag_story.h"
#include "station/parts_in/parts_in.h"

using namespace ombrek;

// What the bag tells of the invented kit, worked out from hand-made builds.

namespace {

Part part(const std::string& ref, PartKind kind, double nominal, double tolerance, const std::string& mark,
          const std::string& bag = "A") {
    Part out;
    out.ref = ref;
    out.kind = kind;
    out.nominal = nominal;
    out.unit = kind == PartKind::resistor ? Unit::ohm : Unit::farad;
    out.tolerance = tolerance;
    out.mark = mark;
    out.bag = bag;
    out.value = formatQuantity(nominal, out.unit, 4);
    return out;
}

Kit smallKit() {
    Kit kit;
    kit.name = "Small";
    kit.parts = {part("R1", PartKind::resistor, 4700, 5, "yellow violet red gold"),
                 part("R2", PartKind::resistor, 47e3, 5, "yellow violet orange gold"),
                 part("R3", PartKind::resistor, 820, 5, "grey red brown gold"),
                 part("C1", PartKind::capacitor, 10e-9, 10, "103K"),
                 part("C2", PartKind::capacitor, 22e-9, 10, "223K", "B"),
                 part("C3", PartKind::capacitor, 47e-12, 5, "470J", "B")};
    return kit;
}

void read(Build& build, const std::string& ref, double value, Unit unit) {
    build.readings.push_back(
        {0, Subject::part(ref), value, unit, usualUncertainty(unit, value), {}, "typed", 0});
}

const BagTrouble* about(const BagStory& story, const std::string& ref) {
    for (const BagTrouble& t : story.troubles) {
        if (t.ref == ref) return &t;
    }
    return nullptr;
}

bool holds(const std::string& text, const std::string& part) { return text.find(part) != std::string::npos; }

}  // namespace

TEST_CASE("a good bag has nothing to tell") {
    const Kit kit = smallKit();
    Build build;
    CHECK(bagStory(kit, build).troubles.empty());
    read(build, "R1", 4.66e3, Unit::ohm);
    read(build, "C1", 9.8e-9, Unit::farad);
    build.parts["R3"] = PartMark::seen;
    CHECK(bagStory(kit, build).troubles.empty());
}

TEST_CASE("a reading too near its limit for the meter is told with what it reads") {
    const Kit kit = smallKit();
    Build build;
    read(build, "R1", 4.93e3, Unit::ohm);  // 5 % is 4.935 kΩ
    const BagStory story = bagStory(kit, build);
    REQUIRE(about(story, "R1") != nullptr);
    CHECK(about(story, "R1")->state == VerdictState::doubtful);
    CHECK(holds(about(story, "R1")->head, "reads 4.93"));
    build.readings.clear();
    build.parts["R1"] = PartMark::missing;
    CHECK_FALSE(holds(about(bagStory(kit, build), "R1")->head, "reads"));
}

TEST_CASE("two parts in each other's place are told apart and can be moved") {
    const Kit kit = smallKit();
    Build build;
    read(build, "R1", 47.3e3, Unit::ohm);
    read(build, "R2", 4.69e3, Unit::ohm);
    const BagStory story = bagStory(kit, build);
    REQUIRE(about(story, "R1"));
    CHECK(about(story, "R1")->what == BagTrouble::What::misplaced);
    CHECK(about(story, "R1")->belongsTo == "R2");
    CHECK(about(story, "R2")->belongsTo == "R1");
    CHECK(about(story, "R1")->odds > 0.9);
}

TEST_CASE("a part of another value, with and without its mark") {
    const Kit kit = smallKit();
    Build build;
    read(build, "C1", 22.4e-9, Unit::farad);
    read(build, "C2", 21.9e-9, Unit::farad);
    BagStory story = bagStory(kit, build);
    REQUIRE(story.troubles.size() == 1);
    CHECK(story.troubles[0].ref == "C1");
    CHECK(story.troubles[0].what == BagTrouble::What::anotherValue);
    CHECK(holds(story.troubles[0].sentence, "looks like 22"));
    build.printed["C1"] = "223K";
    story = bagStory(kit, build);
    CHECK(holds(about(story, "C1")->sentence, "Its mark says so too"));
    build.printed["C1"] = "103K";
    story = bagStory(kit, build);
    CHECK(holds(about(story, "C1")->sentence, "out of tolerance or mismarked"));
}

TEST_CASE("a mark that lies is told though the value is right") {
    const Kit kit = smallKit();
    Build build;
    read(build, "C3", 46.6e-12, Unit::farad);
    build.printed["C3"] = "101J";
    const BagStory story = bagStory(kit, build);
    REQUIRE(about(story, "C3"));
    CHECK(about(story, "C3")->what == BagTrouble::What::mismarked);
    CHECK(about(story, "C3")->state == VerdictState::doubtful);
    CHECK(holds(about(story, "C3")->sentence, "mismarked"));
}

TEST_CASE("a loose part finds its line, or is over: a missing line knows of it") {
    const Kit kit = smallKit();
    Build build;
    build.parts["R3"] = PartMark::missing;
    build.loose.push_back({7, PartKind::resistor, "", 818, 6});
    BagStory story = bagStory(kit, build);
    REQUIRE(story.looseCould.size() == 1);
    CHECK(story.looseCould[0].front().refs == std::vector<std::string>{"R3"});
    CHECK(story.troubles.back().what == BagTrouble::What::loose);
    CHECK(story.troubles.back().belongsTo == "R3");
    CHECK(holds(about(story, "R3")->sentence, "could not name"));
    CHECK(holds(lookAgain({kit, build}, "R3").front().where, "could not name"));
    build.loose[0].value = 1.5e6;
    story = bagStory(kit, build);
    CHECK(story.troubles.back().what == BagTrouble::What::over);
    CHECK(holds(about(story, "R3")->sentence, "packed in its place?"));
}

TEST_CASE("from a measurement alone: the lines a part could be, with odds that add up") {
    const Kit kit = smallKit();
    const auto could = couldBe(kit, {}, {0, PartKind::capacitor, "", 10.4e-9, 0.1e-9});
    REQUIRE_FALSE(could.empty());
    CHECK(could.front().refs == std::vector<std::string>{"C1"});
    double sum = 0;
    for (const auto& e : could) sum += e.odds;
    CHECK(sum == Approx(1).margin(0.01));
    CHECK(couldBe(kit, {}, {0, PartKind::capacitor, "", 3.3e-6, 0.1e-6}).front().refs.empty());
    CHECK(couldBe(kit, {}, {0, PartKind::capacitor, "223", NAN, 0}).front().refs.front() == "C2");
}

TEST_CASE("where to look again: likeliest first, and never at a part that was measured") {
    const Kit kit = smallKit();
    Build build;
    build.parts["R1"] = PartMark::missing;
    build.parts["R2"] = PartMark::trusted;  // 47k for 4k7: the same figures
    build.parts["R3"] = PartMark::seen;
    auto places = lookAgain({kit, build}, "R1");
    CHECK(holds(places.front().where, "in the place of R2"));
    CHECK(std::any_of(places.begin(), places.end(), [](auto& p) { return p.where == "in bag B"; }));
    read(build, "R2", 47e3, Unit::ohm);
    places = lookAgain({kit, build}, "R1");
    CHECK_FALSE(holds(places.front().where, "R2"));
    CHECK(lookAgain({kit, build}, "R99").empty());
}

TEST_CASE("the depth decides what is asked of a part, and says why") {
    Kit kit = smallKit();
    kit.parts.push_back(part("R4", PartKind::resistor, 1000, 1, "brown black black brown brown"));
    kit.parts.push_back(part("C4", PartKind::capacitor, 33e-12, 5, ""));
    kit.parts.push_back(part("R5", PartKind::resistor, 4700, 5, "yellow violet red gold"));
    Build build;
    const auto ask = [&](const char* ref) { return askFor({kit, build}, *kit.part(ref)); };
    CHECK(ask("R3").how == PartAsk::How::measure);
    build.depth = BagDepth::measureDoubtful;
    CHECK(ask("R3").how == PartAsk::How::look);
    CHECK(ask("R4").how == PartAsk::How::measure);
    CHECK(holds(ask("R4").reason, "more than a mark proves"));
    CHECK(holds(ask("C4").reason, "no mark"));
    build.printed["R3"] = "grey red red gold";
    CHECK(ask("R3").how == PartAsk::How::measure);
    CHECK(holds(ask("R3").reason, "grey red red gold"));
    CHECK(partVerdict(*kit.part("R3"), build).state == VerdictState::notDone);
    build.depth = BagDepth::trustBag;
    CHECK(ask("R1").how == PartAsk::How::count);
    CHECK(ask("R1").refs == std::vector<std::string>{"R1", "R5"});
}

TEST_CASE("the way decides the order: by kind and value, by the plan, or only the step at hand") {
    Kit kit = smallKit();
    kit.steps.resize(2);
    kit.steps[0].id = "s1";
    kit.steps[0].fits = {"C2"};
    kit.steps[1].id = "s2";
    kit.steps[1].fits = {"R2", "R1"};
    Build build;
    CHECK(nextPart({kit, build})->ref == "R3");  // the smallest resistor
    build.way = BagWay::byPlan;
    CHECK(nextPart({kit, build})->ref == "C2");
    build.parts["C2"] = PartMark::seen;
    CHECK(nextPart({kit, build})->ref == "R2");
    build.way = BagWay::beforeFitting;
    CHECK(nextPart({kit, build}) == nullptr);  // fit C2 first
    build.steps["s1"] = {};
    CHECK(nextPart({kit, build})->ref == "R2");
    build.steps["s2"] = {};
    CHECK(nextPart({kit, build})->ref == "R2");  // the rest, in the plan's order
}

TEST_CASE("doubtful marks of the practice kit are found by reading them as this kit could") {
    const Kit& kit = practiceKit().kit;
    int worth = 0, measurable = 0;
    for (const Part& p : kit.parts) {
        worth += !worthMeasuring(kit, p).empty();
        measurable += p.measurable();
    }
    CHECK(worth > 0);
    CHECK(worth < measurable);
    CHECK(worthMeasuring(kit, *kit.part("C74")) == "it sets a frequency");
}

TEST_CASE("another type accepted by the builder counts as in") {
    Kit kit = smallKit();
    Part q;
    q.ref = "Q1";
    q.kind = PartKind::transistor;
    q.value = "NPN, small signal";
    kit.parts.push_back(q);
    Build build;
    build.parts["Q1"] = PartMark::missing;
    CHECK(partVerdict(*kit.part("Q1"), build).state == VerdictState::fail);
    build.remedies["Q1"] = {Remedy::How::equivalent, "general NPN, gain group B: same pins"};
    CHECK(partVerdict(*kit.part("Q1"), build).state == VerdictState::pass);
    CHECK(holds(partVerdict(*kit.part("Q1"), build).sentence, "gain group B"));
}

TEST_CASE("drawers: what is promised to another kit is not offered, ratings hold") {
    Kit kit = smallKit();
    Part& c2 = kit.parts[4];
    c2.volts = 50;
    const std::vector<StockLine> stock{
        {1, "A1", PartKind::capacitor, 22e-9, Unit::farad, 5, 100, 0, "film", 1},
        {2, "A2", PartKind::capacitor, 22e-9, Unit::farad, 5, 16, 0, "ceramic", 9},
        {3, "A3", PartKind::capacitor, 11e-9, Unit::farad, 5, 63, 0, "film", 2}};
    auto offers = fromDrawers(c2, stock, {}, 1);
    REQUIRE(offers.size() == 2);
    CHECK(offers[0].parts == std::vector<std::size_t>{0});
    CHECK(offers[1].how == Substitute::How::parallel);
    CHECK(describe(offers[1], stock) == "11\u202fnF and 11\u202fnF in parallel, drawer A3");
    offers = fromDrawers(c2, stock, {{1, 2, "C9", 1}}, 1);  // the one film capacitor is another kit's
    REQUIRE(offers.size() == 1);
    CHECK(offers[0].how == Substitute::How::parallel);
    CHECK(fromDrawers(c2, stock, {{1, 1, "C2", 1}}, 1).size() == 2);  // its own promise does not bar it
}

TEST_CASE("shopping list and letter name what is short, wrong and over, and leave out what is settled") {
    Kit kit = smallKit();
    kit.parts[0].code = "=R-4K7";
    Build build;
    build.parts["R1"] = PartMark::missing;
    read(build, "C1", 22.4e-9, Unit::farad);
    read(build, "C2", 21.8e-9, Unit::farad);
    build.loose.push_back({1, PartKind::resistor, "", 1.5e6, 1e4});
    auto list = shoppingList({kit, build});
    REQUIRE(list.size() == 2);
    CHECK(list[0].refs == std::vector<std::string>{"R1"});
    CHECK(shoppingRows(list)[1][5] == "=R-4K7");
    const std::string letter = supplierLetter({kit, build});
    CHECK(holds(letter, "R1, 4.7"));
    CHECK(holds(letter, "C1 10"));
    CHECK(holds(letter, "were over"));
    build.remedies["R1"] = {Remedy::How::drawer, "A1"};
    CHECK(shoppingList({kit, build}).size() == 1);
    CHECK(holds(supplierLetter({kit, Build{}}), "complete"));
}

TEST_CASE("the story is of this kit, this rule and these readings, whichever was told before") {
    Kit kit = smallKit();
    Build build;
    read(build, "R1", 4.93e3, Unit::ohm);  // too near its limit for the meter
    CHECK(about(bagStory(kit, build), "R1") != nullptr);
    build.rule = VerdictRule::simple;
    CHECK(about(bagStory(kit, build), "R1") == nullptr);
    build.rule = VerdictRule::guardBand;
    CHECK(about(bagStory(kit, build), "R1") != nullptr);
    kit.parts[0].ref = "R9";  // the same values by another name
    Build renamed;
    read(renamed, "R9", 4.93e3, Unit::ohm);
    CHECK(about(bagStory(kit, renamed), "R9") != nullptr);
    CHECK(about(bagStory(kit, renamed), "R1") == nullptr);
}

TEST_CASE("a mark is doubtful only beside another part of the same kind") {
    Kit kit = smallKit();
    kit.parts = {part("R1", PartKind::resistor, 22, 5, "red red black gold"),
                 part("C1", PartKind::capacitor, 220e-12, 10, "221K")};
    const std::string alone = worthMeasuring(kit, kit.parts[1]);
    for (const MarkReading& r : readMark("221K", PartKind::capacitor)) {
        Part other = part("X1", PartKind::resistor, r.value, 5, "");
        kit.parts.push_back(other);  // the same number in ohms is no reason
    }
    CHECK(worthMeasuring(kit, kit.parts[1]) == alone);
}
