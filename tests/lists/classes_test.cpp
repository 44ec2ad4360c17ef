#include <catch2/catch.hpp>
#include <cmath>

#include "lists/parts_list.h"

using namespace ombrek;

// The classes of rows that people's lists hold, one or two of each. Every list is made up.

namespace {

PartsList listOf(const std::string& text, const std::string& variant = {}) {
    auto source = readPartsList(text, {}, {}, variant);
    REQUIRE(source);
    return std::move(source->list);
}

const ListLine& lineOf(const PartsList& list, const std::string& ref) {
    for (const ListLine& line : list.lines) {
        if (std::find(line.refs.begin(), line.refs.end(), ref) != line.refs.end()) return line;
    }
    FAIL("no line has " << ref);
    return list.lines.front();
}

double valueOf(const PartsList& list, const std::string& ref) { return lineOf(list, ref).nominal; }

const ListCoil& coilOf(const PartsList& list, const std::string& ref) {
    for (const ListCoil& coil : list.coils) {
        if (coil.ref == ref) return coil;
    }
    FAIL("no coil is " << ref);
    return list.coils.front();
}

struct Row {
    std::string text;
    double nominal;
};

}  // namespace

TEST_CASE("values as people write them") {
    // Each alone in its list, so that nothing but the row itself helps.
    const std::vector<Row> rows{{"R1 330E", 330},
                                {"R1 1Meg", 1e6},
                                {"R1 2.2 Megohm", 2.2e6},
                                {"R1 RES 10K OHM 5% 1/4W AXIAL", 10e3},
                                {"R1 10k/1%", 10e3},
                                {"R1 470_0805", 470},
                                {"R1 4k7J", 4700},
                                {"R1 2R2 1/2W", 2.2},
                                {"C1 100NF/50V", 100e-9},
                                {"C1 1000uF/16V", 1000e-6},
                                {"C1 10u/25V", 10e-6},
                                {"C1 100n_50V", 100e-9},
                                {"C1 47u(25V)", 47e-6},
                                {"C1 100u16V", 100e-6},
                                {"C1 100 NF", 100e-9},
                                {"C1 0.1 uF", 100e-9},
                                {"C1 .01", 10e-9},
                                {"C1 0.047 mfd", 47e-9},
                                {"C1 220 mmfd", 220e-12},
                                {"C1 CAP CER 10000PF 50V X7R RADIAL", 10e-9},
                                {"C1 300", 30e-12},
                                {"C1 2 x 100n", 100e-9},
                                {"L1 4.7uH/2A", 4.7e-6},
                                {"L1 100UH/0.5A", 100e-6},
                                {"L1 FIXED IND 10UH 740MA", 10e-6},
                                {"L1 2.5 mH choke", 2.5e-3}};
    for (const Row& row : rows) {
        CAPTURE(row.text);
        const PartsList list = listOf(row.text);
        REQUIRE(list.lines.size() == 1);
        CHECK(list.lines[0].nominal == Approx(row.nominal).epsilon(1e-6));
    }
    for (const std::string text : {"R1 0R0", "R1 0", "R1 0 ohm"}) {
        CAPTURE(text);
        CHECK(listOf(text).lines[0].link);
    }
}

TEST_CASE("ratings beside a value are kept, and are not the value") {
    const PartsList list = listOf("C1 1000uF/16V\nC2 10u/25\nR1 10k/1%\nR2 4k7 1/2 W 2 %\nC3 100n 63VDC K");
    CHECK(lineOf(list, "C1").volts == 16);
    CHECK(lineOf(list, "C2").volts == 25);
    CHECK(lineOf(list, "R1").tolerance == 1);
    CHECK(lineOf(list, "R2").watts == 0.5);
    CHECK(lineOf(list, "R2").tolerance == 2);
    CHECK(lineOf(list, "C3").volts == 63);
    CHECK(lineOf(list, "C3").tolerance == 10);
    CHECK(list.doubtful() == 0);
}

