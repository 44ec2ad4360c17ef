#include "lists/placement.h"

#include <nlohmann/json.hpp>
#include "bench_fixture.h"

#include "formats/kit_edit.h"

using namespace ombrek;

namespace {

const PlacedPart& at(const Placement& placement, const std::string& ref) {
    for (const PlacedPart& part : placement.parts) {
        if (part.ref == ref) return part;
    }
    FAIL(ref);
    return placement.parts.front();
}

}  // namespace

TEST_CASE("a placement table in millimetres, y upwards", "[placement]") {
    const auto placement = readPlacement(
        "Designator,Mid X (mm),Mid Y (mm),Rotation,Layer\nR1,10,50,90,top\nC1,60,10,0,bottom\n");
    REQUIRE(placement);
    CHECK(placement->units == "millimetres");
    CHECK(at(*placement, "C1").x - at(*placement, "R1").x == Approx(50));
    CHECK(at(*placement, "C1").y - at(*placement, "R1").y == Approx(40));  // lower on the board
    CHECK(at(*placement, "R1").turn == Approx(270));                       // counter-clockwise in files
    CHECK(at(*placement, "C1").underside);
    CHECK_FALSE(at(*placement, "R1").underside);
    CHECK(placement->width == Approx(62));
}

TEST_CASE("inches and mils are noticed, also where millimetres are named", "[placement]") {
    const auto mils = readPlacement("ref;x;y;rot\nR1;100;100;0\nR2;3900;2100;0\n");
    CHECK(mils->units == "mils");
    const auto inches = readPlacement("ref,x,y\nR1,0.5,0.5\nR2,4.5,3.0\n");
    CHECK(inches->units == "inches");
    CHECK(inches->guesses.find("guessed") != std::string::npos);
    // Mils in a column that says millimetres: taken as written the board would be almost four metres wide.
    const auto wrong = readPlacement("ref,x mm,y mm\nR1,100,100\nR2,3900,2100\n");
    CHECK(wrong->units == "mils");
    CHECK(wrong->guesses.find("m wide") != std::string::npos);
    CHECK(readPlacement("ref,x,y\nR1,10mm,10mm\nR2,2in,1in\n"));
    CHECK(readPlacement("ref\tx\ty\nR1\t10,5\t20,5\nR2\t80,5\t40\n")->parts.front().x == Approx(6));
}

TEST_CASE("rows that place nothing, duplicates and unknown parts are told", "[placement]") {
    const auto placement = readPlacement("ref,x,y\nR1,10,10\nR1,20,20\nR2,,\nZ9,50,40\n");
    REQUIRE(placement);
    CHECK(placement->refused.size() == 2);
    CHECK(placement->refused.front().place == "line 3");
    const auto told = disagreements(*placement, {"R1", "R7"});
    REQUIRE(told.size() == 2);
    CHECK(told[0].find("Z9") != std::string::npos);
    CHECK(told[1].find("R7") != std::string::npos);
    CHECK(disagreements(*placement, {"R1", "Z9"}).empty());
    for (const char* bad : {"", "a,b,c\n1,2,3\n", "ref,x,y\n", "ref,x,y\nR1,east,west\n", "\0\0\0"})
        CHECK_FALSE(readPlacement(bad));
}

TEST_CASE("places and errata go into the kit's text and leave the rest", "[placement]") {
    const auto placement =
        readPlacement("ref,x,y,rot,side\nR1,10,50,90,top\nR2,60,10,0,top\nC77,100,80,0,top\n");
    const std::string changed = withPlaces(practiceKit().text, *placement);
    const auto kit = readKit(changed, shippedTables().cores);
    REQUIRE(kit);
    CHECK(kit->part("R1")->place->x == Approx(6));
    CHECK(kit->part("R1")->place->width == practiceKit().kit.part("R1")->place->width);
    CHECK(kit->part("R3")->place->x == practiceKit().kit.part("R3")->place->x);
    CHECK(kit->steps.size() == practiceKit().kit.steps.size());
    const auto erratum = readKit(withErratum(changed, readSubject("step:d1"), "D1 is printed turned round"),
                                 shippedTables().cores);
    REQUIRE(erratum);
    CHECK(erratum->step("d1")->erratum == "D1 is printed turned round");
    CHECK(readKit(withErratum(changed, readSubject("step:d1"), ""), shippedTables().cores)
              ->step("d1")
              ->erratum.empty());
}

