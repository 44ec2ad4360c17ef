#include "formats/kit_variants.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "bench_fixture.h"
#include "formats/kit_edit.h"
#include "formats/kit_json.h"
#include "lists/parts_list.h"
#include "station/rebuild.h"

using namespace ombrek;

// Values of the lists are invented.

namespace {

const std::vector<MagneticCore>& cores() { return shippedTables().cores; }

/// A kit in twelve bands, as its manual's table has them; C9 is fitted on 160 m alone.
const char* kBands =
    "Ref;Value;80m;40m;30m;20m;17m;15m;12m;10m;160m;60m;6m;11m\n"
    "R1;10k;;;;;;;;;;;;\n"
    "C5;;820p;390p;220p;180p;120p;100p;82p;68p;1n8;470p;33p;75p\n"
    "C9;;DNP;DNP;DNP;DNP;DNP;DNP;DNP;DNP;3n3;DNP;DNP;DNP\n"
    "L1;;T50-2, 30 turns #26;T50-2, 22 turns #26;T50-6, 20 turns #26;T50-6, 18 turns #26;T50-6, 15 turns "
    "#26;T50-6, 13 turns #26;T50-6, 12 turns #26;T50-6, 11 turns #26;T50-2, 44 turns #26;T50-2, 25 turns "
    "#26;T50-6, 8 turns #26;T50-6, 11 turns #26\n";

std::vector<KitVersion> versions() {
    const auto first = readPartsList(kBands);
    REQUIRE(first);
    REQUIRE(first->list.variants.size() == 12);
    std::vector<KitVersion> out;
    for (const std::string& name : first->list.variants)
        out.push_back({name, kitFromList(readPartsList(kBands, {}, {}, name)->list, "Twelve", cores())});
    return out;
}

}  // namespace

TEST_CASE("twelve variants are one kit, and each is as its list alone would make it") {
    const auto all = versions();
    std::string text = withVariants(all, "40m");
    auto kit = readKit(text, cores());
    REQUIRE(kit);
    CHECK(kit->variant == "40m");
    CHECK(kit->variants.size() == 12);
    for (const KitVersion& version : all) {
        INFO(version.name);
        const auto alone = readKit(version.text, cores());
        const auto changed = withVariant(text, version.name, cores());
        REQUIRE(changed);
        text = *changed;  // from one to the next, not each time from the first
        kit = readKit(text, cores());
        REQUIRE(kit);
        CHECK(kit->variant == version.name);
        CHECK(kit->part("C5")->nominal == alone->part("C5")->nominal);
        CHECK((kit->part("C9") != nullptr) == (version.name == "160m"));
        REQUIRE(kit->coil("L1") != nullptr);
        CHECK(kit->coil("L1")->core.designation == alone->coil("L1")->core.designation);
        CHECK(kit->coil("L1")->windings.front().turns == alone->coil("L1")->windings.front().turns);
        std::vector<std::string> fitted;
        for (const Step& step : kit->steps) fitted.insert(fitted.end(), step.fits.begin(), step.fits.end());
        std::sort(fitted.begin(), fitted.end());
        CHECK(std::adjacent_find(fitted.begin(), fitted.end()) == fitted.end());
        CHECK(fitted.size() == kit->parts.size());
    }
}

TEST_CASE("an erratum and a change stay with a variant that is left and come back with it") {
    std::string text = withVariants(versions(), "40m");
    text = withErratum(text, Subject::part("C5"), "printed C6 on the board");
    auto json = nlohmann::json::parse(text);
    for (auto& part : json["parts"]) {
        if (part["ref"] == "C5") part["value"] = "430p";
    }
    const auto there = withVariant(json.dump(), "20m", cores());
    REQUIRE(there);
    CHECK(readKit(*there, cores())->part("C5")->nominal == Approx(180e-12));
    CHECK(readKit(*there, cores())->part("C5")->erratum == "printed C6 on the board");  // the board is one
    const auto back = withVariant(*there, "40m", cores());
    CHECK(readKit(*back, cores())->part("C5")->nominal == Approx(430e-12));
}

TEST_CASE("a variant that is not there is a sentence") {
    const std::string text = withVariants(versions(), "40m");
    CHECK_FALSE(withVariant(text, "2200m", cores()));
    CHECK_FALSE(withVariant(practiceKit().text, "40m", cores()));
    auto json = nlohmann::json::parse(text);
    json["variant"] = "2200m";
    CHECK_FALSE(readKit(json.dump(), cores()));
    json.erase("variant");
    CHECK_FALSE(readKit(json.dump(), cores()));
}

TEST_CASE("a rebuilt band is a variant, and the kit as supplied is the other") {
    const auto rebuilt = rebuild(practiceKit().kit, {14e6, 14.35e6}, cores());
    REQUIRE(rebuilt);
    const auto text = withNewVariant(practiceKit().text, "as supplied",
                                     {"14 MHz", withBand(practiceKit().text, *rebuilt)}, cores());
    REQUIRE(text);
    const auto kit = readKit(*text, cores());
    REQUIRE(kit);
    CHECK(kit->variant == "14 MHz");
    CHECK(kit->name == practiceKit().kit.name);
    CHECK(kit->ratings.frequency == Approx(14.175e6));
    CHECK(kit->coil("L2")->target == Approx(rebuilt->coil("L2")->wanted));
    // A third, then the first again: nothing of it is lost.
    const auto other = rebuild(*kit, {7e6, 7.2e6}, cores());
    REQUIRE(other);
    const auto three = withNewVariant(*text, "", {"7 MHz", withBand(*text, *other)}, cores());
    REQUIRE(three);
    CHECK(readKit(*three, cores())->variants == std::vector<std::string>{"as supplied", "14 MHz", "7 MHz"});
    const auto back = withVariant(*three, "as supplied", cores());
    REQUIRE(back);
    const auto first = readKit(*back, cores());
    CHECK(first->ratings.frequency == practiceKit().kit.ratings.frequency);
    for (const Part& part : practiceKit().kit.parts) CHECK(first->part(part.ref)->nominal == part.nominal);
    for (const Coil& coil : practiceKit().kit.coils) CHECK(first->coil(coil.ref)->target == coil.target);
}
