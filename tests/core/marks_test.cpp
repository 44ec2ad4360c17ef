#include "core/parts/marks.h"

#include <cmath>
#include <random>

#include "core/quantity/preferred.h"

using namespace ombrek;

namespace {

double first(const std::string& mark, PartKind kind) {
    const auto readings = readMark(mark, kind);
    return readings.empty() ? -1 : readings.front().value;
}

}  // namespace

TEST_CASE("three-digit capacitor marks are in pF", "[reference]") {
    // Source: common practice, as in any capacitor catalogue: two figures and the number of zeros; 8 is
    // ×0.01, 9 is ×0.1.
    const auto row = GENERATE(table<const char*, double>({{"104", 100e-9},
                                                          {"102", 1e-9},
                                                          {"391", 390e-12},
                                                          {"300", 30e-12},
                                                          {"474", 470e-9},
                                                          {"22", 22e-12},
                                                          {"5", 5e-12},
                                                          {"101", 100e-12},
                                                          {"105", 1e-6},
                                                          {"479", 4.7e-12},
                                                          {"338", 0.33e-12},
                                                          {"104K", 100e-9},
                                                          {"2n2", 2.2e-9},
                                                          {"p33", 0.33e-12},
                                                          {"47p", 47e-12},
                                                          {"100n", 100e-9}}));
    INFO(std::get<0>(row));
    CHECK(first(std::get<0>(row), PartKind::capacitor) == Approx(std::get<1>(row)).epsilon(1e-9));
}

TEST_CASE("the same code means µH on a choke and ohms on a chip resistor", "[reference]") {
    // Source: IEC 60062; common practice for chokes.
    CHECK(first("100", PartKind::inductor) == Approx(10e-6));
    CHECK(first("471", PartKind::inductor) == Approx(470e-6));
    CHECK(first("103", PartKind::resistor) == Approx(10e3));
    CHECK(first("4702", PartKind::resistor) == Approx(47e3));
    CHECK(first("1001", PartKind::resistor) == Approx(1000));
}

TEST_CASE("letters stand for the decimal mark", "[reference]") {
    // Source: IEC 60062, letter and digit code.
    CHECK(first("4K7", PartKind::resistor) == Approx(4700));
    CHECK(first("R47", PartKind::resistor) == Approx(0.47));
    CHECK(first("47R", PartKind::resistor) == Approx(47));
    CHECK(first("1M0", PartKind::resistor) == Approx(1e6));
    CHECK(first("59R04", PartKind::resistor) == Approx(59.04));
    CHECK(readMark("4K7", PartKind::capacitor).empty());
}

TEST_CASE("the tolerance letter is told", "[reference]") {
    // Source: IEC 60062: F 1 %, G 2 %, J 5 %, K 10 %, M 20 %.
    const auto row = GENERATE(
        table<const char*, double>({{"104F", 1}, {"104G", 2}, {"104J", 5}, {"104K", 10}, {"104M", 20}}));
    const auto readings = readMark(std::get<0>(row), PartKind::capacitor);
    REQUIRE_FALSE(readings.empty());
    REQUIRE(readings.front().tolerancePercent);
    CHECK(*readings.front().tolerancePercent == std::get<1>(row));
}

TEST_CASE("every colour has its digit, multiplier and tolerance", "[reference]") {
    // Source: IEC 60062, table of colours.
    const std::vector<std::string> digits{"black", "brown", "red",    "orange", "yellow",
                                          "green", "blue",  "violet", "grey",   "white"};
    for (std::size_t d = 1; d < digits.size(); ++d) {
        const auto r = readBands({digits[d], "black", "black", "gold"});
        REQUIRE_FALSE(r.empty());
        CHECK(r.front().value == Approx(10.0 * double(d)));
    }
    for (std::size_t m = 0; m < digits.size(); ++m) {
        const auto r = readBands({"brown", "black", digits[m], "gold"});
        REQUIRE_FALSE(r.empty());
        CHECK(r.front().value == Approx(10 * std::pow(10.0, double(m))));
    }
    CHECK(readBands({"brown", "black", "gold", "gold"}).front().value == Approx(1.0));
    CHECK(readBands({"brown", "black", "silver", "gold"}).front().value == Approx(0.1));
    CHECK(readBands({"brown", "black", "pink", "gold"}).front().value == Approx(0.01));
    const std::vector<std::pair<std::string, double>> tolerances{
        {"brown", 1},   {"red", 2},  {"green", 0.5}, {"blue", 0.25},   {"violet", 0.1},
        {"grey", 0.05}, {"gold", 5}, {"silver", 10}, {"orange", 0.05}, {"yellow", 0.02}};
    for (const auto& [colour, percent] : tolerances) {
        bool told = false;
        for (const auto& r : readBands({"yellow", "violet", "orange", colour}))
            told = told || (r.value == Approx(47e3) && *r.tolerancePercent == percent);
        INFO(colour);
        CHECK(told);
    }
}