TEST_CASE("the file as a whole says what a comma is") {
    const PartsList point = listOf("C1 1,000 pF\nC2 0.1 uF\nR1 4,700\nR2 2.2k");
    CHECK(valueOf(point, "C1") == Approx(1e-9));
    CHECK(valueOf(point, "R1") == Approx(4700));
    REQUIRE(point.notes.size() == 1);
    CHECK(point.notes[0].find("thousand") != std::string::npos);
    const PartsList comma = listOf(
        "C1 4,7 nF\nC2 0,1 \xC2\xB5"
        "F\nR1 2,2 k\nR2 1,5 k");
    CHECK(valueOf(comma, "C1") == Approx(4.7e-9));
    CHECK(valueOf(comma, "R2") == Approx(1500));
    // Alone it may be either, and that is said.
    CHECK_FALSE(listOf("C1 1,000 pF").lines[0].sure());
}

TEST_CASE("headings hold for the rows below") {
    const PartsList list = listOf(
        "Resistors, 1/4 W, 5 %\nR1 10k\nR2 22k\n\nCapacitors (values in pF)\nC1 100\nC2 4,700\n\n"
        "Capacitors (uF, 63 V)\nC3 0.1\nC4 10\n\nNot fitted\nR20 10k\n");
    CHECK(lineOf(list, "R1").tolerance == 5);
    CHECK_FALSE(lineOf(list, "R1").toleranceAssumed);
    CHECK(lineOf(list, "R2").watts == 0.25);
    CHECK(valueOf(list, "C1") == Approx(100e-12));
    CHECK(valueOf(list, "C2") == Approx(4.7e-9));
    CHECK(valueOf(list, "C4") == Approx(10e-6));
    CHECK(lineOf(list, "C4").volts == 63);
    CHECK_FALSE(lineOf(list, "R20").fitted);
    CHECK(lineOf(list, "R1").fitted);
}

TEST_CASE("designators in every shape") {
    const PartsList list = listOf(
        "R4,5,6  1k\nR7/8  2k2\nR9 bis R11  4k7\nC1..C4  10n\nD1-D4, D6  1N4148\nC5,C6,  100n\n       C7,C8\n"
        "R1,10   470\nR20 - 4.7 kohm\nDZ1 ZMM3.3\nR30 t/m R32 = 1k");
    CHECK(lineOf(list, "R6").nominal == 1000);
    CHECK(lineOf(list, "R8").nominal == 2200);
    CHECK(lineOf(list, "R10").nominal == 4700);
    CHECK(lineOf(list, "C3").nominal == Approx(10e-9));
    CHECK(lineOf(list, "D6").refs.size() == 5);
    CHECK(lineOf(list, "C8").nominal == Approx(100e-9));
    CHECK(lineOf(list, "R20").nominal == 4700);
    CHECK(lineOf(list, "DZ1").kind == PartKind::diode);
    CHECK(lineOf(list, "R31").nominal == 1000);
    // "R1,10" alone is a value.
    CHECK(listOf("R1,10\nR2,22\nR3,47").lines[0].nominal == 10);
}

TEST_CASE("value, words and package speak before the letter") {
    const PartsList list = listOf(
        "Ref;Value;Footprint\nT1;BC846;SOT-23\nJ2;BC264A;TO-92\nX1;DB25F;\nQ2;4.0MHz;HC-49\nRV1;S14K275;\n"
        "T2;FT50-43, 10 turns;\nVR1;78L05;TO-92\nR1;10k trimpot;\nL1;ferrite bead;0805\nK1;relay 5 "
        "V;\nIC1;LM386;DIP8");
    const std::vector<std::pair<std::string, PartKind>> kinds{
        {"T1", PartKind::transistor}, {"J2", PartKind::transistor}, {"X1", PartKind::other},
        {"Q2", PartKind::crystal},    {"RV1", PartKind::other},     {"T2", PartKind::coil},
        {"VR1", PartKind::ic},        {"R1", PartKind::trimmer},    {"L1", PartKind::other},
        {"K1", PartKind::other},      {"IC1", PartKind::ic}};
    for (const auto& [ref, kind] : kinds) {
        CAPTURE(ref);
        CHECK(lineOf(list, ref).kind == kind);
    }
    CHECK(lineOf(list, "T1").package == "SOT-23");
    CHECK(lineOf(list, "T1").mpn == "BC846");
    // A letter that says one measured kind and a unit that says another: told.
    CHECK_FALSE(listOf("C3 4.7uH").lines[0].sure());
    // Words in a remark do not make the part what they name.
    CHECK(listOf("R3 1k for the LED at the relay socket").lines[0].kind == PartKind::resistor);
}

