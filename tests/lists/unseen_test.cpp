#include <catch2/catch.hpp>

#include "lists/band_words.h"
#include "lists/instructions.h"
#include "lists/joined_words.h"
#include "lists/parts_list.h"
#include "lists/voltage_table.h"

using namespace ombrek;

// Manners of lists that were tried after the reader was made, and what failed in them. All invented.

namespace {

PartsList listOf(const char* text, const std::string& variant = "") {
    const auto read = readPartsList(text, {}, {}, variant);
    REQUIRE(read);
    return read->list;
}

const ListLine& lineOf(const PartsList& list, const std::string& ref) {
    for (const ListLine& line : list.lines) {
        if (std::find(line.refs.begin(), line.refs.end(), ref) != line.refs.end()) return line;
    }
    FAIL(ref << " is not in the list");
    return list.lines.front();
}

}  // namespace

TEST_CASE("parts one behind the other in a line") {
    const PartsList list = listOf(
        "Resistors: R1 10k, R2 4k7, R3 4,7k\nSemis: Q1 2N3904, D1 1N4148; U1 NE612\nC1 100n, C2 10n\nR5, R6 "
        "470\n");
    CHECK(lineOf(list, "R2").nominal == Approx(4700));
    CHECK(lineOf(list, "R3").nominal == Approx(4700));
    CHECK(lineOf(list, "Q1").kind == PartKind::transistor);
    CHECK(lineOf(list, "U1").kind == PartKind::ic);
    CHECK(lineOf(list, "C2").nominal == Approx(10e-9));
    CHECK(lineOf(list, "R5").refs.size() == 2);
    CHECK(list.parts() == 10);
    CHECK(list.doubtful() == 0);
}

TEST_CASE("a table that stands twice beside itself under one heading") {
    const PartsList list = listOf(
        "Qty  Value        Designators                 Qty  Value     Designators\n"
        " 3   10k          R1 R2 R3                     2   100nF     C1 C2\n"
        " 1   1k           R4                           1   10uF      C3\n"
        " 2   470R         R5 R6                        1   2N2222A   Q1\n");
    CHECK(list.parts() == 10);
    CHECK(lineOf(list, "C2").nominal == Approx(100e-9));
    CHECK(lineOf(list, "Q1").kind == PartKind::transistor);
}

TEST_CASE("blanks in thousands and in types") {
    CHECK(joinWords("1 000 µF 25 V", false) == "1000 µF 25 V");
    CHECK(joinWords("4 700 pF", true) == "4700 pF");
    CHECK(joinWords("2 100 nF", false) == "2 100 nF");  // two of 100 nF
    CHECK(joinWords("BC 550 C", false) == "BC550C");
    CHECK(joinWords("TL 072", false) == "TL072");
    CHECK(joinWords("1N 4148", false) == "1N4148");
    CHECK(joinWords("R 100", false) == "R 100");
    CHECK(joinWords("100 000 \u03a9", true) == "100000 \u03a9");
    const PartsList list = listOf("Halbleiter:\nT2, T3    BC 550 C\nIC1       TL 072\nC2        1 000 µF\n");
    CHECK(lineOf(list, "T2").kind == PartKind::transistor);
    CHECK(lineOf(list, "T2").mpn == "BC550C");
    CHECK(lineOf(list, "C2").nominal == Approx(1e-3));
}