TEST_CASE("steps written as a kit file has them are read back the same", "[placement]") {
    Step step;
    step.id = "a";
    step.title = "Fit R1";
    step.fits = {"R1"};
    step.before = {"b"};
    step.tools = {"loupe"};
    step.keeps = {{"cut leads", 4, "b"}};
    step.stage = "supply";
    step.hardness = 3;
    step.erratum = "the print says R2";
    step.hold = HoldPoint{{Subject::part("R1")}, "Look."};
    Step later;
    later.id = "b";
    later.title = "Links";
    nlohmann::ordered_json json{{"format", "ombrek-kit"}, {"version", 1}, {"id", "k"}, {"name", "K"}};
    json["parts"] = nlohmann::ordered_json::array({{{"ref", "R1"},
                                                    {"kind", "resistor"},
                                                    {"value", 100},
                                                    {"tolerance", 5},
                                                    {"place", {{"x", 5}, {"y", 5}}}}});
    json["steps"] = stepsJson({step, later});
    const auto kit = readKit(json.dump(), {});
    if (!kit) FAIL(kit.error().text());
    const Step& read = kit->steps.front();
    CHECK(read.before == step.before);
    CHECK(read.tools == step.tools);
    CHECK(read.keeps.front().count == 4);
    CHECK(read.stage == "supply");
    CHECK(read.hardness == 3);
    CHECK(read.erratum == step.erratum);
    CHECK(kit->part("R1")->place->width > 0);  // by its package
    json["steps"][0]["keep"][0]["until"] = "ghost";
    CHECK_FALSE(readKit(json.dump(), {}));
    json["steps"][0]["keep"][0]["until"] = "b";
    json["steps"][0]["after"] = {"b"};
    const auto circle = readKit(json.dump(), {});
    REQUIRE_FALSE(circle);
    CHECK(circle.error().sentence.find("circle") != std::string::npos);
}

TEST_CASE("placement tables of other programs", "[placement]") {
    const std::vector<std::string> tables{
        // blanks and a heading of two words a column
        "Designator Footprint   Mid X     Mid Y    Ref X   Ref Y   Layer Rotation\n"
        "R1         0805        10mm      50mm     10mm    50mm    T     90.00\n"
        "C1         0805        60mm      10mm     60mm    10mm    B     0.00\n",
        // the heading in a comment, the units too
        "# RefDes, Description, Value, X, Y, rotation, top/bottom\n# X,Y in mils.\n"
        "R1,\"0805\",\"1k\",393.7,1968.5,90,top\nC1,\"0805\",\"100n\",2362.2,393.7,0,bottom\n",
        // a position file set with blanks
        "### positions ###\n## Unit = mm, Angle = deg.\n# Ref  Val  Package  PosX  PosY  Rot  Side\n"
        "R1   1k    R_0805   10.0  50.0  90.0  top\nC1   100n  C_0805   60.0  10.0  0.0   bottom\n",
        // no heading at all
        "R1 10.00 50.00 90 top\nC1 60.00 10.00 0 bottom\n",
        // German, a mirror column, semicolons and decimal commas
        "Bauteil;X;Y;Winkel;Mirror\nR1;10,0;50,0;90;0\nC1;60,0;10,0;0;1\n",
        // thousands, and another spelling
        "RefDes,LocationX,LocationY,Orientation,BoardSide\nR1,\"10.00\",\"50.00\",90,Top\nC1,\"60.00\",\"10."
        "00\",0,Bottom\n",
        // the underside seen from below
        "ref,x,y,rot,side\nR1,10,50,90,top\nC1,-60,10,0,bottom\n"};
    for (const std::string& table : tables) {
        CAPTURE(table);
        const auto placement = readPlacement(table);
        REQUIRE(placement);
        REQUIRE(placement->parts.size() == 2);
        CHECK(at(*placement, "C1").x - at(*placement, "R1").x == Approx(50).margin(0.01));
        CHECK(at(*placement, "C1").y - at(*placement, "R1").y == Approx(40).margin(0.01));
        CHECK(at(*placement, "R1").turn == Approx(270));
        CHECK(at(*placement, "C1").underside);
        CHECK_FALSE(at(*placement, "R1").underside);
    }
    CHECK(at(*readPlacement("ref,x,y\nR1,\"1,234.5\",10\nR2,\"2,234.5\",20\n"), "R2").x > 6);
}

TEST_CASE("rows of no part do not make the board larger: the other side lies on the same corner",
          "[placement]") {
    const auto far =
        readPlacement("ref,x,y,side\nR1,10,50,top\nC1,60,10,top\nFID1,400,400,top\n", {{"R1", "C1"}, {}});
    REQUIRE(far);
    CHECK(far->width == Approx(62));
    const std::string kit =
        R"({"format":"ombrek-kit","version":1,"id":"k","name":"k","parts":[)"
        R"({"ref":"R1","kind":"resistor","value":1000,"tolerance":5},{"ref":"C1","kind":"capacitor","value":1e-7,"tolerance":10},)"
        R"({"ref":"R2","kind":"resistor","value":1000,"tolerance":5}]})";
    const std::string top = "ref,x,y,rot,side,package\nR1,10,50,90,top,0805\nC1,60,10,0,top,0805\n";
    const std::string placed = withPlaces(kit, *readPlacement(top, placementContext(kit)));
    const auto bottom = readPlacement("ref,x,y,rot,side\nR2,30,30,0,bottom\n", placementContext(placed));
    REQUIRE(bottom);
    CHECK(isOtherSide(*bottom, placed));
    CHECK(at(*bottom, "R2").x == Approx(26));  // 20 mm right of R1, whose middle is 6 mm from the corner
    CHECK(at(*bottom, "R2").y == Approx(26));
    // A second import takes turn and side anew.
    const std::string again =
        withPlaces(placed, *readPlacement("ref,x,y,rot,side\nR1,10,50,0,top\nC1,60,10,0,bottom\n"));
    const auto json = nlohmann::json::parse(again);
    CHECK_FALSE(json["parts"][0]["place"].contains("turn"));
    CHECK(json["parts"][1]["place"]["underside"] == true);
    CHECK(json["parts"][0]["package"] == "0805");
}