TEST_CASE("what is not fitted is in the list and not in the bag") {
    const PartsList list = listOf(
        "R1 10k\nR2 22k not fitted\nC1 100n DNP\nC2 47p (NF)\nC3 10n nicht best\xC3\xBC"
        "ckt\nD1 optional\n"
        "R3 .... entf\xC3\xA4llt\nR4 1k omit");
    for (const ListLine& line : list.lines) {
        CAPTURE(line.text);
        CHECK(line.fitted == (line.refs.front() == "R1"));
    }
    CHECK(list.parts() == 8);
    const PartsList columns = listOf("Ref,Value,DNP\nR1,10k,\nR2,10k,DNP\nR3,1k,x\nR4,1k,no\n");
    CHECK(lineOf(columns, "R1").fitted);
    CHECK_FALSE(lineOf(columns, "R2").fitted);
    CHECK_FALSE(lineOf(columns, "R3").fitted);
    CHECK(lineOf(columns, "R4").fitted);
    const PartsList stated = listOf(
        "Bauteil;Wert;Best\xC3\xBC"
        "ckt\nR1;10k;ja\nR2;22k;nein\n");
    CHECK_FALSE(lineOf(stated, "R2").fitted);
    const auto kit = kitFromList(list, "Bag", {});
    CHECK(kit.find("\"R2\"") == std::string::npos);
    CHECK(kit.find("\"R1\"") != std::string::npos);
}

TEST_CASE("variants: a column each, a table of their own, a row each") {
    const std::string columns =
        "Ref  Value  40m                  20m\nR1   10k\nC5          100p                 47p\n"
        "C6          -                    22p\nL1          T50-2, 30 turns #26  T50-6, 20 turns #26\n";
    const PartsList open = listOf(columns);
    CHECK(open.variants == std::vector<std::string>{"40m", "20m"});
    CHECK(lineOf(open, "R1").sure());
    CHECK_FALSE(lineOf(open, "C5").sure());
    CHECK(lineOf(open, "C5").nominal == 0);
    const PartsList twenty = listOf(columns, "20 m");
    CHECK(valueOf(twenty, "C5") == Approx(47e-12));
    CHECK(coilOf(twenty, "L1").core == "T50-6");
    CHECK(coilOf(twenty, "L1").windings[0].turns == 20);
    CHECK_FALSE(lineOf(listOf(columns, "40m"), "C6").fitted);

    const std::string apart =
        "Part   Value\nC20    see band table\nR1     1k\n\nBand table\nPart   80m    40m\nC20    470p   "
        "220p\n";
    CHECK(valueOf(listOf(apart, "40m"), "C20") == Approx(220e-12));
    CHECK(valueOf(listOf(apart, "40m"), "R1") == 1000);

    const std::string rows = "Reference;Value;Version\nR1;10k;all\nC5;100p;40m\nC5;47p;20m\n";
    CHECK(valueOf(listOf(rows, "20m"), "C5") == Approx(47e-12));
    CHECK(valueOf(listOf(rows, "20m"), "R1") == 10e3);
    CHECK_FALSE(lineOf(listOf(rows), "C5").sure());
    CHECK(unknownVariant(twenty, "15m"));
    CHECK_FALSE(unknownVariant(twenty, "20 M"));
}

