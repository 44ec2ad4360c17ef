#include "core/parts/marks.h"

#include <algorithm>
#include <cmath>
#include <random>

#include "core/parts/bands.h"
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
    CHECK(meaning(both[1]).find("other end") != std::string::npos);
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

TEST_CASE("the letters that stand for the decimal mark are those of IEC 60062", "[reference]") {
    // Source: IEC 60062, letter code: R, K, M, G, T for ohm to teraohm; p, n, u (µ), m, F for picofarad to
    // farad.
    const auto ohms =
        GENERATE(table<const char*, double>({{"R", 1}, {"K", 1e3}, {"M", 1e6}, {"G", 1e9}, {"T", 1e12}}));
    CHECK(first(std::string("5") + std::get<0>(ohms) + "9", PartKind::resistor) ==
          Approx(5.9 * std::get<1>(ohms)));
    CHECK(first(std::string("59") + std::get<0>(ohms), PartKind::resistor) == Approx(59 * std::get<1>(ohms)));
    CHECK(first(std::string("5") + std::get<0>(ohms) + "90", PartKind::resistor) ==
          Approx(5.9 * std::get<1>(ohms)));
    const auto farads = GENERATE(table<const char*, double>(
        {{"p", 1e-12}, {"n", 1e-9}, {"u", 1e-6}, {"µ", 1e-6}, {"m", 1e-3}, {"F", 1}}));
    CHECK(first(std::string("3") + std::get<0>(farads) + "32", PartKind::capacitor) ==
          Approx(3.32 * std::get<1>(farads)));
    CHECK(first(std::get<0>(farads) + std::string("33"), PartKind::capacitor) ==
          Approx(0.33 * std::get<1>(farads)));
}

TEST_CASE("the tolerance letters are those of IEC 60062", "[reference]") {
    // Source: IEC 60062, letter code for tolerance, symmetrical and, for capacitors, asymmetrical.
    const std::vector<std::pair<char, double>> symmetrical{
        {'E', 0.005}, {'L', 0.01}, {'P', 0.02}, {'W', 0.05}, {'B', 0.1}, {'C', 0.25}, {'D', 0.5},
        {'F', 1},     {'G', 2},    {'H', 3},    {'J', 5},    {'K', 10},  {'M', 20},   {'N', 30}};
    for (const auto& [letter, percent] : symmetrical) {
        INFO(letter);
        const auto r = readMark(std::string("472") + letter, PartKind::resistor);
        REQUIRE_FALSE(r.empty());
        CHECK(r.front().value == Approx(4700));
        CHECK(*r.front().tolerancePercent == percent);
        CHECK_FALSE(r.front().toleranceLow);
    }
    const std::vector<std::tuple<char, double, double>> sided{
        {'Q', 10, 30}, {'T', 10, 50}, {'S', 20, 50}, {'Z', 20, 80}};
    for (const auto& [letter, low, high] : sided) {
        INFO(letter);
        const auto r = readMark(std::string("472") + letter, PartKind::capacitor);
        REQUIRE_FALSE(r.empty());
        CHECK(*r.front().toleranceLow == low);
        CHECK(*r.front().tolerancePercent == high);
        for (const auto& other : readMark(std::string("472") + letter, PartKind::resistor))
            CHECK_FALSE(other.tolerancePercent);
    }
    CHECK(toleranceLetter('A') == nullptr);
}

TEST_CASE("below 10 pF the letters are picofarads", "[reference]") {
    // Source: IEC 60062: B, C, D, F are ±0.1, 0.25, 0.5, 1 pF below 10 pF.
    const auto row =
        GENERATE(table<const char*, double>({{"B", 0.1e-12}, {"C", 0.25e-12}, {"D", 0.5e-12}, {"F", 1e-12}}));
    const auto r = readMark(std::string("4p7") + std::get<0>(row), PartKind::capacitor);
    REQUIRE_FALSE(r.empty());
    CHECK(*r.front().toleranceOwn == std::get<1>(row));
    CHECK(*r.front().tolerancePercent == Approx(100 * std::get<1>(row) / 4.7e-12));
    const auto ten = readMark(std::string("100") + std::get<0>(row), PartKind::capacitor);
    REQUIRE_FALSE(ten.empty());
    CHECK_FALSE(ten.front().toleranceOwn);
    CHECK(*readMark("4p7J", PartKind::capacitor).front().tolerancePercent == 5);
}