TEST_CASE("bands as rows, and values for bands in words") {
    const char* rows =
        "BAND MODULE PARTS\nBand   C1     C2     L1\n80 m   820p   1500p  T50-2, 24t #26\n"
        "40 m   470p   820p   T50-2, 17t #26\n20 m   220p   390p   T50-6, 13t #26\n";
    const PartsList open = listOf(rows);
    CHECK(open.variants == std::vector<std::string>{"80 m", "40 m", "20 m"});
    CHECK_FALSE(lineOf(open, "C1").doubts.empty());
    CHECK(open.coils.front().windings.empty());  // nobody knows yet
    const PartsList forty = listOf(rows, "40m");
    CHECK(lineOf(forty, "C1").nominal == Approx(470e-12));
    CHECK(forty.coils.front().windings.front().turns == 17);

    const char* words =
        "C5   100p (40 m), 47p (20 m)\nC6   220p on 40m; 100p on 20m\nR1   10k\n"
        "L1   40m: 20 turns, 20m: 12 turns on T37-6 #28\n";
    CHECK_FALSE(lineOf(listOf(words), "C5").doubts.empty());
    const PartsList twenty = listOf(words, "20m");
    CHECK(lineOf(twenty, "C5").nominal == Approx(47e-12));
    CHECK(lineOf(twenty, "C6").nominal == Approx(100e-12));
    CHECK(twenty.coils.front().core == "T37-6");
    CHECK(twenty.coils.front().windings.front().turns == 12);
    CHECK(saidForBands("3 m of wire, 2 m of coax").empty());
    CHECK(saidForBands("100p (40 m), 47p").empty());

    const PartsList both = listOf(
        "R1 10k\nR2 4k7\nC1 see band table\nQ1 2N3904\n\nBand   C1     L1\n80 m   820p   T50-2, 24t #26\n"
        "40 m   470p   T50-2, 17t #26\n",
        "80 m");
    CHECK(lineOf(both, "C1").nominal == Approx(820e-12));
    CHECK(lineOf(both, "Q1").line == 4);
    CHECK(both.parts() == 5);
}

TEST_CASE("a shop's numbers are no values, a thread is no designator, a thing alone is one of it") {
    const PartsList bom = listOf(
        "Part #,Description,Qty,RefDes,Mfr P/N\n1001,\"RES 4.70K OHM 1% 1/4W AXIAL\",3,\"R1 R2 R3\",AB-4K7\n"
        "1002,\"IC REG LINEAR 5V 100MA TO92\",1,U1,L78L05ABZ\n1003,\"TRIMMER CAP 6-50PF\",1,C6,\n"
        "1004,\"POT 10K OHM LINEAR\",1,VR1,\n");
    CHECK(lineOf(bom, "R1").mpn == "AB-4K7");
    CHECK(lineOf(bom, "R1").doubts.empty());
    CHECK(lineOf(bom, "U1").value.find("1002") == std::string::npos);
    CHECK(lineOf(bom, "U1").mpn == "L78L05ABZ");
    CHECK(lineOf(bom, "C6").kind == PartKind::trimmer);
    const PartsList things = listOf("R1 10k\nR2 4k7\n4 separadores M3\nPCB\n28-pin socket\n");
    CHECK(things.parts() == 2);
    CHECK(things.hardware.size() == 3);
}

TEST_CASE("not fitted in some version only is asked, and a pair of turns is no count") {
    const PartsList list =
        listOf("C4  8.2 pF NP0  DNP on the 80 m version\nTr1  FT37-43, 2 x 8 turns bifilar\n");
    CHECK_FALSE(lineOf(list, "C4").doubts.empty());
    CHECK(lineOf(list, "Tr1").doubts.empty());
}

TEST_CASE("a first row that names no part is the title, and is said") {
    const PartsList list = listOf("Fog Signal 80 receiver kit\nR1 10k\n");
    CHECK(list.title == "Fog Signal 80 receiver kit");
    CHECK_FALSE(list.notes.empty());
    CHECK(listOf("HEAD   KEY-98KSC\nR1 10k\n").title.empty());  // a row in columns
}

namespace {

const PastedCheck& unseenCheck(const VoltageTable& table, const std::string& at,
                               const std::string& condition = "") {
    for (const PastedCheck& check : table.checks) {
        if (check.at == at && (condition.empty() || check.condition == condition)) return check;
    }
    FAIL("no check at " << at);
    return table.checks.front();
}

}  // namespace

