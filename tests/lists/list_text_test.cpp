#include "lists/list_text.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <map>

using namespace ombrek;

namespace {

struct Expected {
    std::string refs;      ///< "C1 C2"
    double nominal = 0;    ///< 0: a described part
    std::string has = {};  ///< words its description must hold
};
struct Sample {
    std::string name, text;
    std::vector<Expected> lines;
};

std::string joined(const std::vector<std::string>& refs) {
    std::string out;
    for (const auto& ref : refs) out += (out.empty() ? "" : " ") + ref;
    return out;
}

/// Ten made-up lists, each in another manner of setting one.
const std::vector<Sample>& samples() {
    static const std::vector<Sample> all{{"designators, value, mark, quantity",
                                          R"(C1, C2, C5-C8   100nF 50V ceramic (marked 104)   6
C3              10uF 25V electrolytic             1
C4, C9          22pF NP0 (marked 22J)             2
R1-R3           4.7k 1/4W 5%                      3
R4              470 1/4W 5%                       1
R5, R6          1M 1/4W 5% (brown black green gold)   2
L1              10uH choke (marked 100)           1
Q1, Q2          NPN small signal                  2
D1              silicon switching diode           1
U1              8 V regulator, 100 mA             1
T1              T50-6 toroid, 24 turns            1
X1, X2          9.000 MHz crystal                 2)",
                                          {{"C1 C2 C5 C6 C7 C8", 100e-9},
                                           {"C3", 10e-6},
                                           {"C4 C9", 22e-12},
                                           {"R1 R2 R3", 4700},
                                           {"R4", 470},
                                           {"R5 R6", 1e6},
                                           {"L1", 10e-6},
                                           {"Q1 Q2", 0, "NPN"},
                                           {"D1", 0, "silicon"},
                                           {"U1", 0, "regulator"},
                                           {"T1", 0, "T50-6"},
                                           {"X1 X2", 0, "9.000"}}},
                                         {"quantity first",
                                          R"(2x 10k resistor R1 R2
3x 2k2 resistor R3, R4, R9
1x 1.5k resistor R5
4x 0.1uF capacitor C1 C2 C3 C4
2x 47uF/16V electrolytic C5 C6
1x 390pF capacitor C7
1x PNP transistor Q1
2x germanium diode D1 D2
1x 100uH inductor L3)",
                                          {{"R1 R2", 10e3},
                                           {"R3 R4 R9", 2200},
                                           {"R5", 1500},
                                           {"C1 C2 C3 C4", 0.1e-6},
                                           {"C5 C6", 47e-6},
                                           {"C7", 390e-12},
                                           {"Q1", 0, "PNP"},
                                           {"D1 D2", 0, "germanium"},
                                           {"L3", 100e-6}}},
                                         {"tick boxes, one part a line",
                                          R"([ ] R1 4k7 (yellow violet red gold)
[ ] R2 220R (red red brown gold)
[ ] R3 1M0 (brown black green gold)
[ ] R4 33K (orange orange orange gold)
[ ] C1 10n (103)
[ ] C2 1n5
[ ] C3 4p7
[ ] C4 220u 16V
[ ] D3 LED, red
[ ] Y1 crystal 12.288 MHz)",
                                          {{"R1", 4700},
                                           {"R2", 220},
                                           {"R3", 1e6},
                                           {"R4", 33e3},
                                           {"C1", 10e-9},
                                           {"C2", 1.5e-9},
                                           {"C3", 4.7e-12},
                                           {"C4", 220e-6},
                                           {"D3", 0, "LED"},
                                           {"Y1", 0, "12.288"}}},
                                         {"a table drawn with bars",
                                          R"(| Ref          | Value   | Rating    | Qty |
|--------------|---------|-----------|-----|
| R1, R2       | 10k     | 1/4W 5%   | 2   |
| R3           | 100     | 1/4W 5%   | 1   |
| R7           | 2.2     | 1/2W 1%   | 1   |
| C1 - C4      | 100 nF  | 63 V      | 4   |
| C10          | 1 µF    | 35 V      | 1   |
| C11, C12     | 68 pF   | 100 V     | 2   |
| L1, L2       | 4.7 µH  | axial     | 2   |
| U1           | mixer, 8 pins |     | 1   |)",
                                          {{"R1 R2", 10e3},
                                           {"R3", 100},
                                           {"R7", 2.2},
                                           {"C1 C2 C3 C4", 100e-9},
                                           {"C10", 1e-6},
                                           {"C11 C12", 68e-12},
                                           {"L1 L2", 4.7e-6},
                                           {"U1", 0, "mixer"}}},
                                         {"value first, designators last",
                                          R"(10 kΩ 5 %         R1, R2, R7
4.7 kΩ 5 %        R3 & R4
680 Ω 1 %         R5
100 nF            C1..C3, C8
22 µF 16 V        C4
1000 pF           C5, C6
47 µH             L1
N-channel JFET    Q1
balanced mixer    U2)",
                                          {{"R1 R2 R7", 10e3},
                                           {"R3 R4", 4700},
                                           {"R5", 680},
                                           {"C1 C2 C3 C8", 100e-9},
                                           {"C4", 22e-6},
                                           {"C5 C6", 1e-9},
                                           {"L1", 47e-6},
                                           {"Q1", 0, "JFET"},
                                           {"U2", 0, "mixer"}}},
                                         {"headings above, little on each line",
                                          R"(Resistors (1/4 W, 1 %)
R1  10K
R2  4K99
R3  49R9
R4, R5  1K
Capacitors
C1  104
C2  100p
C3  2n2
Electrolytics
C4  100u
Diodes
D1  Schottky
Transistors
Q1  MOSFET)",
                                          {{"R1", 10e3},
                                           {"R2", 4990},
                                           {"R3", 49.9},
                                           {"R4 R5", 1000},
                                           {"C1", 100e-9},
                                           {"C2", 100e-12},
                                           {"C3", 2.2e-9},
                                           {"C4", 100e-6},
                                           {"D1", 0, "Schottky"},
                                           {"Q1", 0, "MOSFET"}}},
                                         {"wrapped lines and page heads",
                                          R"(Harbour Light Club     Receiver manual, page 7 of 40

C1, C2, C5, C6,
C11, C12       10 nF ceramic disc                 6
C3, C4,

Page 8 of 40

C7             120 pF NP0                         3
C8             10 uF electrolytic, radial,
               the long lead is plus              1
R1, R2, R3     3.3k 1/4W                          3
R4 R5 R6 R7
R8 R9          47k 1/4W                           6
                        - 9 -
U1             audio amplifier
               (fit the socket first)             1)",
                                          {{"C1 C2 C5 C6 C11 C12", 10e-9},
                                           {"C3 C4 C7", 120e-12},
                                           {"C8", 10e-6},
                                           {"R1 R2 R3", 3300},
                                           {"R4 R5 R6 R7 R8 R9", 47e3},
                                           {"U1", 0, "audio"}}},
                                         {"decimal commas and other words for and, to",
                                          R"(R1 bis R4    2,2 kΩ 5 %          4 Stk
R5 und R6    0,47 Ω 5 %          2 Stk
C1           0,1 µF              1 Stk
C2, C3       4,7 µF 35 V         2 Stk
C4           3,3 nF              1 Stk
L1           1,5 µH              1 Stk
D1 bis D4    Diode, silicon      4 Stk)",
                                          {{"R1 R2 R3 R4", 2200},
                                           {"R5 R6", 0.47},
                                           {"C1", 0.1e-6},
                                           {"C2 C3", 4.7e-6},
                                           {"C4", 3.3e-9},
                                           {"L1", 1.5e-6},
                                           {"D1 D2 D3 D4", 0, "silicon"}}},
                                         {"numbered items with colons",
                                          R"(1. C1-C4: 0.1uF 50V, qty 4
2. C5: .01uF, qty 1
3. C6-9: 470 pF, qty 4
4. R1: 1 Meg, qty 1
5. R2, R3: 51 ohms, qty 2
6. R4: 1K5, qty 1
7. L1: 2.2 uH, qty 1
8. K1: relay, 5 V coil, qty 1
9. VC1: trimmer 5-30 pF, qty 1)",
                                          {{"C1 C2 C3 C4", 0.1e-6},
                                           {"C5", 0.01e-6},
                                           {"C6 C7 C8 C9", 470e-12},
                                           {"R1", 1e6},
                                           {"R2 R3", 51},
                                           {"R4", 1500},
                                           {"L1", 2.2e-6},
                                           {"K1", 0, "relay"},
                                           {"VC1", 0, "trimmer"}}},
                                         {"leader dots",
                                          R"(C1 ......... 100n
C2 ......... 47p
C3, C4 ..... 4u7
R1 ......... 12k
R2 ......... 3R3
R3-R6 ...... 150
RFC1 ....... 22u
J1 ......... antenna socket
SW1 ........ toggle switch)",
                                          {{"C1", 100e-9},
                                           {"C2", 47e-12},
                                           {"C3 C4", 4.7e-6},
                                           {"R1", 12e3},
                                           {"R2", 3.3},
                                           {"R3 R4 R5 R6", 150},
                                           {"RFC1", 22e-6},
                                           {"J1", 0, "antenna"},
                                           {"SW1", 0, "toggle"}}}};
    return all;
}

