#include <catch2/catch.hpp>
#include <sstream>

#include "lists/instructions.h"

using namespace ombrek;

// Instructions in the manners of several hands: what each fits, and what it does not. Every line is made up.

namespace {

std::string fitsOf(const std::string& text, std::size_t at = 0) {
    const auto steps = readInstructions(text);
    if (at >= steps.size()) return "no step";
    std::string out;
    for (const std::string& ref : steps[at].fits) out += (out.empty() ? "" : " ") + ref;
    return out;
}

}  // namespace

TEST_CASE("every way of saying that a part goes in") {
    struct Row {
        const char *text, *fits;
    };
    const Row row = GENERATE(values<Row>({
        {"1. Push U1 and U2 into their sockets.", "U1 U2"},
        {"1. Last of all Q2.", "Q2"},
        {"1. Finally, check R5 with the meter.", ""},
        {"1. U1 and U2 are pushed into their sockets.", "U1 U2"},
        {"1. R1 to R3 are now soldered.", "R1 R2 R3"},
        {"1. D3 goes in next, band up.", "D3"},
        {"1. Press the relay K1 home.", "K1"},
        {"1. Plug in U4.", "U4"},
        {"1. Fasten Q7 to the heat sink.", "Q7"},
        {"( ) R1, 4.7K (yel-vio-red)", "R1"},
        {"[ ] C12 100n (104)", "C12"},
        {"1. Fit R1 through R9, but not R5.", "R1 R2 R3 R4 R6 R7 R8 R9"},
        {"1. Fit R1 to R4 except R3.", "R1 R2 R4"},
        {"1. Solder L1 to L4, leaving L3 until later.", "L1 L2 L4"},
        {"1. Solder L1 to L4 leaving L3 until later.", "L1 L2 L4"},
        {"1. Mount all of C1-C4 apart from C2.", "C1 C3 C4"},
        {"1. R1 bis R4 ohne R2 einl\u00f6ten.", "R1 R3 R4"},
        {"1. Soudez R1 \u00e0 R4 sauf R3.", "R1 R2 R4"},
        {"1. Inserire U1 nello zoccolo.", "U1"},
        {"1. Plaats U1 in de voet.", "U1"},
        {"1. S\u00e4tt U1 i sockeln.", "U1"},
        {"1. Do not fit Q5 yet.", ""},
        {"1. Nothing into U5 yet.", ""},
        {"1. Now fit nothing else until R9 reads 10k.", ""},
        {"1. Fit R1 after R2.", "R1"},
        {"1. Remove R5 and R6.", ""},
        {"1. Fit the socket next to R5.", ""},
        {"5.1 Fit R7.", "R7"},
        {"a) Fit R7.", "R7"},
        {"A1. Fit R7.", "R7"},
        {"A1 Fit R7.", "R7"},
    }));
    INFO(row.text);
    CHECK(fitsOf(row.text) == row.fits);
}

TEST_CASE("numbers of every manner begin a step") {
    const auto steps =
        readInstructions("5.1 Fit R1.\n5.2 Fit R2.\na) Fit R3.\nb) Fit R4.\nA1 Solder R5.\nA2 Solder R6.\n");
    REQUIRE(steps.size() == 6);
    CHECK(steps[1].number == "5.2");
    CHECK(steps[3].number == "b");
    CHECK(steps[5].number == "A2");
    CHECK(steps[5].fits == std::vector<std::string>{"R6"});
}

TEST_CASE("behind parts that only say where, a part without a verb of its own is a doubt") {
    const auto open = readInstructions("1. Fit the shield over L1, then L2.");
    CHECK(open.front().fits.empty());
    REQUIRE_FALSE(open.front().doubts.empty());
    CHECK(open.front().doubts.front().find("L2") == 0);
    CHECK(fitsOf("1. Solder C1 beside R4, then C2.") == "C1 C2");
    CHECK(fitsOf("1. Fit the coils, L1, L2.") == "L1 L2");
}

TEST_CASE("a part that is named and of which nothing is said is a doubt") {
    const auto steps = readInstructions("1. R7 beside the socket.\n");
    REQUIRE(steps.size() == 1);
    CHECK(steps[0].fits.empty());
    CHECK_FALSE(steps[0].doubts.empty());
}

TEST_CASE("cautions and what is kept come with pasted steps, too") {
    Kit kit;
    for (const char* ref : {"R1", "R2", "J4"}) {
        Part part;
        part.ref = ref;
        kit.parts.push_back(part);
    }
    const auto steps = stepsOf(readInstructions("1. Solder R1 and R2. Keep six of the legs until step 3.\n2. "
                                                "Apply 12 V and measure pin 8.\n3. Fit J4 "
                                                "with one of the legs. Cut the leads off.\n4. Push the plug "
                                                "home.\n5. Fasten it with two screws.\n"),
                               kit);
    REQUIRE(steps.size() == 5);
    CHECK_THAT(steps[0].caution, Catch::Contains("ventilate"));
    REQUIRE(steps[0].keeps.size() == 1);
    CHECK(steps[0].keeps[0].count == 6);
    CHECK(steps[0].keeps[0].until == steps[2].id);
    CHECK_THAT(steps[1].caution, Catch::Contains("current limited"));
    CHECK_THAT(steps[2].caution, Catch::Contains("fly"));
    CHECK(steps[3].caution.empty());
    CHECK_THAT(steps[4].caution, Catch::Contains("over-tightened"));
}

TEST_CASE("what a made plan says of a kind of part, pasted steps say too, and their nuts get a driver") {
    Kit kit;
    const auto add = [&](const char* ref, PartKind kind, const char* what) {
        Part part;
        part.ref = ref;
        part.kind = kind;
        part.what = what;
        kit.parts.push_back(part);
    };
    add("X1", PartKind::crystal, "");
    add("Q2", PartKind::transistor, "N-MOSFET");
    add("L5", PartKind::coil, "");
    const auto steps =
        stepsOf(readInstructions("1. Fit X1 and Q2.\n2. Mount L5.\n3. Bolt the tab down with an M3 "
                                 "screw and its nut, the bracket with M2,5 nuts.\n"),
                kit);
    REQUIRE(steps.size() == 3);
    CHECK_THAT(steps[0].note, Catch::Contains("Heat-shy"));
    CHECK_THAT(steps[0].caution, Catch::Contains("wrist strap"));
    CHECK_THAT(steps[1].note, Catch::Contains("leave them long"));
    CHECK_THAT(steps[1].caution, Catch::Contains("ventilate"));
    const auto has = [&](const char* tool) {
        return std::count(steps[2].tools.begin(), steps[2].tools.end(), tool) == 1;
    };
    CHECK(has("nut driver 5.5 mm"));
    CHECK(has("nut driver 5 mm"));
}