TEST_CASE("the three-character code names every value of E96 and every multiplier", "[reference]") {
    // Source: IEC 60062, code for E96 values: 01 = 100 … 96 = 976; 01C = 10 kohm, 68X = 49.9 ohm. Letters Z
    // 0.001, Y or R 0.01, X or S 0.1, A 1, B or H 10, C 100, D 1000, E 10^4, F 10^5.
    const auto e96 = decadeOf(Series::e96);
    const std::vector<std::pair<std::string, double>> letters{
        {"Z", 1e-3}, {"Y", 1e-2}, {"R", 1e-2}, {"X", 0.1}, {"S", 0.1}, {"A", 1},
        {"B", 10},   {"H", 10},   {"C", 100},  {"D", 1e3}, {"E", 1e4}, {"F", 1e5}};
    for (std::size_t place = 1; place <= 96; ++place) {
        for (const auto& [letter, times] : letters) {
            const std::string code = (place < 10 ? "0" : "") + std::to_string(place) + letter;
            const auto readings = readMark(code, PartKind::resistor);
            const bool told = std::any_of(readings.begin(), readings.end(), [&](const MarkReading& r) {
                return r.code == MarkCode::eia96 &&
                       std::fabs(r.value / (e96[place - 1] * times) - 1) < 1e-9 && *r.tolerancePercent == 1;
            });
            INFO(code);
            REQUIRE(told);
        }
    }
    CHECK(first("01C", PartKind::resistor) == Approx(10e3));
    CHECK(first("68X", PartKind::resistor) == Approx(49.9));
    CHECK(first("47R", PartKind::resistor) == Approx(47));  // the plain reading comes first
    CHECK(readMark("97A", PartKind::resistor).empty());
    CHECK(readMark("00A", PartKind::resistor).empty());
}

TEST_CASE("the sixth band is the drift with temperature", "[reference]") {
    // Source: IEC 60062, temperature coefficient in 10^-6/K.
    const std::vector<std::pair<std::string, double>> drifts{{"black", 250}, {"brown", 100}, {"red", 50},
                                                             {"orange", 15}, {"yellow", 25}, {"green", 20},
                                                             {"blue", 10},   {"violet", 5},  {"grey", 1}};
    for (const auto& [colour, ppm] : drifts) {
        INFO(colour);
        bool told = false;
        for (const auto& r : readBands({"yellow", "violet", "black", "red", "brown", colour}))
            told = told || (!r.otherEnd && *r.drift == ppm && r.value == Approx(47e3));
        CHECK(told);
    }
}

TEST_CASE("an axial choke wears the same bands in µH", "[reference]") {
    // Source: IEC 60062 colours; chokes in µH are common practice.
    CHECK(first("yellow violet brown silver", PartKind::inductor) == Approx(470e-6));
    CHECK(first("red red gold gold", PartKind::inductor) == Approx(2.2e-6));
    CHECK(first("brown black black", PartKind::inductor) == Approx(10e-6));
    CHECK(readMark("yellow violet brown silver").front().kind == PartKind::resistor);
    CHECK(first("4R7", PartKind::inductor) == Approx(4.7e-6));
    CHECK(first("R47", PartKind::inductor) == Approx(0.47e-6));
    CHECK(first("47N", PartKind::inductor) == Approx(47e-9));
    CHECK(first("101K", PartKind::inductor) == Approx(100e-6));
}

TEST_CASE("the rated voltage is read before or behind the code") {
    // Source: rated-voltage letters of capacitors, common practice: 0J 6.3 V, 1C 16 V, 1H 50 V, 2A 100 V, 3A
    // 1 kV, 1V 35 V, 1E 25 V, 1A 10 V, 2G 400 V, 2J 630 V.
    const auto row = GENERATE(table<const char*, double>({{"1H104K", 50},
                                                          {"104K1H", 50},
                                                          {"2A104J", 100},
                                                          {"0J106M", 6.3},
                                                          {"1C106M", 16},
                                                          {"3A102K", 1000},
                                                          {"1V106M", 35},
                                                          {"1E106M", 25},
                                                          {"1A106M", 10},
                                                          {"2G104K", 400},
                                                          {"2J104K", 630},
                                                          {"104K100", 100},
                                                          {"104K 50V", 50},
                                                          {"100n 63V", 63},
                                                          {"10 µF 25 V", 25},
                                                          {"10uF/25V", 25},
                                                          {"102M 1kV", 1000}}));
    INFO(std::get<0>(row));
    const auto readings = readMark(std::get<0>(row), PartKind::capacitor);
    REQUIRE_FALSE(readings.empty());
    const bool told = std::any_of(readings.begin(), readings.end(), [&](const auto& r) {
        return r.volts && *r.volts == Approx(std::get<1>(row));
    });
    CHECK(told);
    CHECK(readMark("1H104K", PartKind::capacitor).front().value == Approx(100e-9));
    CHECK(readMark("10 µF 25 V", PartKind::capacitor).front().value == Approx(10e-6));
}

TEST_CASE("a reading says in words how it was read") {
    CHECK(meaning(readMark("104K").front()) == "three-digit code in pF: 10 × 10^4, ±10\u202f%");
    CHECK(meaning(readMark("68X", PartKind::resistor).front()).find("E96") != std::string::npos);
    CHECK(meaning(readMark("472Z", PartKind::capacitor).front()).find("−20/+80") != std::string::npos);
    CHECK(meaning(readMark("22").front()) == "two figures, plainly in pF");
    CHECK(meaning(readMark("1H104K").front()).find("50\u202fV") != std::string::npos);
}

TEST_CASE("a choke has no sixth band") {
    const std::vector<std::string> six{"red", "red", "black", "gold", "gold", "brown"};
    CHECK(readBands(six, PartKind::inductor).empty());
    CHECK_FALSE(readBands({"red", "red", "black", "gold"}, PartKind::inductor).empty());
}