TEST_CASE("hardware and wire are kept with count and unit") {
    const PartsList list = listOf(
        "R1 10k\n\nHardware\n4 M3 x 6 screws\n8 M3 screws, 6 mm\n60 cm RG174 coax\n3 m 0.315 mm enamelled "
        "wire\n"
        "Knob, 6 mm shaft   2\nEnclosure 120 x 80 x 40 mm\n");
    struct Want {
        std::string what;
        double count;
        std::string unit;
    };
    const std::vector<Want> want{{"M3 x 6 screws", 4, "pcs"},    {"M3 screws, 6 mm", 8, "pcs"},
                                 {"RG174 coax", 60, "cm"},       {"0.315 mm enamelled wire", 3, "m"},
                                 {"Knob, 6 mm shaft", 2, "pcs"}, {"Enclosure 120 x 80 x 40 mm", 1, "pcs"}};
    REQUIRE(list.hardware.size() == want.size());
    for (std::size_t i = 0; i < want.size(); ++i) {
        CAPTURE(want[i].what);
        CHECK(list.hardware[i].what == want[i].what);
        CHECK(list.hardware[i].count == want[i].count);
        CHECK(list.hardware[i].unit == want[i].unit);
    }
    CHECK(list.parts() == 1);
}

TEST_CASE("coils in a sentence") {
    const PartsList list = listOf(
        "L1  T50-2 (red), 28 turns #28, 75 cm\nT2  FT37-43, 10 turns bifilar\n"
        "T3  BN-43-202, primary 2 turns, secondary 5 turns\nT4  FT50-43 10T:3T\n"
        "L2  T50-6, 23 Wdg. 0,5 mm CuL, Anzapfung bei 7\nL3  T37-6, 30 turns 26AWG, tapped at 5 and 12\n"
        "T5  10.7 MHz IF can, pink core\nT6  ringkern FT50-43, 12 windingen\n"
        "T7  FT37-61, 18 turns primary, 3 turns secondary, #30\n");
    CHECK(coilOf(list, "L1").core == "T50-2");
    CHECK(coilOf(list, "L1").wire == "28AWG");
    CHECK(coilOf(list, "L1").wireLength == Approx(0.75));
    CHECK(coilOf(list, "L1").windings[0].turns == 28);
    CHECK(coilOf(list, "T2").twisted.size() == 2);
    CHECK(coilOf(list, "T2").windings[1].turns == 10);
    CHECK(coilOf(list, "T3").core == "BN43-202");
    CHECK(coilOf(list, "T3").windings[0].name == "primary");
    CHECK(coilOf(list, "T3").windings[1].turns == 5);
    CHECK(coilOf(list, "T4").windings[0].turns == 10);
    CHECK(coilOf(list, "T4").windings[1].turns == 3);
    CHECK(coilOf(list, "L2").wire == "0.5mm");
    CHECK(coilOf(list, "L2").windings[0].taps == std::vector<int>{7});
    CHECK(coilOf(list, "L3").windings[0].taps == std::vector<int>{5, 12});
    CHECK(coilOf(list, "T5").windings.empty());
    CHECK(coilOf(list, "T6").windings[0].turns == 12);
    CHECK(coilOf(list, "T7").windings[0].turns == 18);
    CHECK(coilOf(list, "T7").windings[1].name == "secondary");
    CHECK(coilOf(list, "T7").wire == "30AWG");
}

TEST_CASE("parts side by side, in blocks, in columns below comments") {
    const PartsList beside =
        listOf("R1  10k     C1  100n    D1  1N4148\nR2  22k     C2  10n     Q1  BC547\n");
    CHECK(beside.parts() == 6);
    CHECK(valueOf(beside, "C2") == Approx(10e-9));
    const PartsList blocks = listOf("R1,R2\n10k\nC1\n100n\nQ1\nBS170\n");
    CHECK(valueOf(blocks, "R2") == 10e3);
    CHECK(lineOf(blocks, "Q1").value == "BS170");
    const PartsList bom = listOf(
        "# Bill of materials\n# Quantity, Description, Value, RefDes\n# ------\n2,\"R 0.25W\",\"47k\",R1 R2\n"
        "1,\"SO8\",\"LM358\",U1\n");
    CHECK(valueOf(bom, "R2") == 47e3);
    CHECK(lineOf(bom, "U1").value == "LM358");
    const PartsList wrapped = listOf(
        "Item | Reference | Value | Comment\n-----|-----|-----|-----\n1 | R1, R2, | 10k | base bias\n  | R3 "
        "| |\n"
        "2 | C1 | 100n | decoupling of IC1, close\n  |    |      | to its pin 8\n");
    CHECK(valueOf(wrapped, "R3") == 10e3);
    CHECK(wrapped.refused.empty());
}