TEST_CASE("bands by name, in three to six bands") {
    CHECK(first("yellow violet red gold", PartKind::resistor) == Approx(4700));
    CHECK(first("Brown, Black, Red", PartKind::resistor) == Approx(1000));
    CHECK(first("brown-black-black-red-brown", PartKind::resistor) == Approx(10e3));
    CHECK(first("red red black brown brown red", PartKind::resistor) == Approx(2200));
    CHECK(first("gray red brown gold", PartKind::resistor) == Approx(820));
    CHECK(first("purple green black gold", PartKind::resistor) == Approx(75));
    CHECK(*readMark("brown black red").front().tolerancePercent == 20);
}

TEST_CASE("a resistor that reads from either end offers both, the preferred value first") {
    // red violet brown brown-... : 270 Ω 1 % one way, 1.17 kΩ is none of E24/E96 the other way.
    const auto both = readBands({"brown", "brown", "violet", "red"});  // 110 MΩ 2 % or 27 × 10^1 1 %
    REQUIRE(both.size() == 2);
    CHECK(both[0].value == Approx(110e6));
    CHECK(both[1].value == Approx(270));
    CHECK(both[1].meaning.find("other end") != std::string::npos);
    const auto turned = readBands({"gold", "red", "violet", "yellow"});
    REQUIRE(turned.size() == 1);
    CHECK(turned[0].value == Approx(4700));
    const auto odd = readBands({"brown", "violet", "brown",
                                "red"});  // 170 Ω is no preferred value; 21 × 10^7 neither... 210 MΩ is E96
    REQUIRE_FALSE(odd.empty());
    CHECK(isPreferred(odd.front().value, Series::e96));
}

TEST_CASE("bands for a value can be looked for on the bench") {
    CHECK(bandsFor(4700, 5) == std::vector<std::string>{"yellow", "violet", "red", "gold"});
    CHECK(bandsFor(10, 5) == std::vector<std::string>{"brown", "black", "black", "gold"});
    CHECK(bandsFor(2.2, 5) == std::vector<std::string>{"red", "red", "gold", "gold"});
    CHECK(bandsFor(49.9, 5).empty());
    CHECK(bandsFor(-1, 5).empty());
    for (const int member : decadeOf(Series::e24)) {
        for (const double decade : {0.01, 1.0, 100.0, 10000.0}) {
            const auto names = bandsFor(member * decade, 5);
            REQUIRE(names.size() == 4);
            REQUIRE(readBands(names).front().value == Approx(member * decade));
        }
    }
}

TEST_CASE("what is no mark gives no reading") {
    for (const char* text : {"", "   ", "hello", "12345", "000", "-104", "1 0 4 K J", "brown", "brown black",
                             "brown plaid red gold", "black brown red gold x", "KK", "R", "1e4"}) {
        INFO(text);
        CHECK(readMark(text, PartKind::capacitor).empty());
    }
    CHECK(readBands({"gold", "gold", "gold", "gold"}).empty());
    CHECK(readBands({}).empty());
    CHECK(readBands(std::vector<std::string>(7, "red")).empty());
}

TEST_CASE("random text never breaks the reader of marks") {
    std::mt19937 engine(3);
    const std::string letters = "0123456789RKkMpnuµJFG .,-xyz\xff";
    for (int i = 0; i < 20000; ++i) {
        std::string text(engine() % 9, ' ');
        for (char& c : text) c = letters[engine() % letters.size()];
        for (const auto& r : readMark(text)) REQUIRE(r.value > 0);
    }
}

TEST_CASE("kinds are named by their words") {
    for (const PartKind kind :
         {PartKind::resistor, PartKind::capacitor, PartKind::inductor, PartKind::diode, PartKind::transistor,
          PartKind::ic, PartKind::crystal, PartKind::coil, PartKind::trimmer, PartKind::other}) {
        CHECK(partKind(word(kind)) == kind);
    }
    CHECK_FALSE(partKind("gizmo"));
}