TEST_CASE("pins side by side, pins in a line, a type behind the transistor") {
    const VoltageTable table = readVoltageTable(
        "Q2 (BS170)  G 0   S 0   D 13.8\nU1 NE612\nPin   1    2    3    4\nV    1.4  1.4   0   4.8\n"
        "U2: pin 1 1.3V, pin 2 0V, pin 6 13.8V\nIdle current: 35mA typ., 50mA max.\n"
        "Transmit current into 50 ohms: 450 - 600 mA\n");
    CHECK(unseenCheck(table, "Q2 D").nominal == Approx(13.8));
    CHECK(unseenCheck(table, "U1 pin 4").nominal == Approx(4.8));
    CHECK(unseenCheck(table, "U1 pin 3").nominal == Approx(0));
    CHECK(unseenCheck(table, "U2 pin 6").nominal == Approx(13.8));
    CHECK(unseenCheck(table, "Idle current").high == Approx(0.05));
    CHECK(unseenCheck(table, "Idle current").nominal == Approx(0.035));
    CHECK(unseenCheck(table, "Transmit current into 50 ohms").low == Approx(0.45));
    CHECK(table.checks.size() == 12);
    CHECK(table.refused.empty());
}

TEST_CASE("a rail is a place to touch, a line half understood is none") {
    CHECK(unseenCheck(readVoltageTable("+12 V to ground  no beep\n"), "+12 V").doubts.empty());
    CHECK_FALSE(readVoltageTable("with 5 V on the 3 and 7 in and out of the filter and so on 6 V\n")
                    .checks.front()
                    .doubts.empty());
}

TEST_CASE("power off, alone in its line, is a state") {
    const VoltageTable table =
        readVoltageTable("POWER OFF\nJ3 to ground  no beep\nPower off:\nTP1  over 1 k\n");
    CHECK(table.refused.empty());
    REQUIRE(table.checks.size() == 2);
    CHECK(table.checks[1].condition == "power off");
}

TEST_CASE("a state in the remarks, and a light with a number in its name") {
    const VoltageTable table = readVoltageTable(
        "Messpunkt;Empfang;Senden;Bemerkung\nPlus gegen Masse;kein Piepton;;ausgeschaltet\nLED "
        "2;aus;leuchtet;\n");
    CHECK(unseenCheck(table, "Plus").condition == "power off");
    for (const PastedCheck& check : table.checks) CHECK((check.at == "Plus" || check.quantity == "seen"));
    CHECK(table.checks.size() == 3);
}

TEST_CASE("tests told in sentences") {
    const VoltageTable table = readVoltageTable(
        "Test 1: with no ICs fitted and the fuse out, measure the resistance between TP1 and ground. It "
        "should be "
        "greater than 1 kohm.\nTest 2: Fit the fuse and apply 12 V. Check for 5 V \u00b15% at U4 pin 16.\n"
        "Test 3: Check that the LED comes on.\nTest 4: U6 pin 3 should be about half the supply voltage "
        "(6V).\n"
        "Test 5: The voltage at the drain of Q4 should be 0.6 to 0.8 V below that at its source.\n");
    CHECK(unseenCheck(table, "TP1").low == Approx(1000));
    CHECK(unseenCheck(table, "TP1").to == "ground");
    CHECK(unseenCheck(table, "TP1").condition == "ICs out");
    CHECK(unseenCheck(table, "U4 pin 16").high == Approx(5.25));
    CHECK(unseenCheck(table, "U6 pin 3").nominal == Approx(6));
    CHECK(unseenCheck(table, "source of Q4").to == "drain of Q4");
    CHECK(table.checks.size() == 5);
}

TEST_CASE("instructions numbered by stage, and what a gap is for") {
    const auto steps = readInstructions(
        "[ ] 1-1  Install R1 (10K, brown-black-orange) and R2.\n[ ] 1-2  Do NOT install U1 at this time.\n"
        "2. Fit the crystals X1-X4 leaving a 1 mm gap below each one so the cans do not short the tracks\n");
    REQUIRE(steps.size() == 3);
    CHECK(steps[0].number == "1-1");
    CHECK(steps[0].title.starts_with("Install R1"));
    CHECK(steps[1].fits.empty());
    CHECK(steps[1].holds.size() == 1);
    CHECK(steps[2].fits.size() == 4);
    CHECK(steps[2].holds.empty());
}