bool right(const ListLine& line, const Expected& expected) {
    if (joined(line.refs) != expected.refs) return false;
    if (expected.nominal > 0) return std::fabs(line.nominal / expected.nominal - 1) < 1e-6;
    return line.nominal == 0 && (line.value + line.description).find(expected.has) != std::string::npos;
}

const ListLine& only(const PartsList& list) {
    REQUIRE(list.lines.size() == 1);
    return list.lines.front();
}

bool doubts(const ListLine& line, const std::string& word) {
    for (const auto& doubt : line.doubts) {
        if (doubt.find(word) != std::string::npos) return true;
    }
    return false;
}

}  // namespace

TEST_CASE("at least 95 of 100 lines of ten styles are right, and none is wrong in silence") {
    int all = 0, good = 0;
    for (const Sample& sample : samples()) {
        const PartsList list = readListText(sample.text);
        std::map<std::string, const ListLine*> byRef;
        for (const ListLine& line : list.lines) byRef[line.refs.front()] = &line;
        CAPTURE(sample.name);
        for (const Expected& expected : sample.lines) {
            ++all;
            const auto hit = byRef.find(expected.refs.substr(0, expected.refs.find(' ')));
            CAPTURE(expected.refs);
            REQUIRE(hit != byRef.end());
            const bool ok = right(*hit->second, expected);
            good += ok;
            CAPTURE(joined(hit->second->refs), hit->second->nominal, hit->second->value);
            CHECK((ok || !hit->second->sure()));
        }
        CHECK(list.lines.size() == sample.lines.size());
    }
    INFO(good << " of " << all);
    CHECK(all >= 85);
    CHECK(good >= 0.95 * all);
}

TEST_CASE("few lines are doubted without need") {
    int all = 0, doubted = 0;
    for (const Sample& sample : samples()) {
        const PartsList list = readListText(sample.text);
        all += int(list.lines.size());
        for (const ListLine& line : list.lines) {
            if (!line.sure()) UNSCOPED_INFO(line.text << ": " << line.doubts.front());
        }
        doubted += list.doubtful();
    }
    CHECK(doubted <= all / 20);
}

TEST_CASE("a quantity that disagrees with the designators is said") {
    const auto list = readListText("C1, C2, C5-C8   100nF   7");
    CHECK(only(list).quantity == 7);
    CHECK(doubts(only(list), "says 7, the designators make 6"));
}

TEST_CASE("doubts name what is wrong") {
    CHECK(doubts(only(readListText("C1  100nF (marked 103)  1")), "mark 103"));
    CHECK(doubts(only(readListText("R1  4.8k  1")), "preferred"));
    CHECK(doubts(only(readListText("R1  1m  1")), "unusual"));
    CHECK(doubts(only(readListText("C1  104")), "no unit"));
    CHECK(doubts(only(readListText("R1  l0k")), "No value"));
    CHECK(doubts(only(readListText("R1  10k 22k  1")), "More than one"));
    CHECK(doubts(only(readListText("R8-R3  10k  6")), "backwards"));
    CHECK(doubts(only(readListText("C1,")), "break off"));
    CHECK(doubts(only(readListText("R1, R1  10k  2")), "twice"));
    const auto twice = readListText("R1 10k\nR2 22k\nR1 47k");
    CHECK(doubts(twice.lines.back(), "line 1 too"));
    CHECK(twice.parts() == 2);
}

TEST_CASE("what has no designator is refused with its line") {
    const auto list = readListText("R1 10k\n\nRead all of this first\nsolder, 2 m\n");
    REQUIRE(list.hardware.size() == 1);
    CHECK(list.hardware[0].count == 2);
    CHECK(list.hardware[0].unit == "m");
    REQUIRE(list.refused.size() == 1);
    CHECK(list.refused[0].line == 3);
    CHECK(list.refused[0].reason.find("designator") != std::string::npos);
}

TEST_CASE("tolerance, volts, watts and marks are taken from the line") {
    const auto r = readListText("R1, R2  10k 1% 1/2W (marked 1002)  2");
    CHECK(only(r).tolerance == 1);
    CHECK_FALSE(only(r).toleranceAssumed);
    CHECK(only(r).watts == Approx(0.5));
    CHECK(only(r).mark == "1002");
    CHECK(only(r).sure());
    const auto c = readListText("C1  10uF 25V electrolytic  1");
    CHECK(only(c).volts == 25);
    CHECK(only(c).tolerance == 20);
    CHECK(only(c).toleranceAssumed);
    CHECK(only(readListText("Resistors, 1/4 W 2 %\nR1 10k")).tolerance == 2);
    const auto trimmer = only(readListText("VC1: trimmer 5-30 pF, qty 1"));
    CHECK(trimmer.kind == PartKind::trimmer);
    CHECK(trimmer.high == Approx(30e-12));
}

TEST_CASE("Latin-1, UTF-16 and strange line ends are read") {
    CHECK(only(readListText("C1  10 \xB5"
                            "F 25 V  1\r"))
              .nominal == Approx(10e-6));
    CHECK(only(readListText("\xEF\xBB\xBFR1 10k")).nominal == Approx(10e3));
    const std::string wide("\xFF\xFER\0001\0 \0001\0000\0k\0\n\0", 16);
    CHECK(only(readListText(wide)).nominal == Approx(10e3));
}

TEST_CASE("reading stops when it is told to") {
    std::string text;
    for (int i = 0; i < 3000; ++i) text += "R" + std::to_string(i % 9999) + " 10k\n";
    int asked = 0;
    CHECK(readListText(text, [&](double) { return ++asked < 2; }).lines.empty());
    CHECK(asked == 2);
}

TEST_CASE("boxes to tick, halves beside each other, names without a number: no part is lost in silence") {
    const auto ticked =
        readListText("[ ] R5, 10\n[ ] Q1, 2N3904\n[ ] R13, 100\n[ ] U3, PIC16C54\n[ ] J3, A2100-ND\n");
    REQUIRE(ticked.lines.size() == 5);
    CHECK(ticked.lines[0].nominal == 10);
    CHECK(ticked.lines[1].refs == std::vector<std::string>{"Q1"});
    CHECK(ticked.lines[2].nominal == 100);
    CHECK(ticked.lines[4].refs == std::vector<std::string>{"J3"});
    const auto halves = readListText(
        "DT100  SMAJ15CA     DT101  SMAJ15CA\nT200   FDV304P      R5   4k7\nC12  390p  NP0  not fitted\n");
    REQUIRE(halves.lines.size() == 5);
    CHECK(halves.lines[1].refs == std::vector<std::string>{"DT101"});
    CHECK(halves.lines[2].value == "FDV304P");
    CHECK_FALSE(halves.lines[4].fitted);
    const auto small = readListText("r1  10k   metal    c1  100n  disc\nr2 1k     q1 bc547 npn\n");
    REQUIRE(small.lines.size() == 4);
    CHECK(small.lines[1].nominal == Approx(100e-9));
    CHECK(small.lines[3].value == "bc547 npn");
    for (const char* list : {"C1, Cout: 2.2uF", "2x  2.2uF  Cout, C1, C2"}) {
        CAPTURE(list);
        CHECK(only(readListText(list)).doubts.front().find("\"Cout\"") == 0);
    }
}

TEST_CASE("a line that reads like a heading and heads nothing is shown") {
    for (const char* list :
         {"r1 10k   r2 22k   c3 1n\nlamp for the dial\n", "R1 10k\nlamp for the dial\nR2 1k\n",
          "R1 10k\nLamp for the dial\nCapacitors:\nC1 1n\n"}) {
        CAPTURE(list);
        const auto read = readListText(list);
        REQUIRE(read.refused.size() == 1);
        CHECK(read.refused[0].text.find("for the dial") != std::string::npos);
    }
    CHECK(readListText("Resistors for the filter:\nR1 10k\nSemiconductors\nDiodes\nD1 1N4148\n")
              .refused.empty());
}

TEST_CASE("a coil's bare number is asked about, a table's columns say what they count") {
    for (const char* list : {"L1  12\nR5 10k\n", "L1, 12\nR5 10k\n", "L1,12  T37-2\n"}) {
        CAPTURE(list);
        CHECK_FALSE(readListText(list).lines.front().sure());
    }
    CHECK(readListText("L1  12 turns\nR5 10k\n").lines.front().sure());
}
