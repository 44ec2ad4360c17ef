#include <catch2/catch.hpp>

#include "formats/files.h"
#include "formats/kit_edit.h"
#include "formats/kit_json.h"
#include "formats/tables.h"
#include "lists/entries.h"
#include "lists/instructions.h"
#include "lists/voltage_table.h"

using namespace ombrek;

// What stands in a manual beside its parts list. Every line is made up.

namespace {

const PastedCheck& checkAt(const VoltageTable& table, const std::string& at,
                           const std::string& condition = {}) {
    for (const PastedCheck& check : table.checks) {
        if (check.at == at && (condition.empty() || check.condition == condition)) return check;
    }
    FAIL("no check at " << at << " " << condition);
    return table.checks.front();
}

void holds(const PastedCheck& check, double low, double high) {
    CAPTURE(check.text);
    REQUIRE(check.low);
    REQUIRE(check.high);
    CHECK(*check.low == Approx(low));
    CHECK(*check.high == Approx(high));
}

}  // namespace

TEST_CASE("a table of voltages in a manual's manners") {
    const VoltageTable table = readVoltageTable(
        "Voltage table, supply 12.0 V\n\nIC3 pin 8 \xE2\x80\xA6\xE2\x80\xA6\xE2\x80\xA6 5.0 V\nU2-1 to U2-7  "
        " 5.78\n"
        "Supply current, key up: <50 mA\nSupply current, key down: 350 to 450 mA\nTP1: 4.8 to 5.2 V\n"
        "D1 cathode   ca. 11.3 V\nResistance from +12 V rail to ground: no beep\nJ1 centre to ground  open\n"
        "Q3 collector 11.2V, from U1\nInput of regulator 12.3 V\nAfter the series diode 0.6 to 0.8 V below "
        "it\n"
        "Regulator output 5 V \xC2\xB1"
        "5 %\nAntenna socket to ground: > 1 k\xCE\xA9\nThe LED lights\n"
        "Bias rail -5.0 V\nUnrelated sentence of the manual\n");
    CHECK(table.checks.size() == 15);
    CHECK(table.refused.size() == 1);
    holds(checkAt(table, "IC3 pin 8"), 4.5, 5.5);  // a bare number: +-10 %
    CHECK(checkAt(table, "IC3 pin 8").nominal == 5.0);
    CHECK(checkAt(table, "IC3 pin 8").rule.find("10 %") != std::string::npos);
    CHECK(checkAt(table, "IC3 pin 8").to == "ground");
    CHECK(checkAt(table, "U2-1").to == "U2-7");
    CHECK(checkAt(table, "U2-1").doubts.empty());  // the heading says voltage
    CHECK_FALSE(readVoltageTable("U2-1 5.78").checks.at(0).doubts.empty());
    CHECK(checkAt(table, "Supply current", "key up").high == Approx(0.05));
    CHECK_FALSE(checkAt(table, "Supply current", "key up").low);
    holds(checkAt(table, "Supply current", "key down"), 0.35, 0.45);
    CHECK(checkAt(table, "Supply current", "key down").quantity == "current");
    holds(checkAt(table, "TP1"), 4.8, 5.2);
    holds(checkAt(table, "D1 cathode"), 9.04, 13.56);  // "ca.": twice as wide
    CHECK(checkAt(table, "+12 V rail").low == Approx(50));
    CHECK(checkAt(table, "+12 V rail").condition == "power off");
    CHECK(checkAt(table, "J1 centre").low == Approx(1e6));
    CHECK(checkAt(table, "Q3 collector").from == "U1");
    CHECK(checkAt(table, "Antenna socket").low == Approx(1000));
    holds(checkAt(table, "Regulator output"), 4.75, 5.25);
    holds(checkAt(table, "Bias rail"), -5.5, -4.5);
    // A drop is read between the two points.
    const auto drop = std::find_if(table.checks.begin(), table.checks.end(),
                                   [](const PastedCheck& c) { return c.to == "After the series diode"; });
    REQUIRE(drop != table.checks.end());
    CHECK(drop->at == "Input of regulator");
    holds(*drop, 0.6, 0.8);
    const auto seen = std::find_if(table.checks.begin(), table.checks.end(),
                                   [](const PastedCheck& c) { return c.quantity == "seen"; });
    CHECK(seen != table.checks.end());
}

TEST_CASE("columns, a chip above its pins, transistors with three legs") {
    const VoltageTable table = readVoltageTable(
        "Point        Receive   Key down\nQ1 base      0.7 V     0.7 V\nQ1 collector 8.1 V  2.3 V\nTP2       "
        "   -         3.5 V\n\n"
        "IC4 (LM386)\n1   1.3 V\n5   6,1 V\n");
    holds(checkAt(table, "Q1 collector", "receive"), 7.29, 8.91);
    holds(checkAt(table, "Q1 collector", "key down"), 2.07, 2.53);
    CHECK(checkAt(table, "TP2").condition == "key down");
    holds(checkAt(table, "IC4 pin 5"), 5.49, 6.71);
    const VoltageTable legs =
        readVoltageTable("All voltages 20 %\nTransistor   E     B     C\nQ1   0.6   1.3   11.2\n");
    holds(checkAt(legs, "Q1 B"), 1.04, 1.56);
    const VoltageTable german = readVoltageTable("Messpunkt;Spannung (V)\nU1 Pin 3;5,0\nU2 Pin 8;8,0\n");
    holds(checkAt(german, "U1 Pin 3"), 4.5, 5.5);
    CHECK(checkAt(german, "U2 Pin 8").doubts.empty());
    CHECK(readVoltageTable("").checks.empty());
    CHECK(readVoltageTable("nothing here is a voltage").checks.empty());
}

TEST_CASE("checks become the kit's, each with an id of its own") {
    const auto checks =
        checksOf(readVoltageTable("TP1 5 V\nTP1 5 V\nThe LED lights\nTP1 3 V key down\n"), {});
    REQUIRE(checks.size() == 4);
    CHECK(checks[0].id == "tp1");
    CHECK(checks[1].id == "tp1-2");
    CHECK(checks[2].seen == "The LED lights");
    CHECK(checks[3].title == "TP1, key down");
    const auto again = checksOf(readVoltageTable("TP1 5 V\n"), checks);
    CHECK(again.front().id != "tp1");
}

TEST_CASE("numbered instructions: what they fit, hold, keep and want") {
    const auto steps = readInstructions(
        "Stage 1: Power supply\n\n1. Solder R1, R2 and C3 to C6. Keep the cut-off leads, sixteen are needed "
        "later.\n"
        "2. Fit D1 with its band towards R5. Do not fit U1 yet.\n3. Install the sockets for U1 and U2 with "
        "the notch\n"
        "   as printed on the board.\n4. Before fitting the ICs, measure the voltage at pin 8 with a "
        "multimeter: it must be 5 V.\n"
        "5. Insert U1 and U2.\n6. Mount the heat sink with a nut driver.\n\nStage 2: Receiver\n[ ] 7. Put in "
        "R10-R14.\n");
    REQUIRE(steps.size() == 7);
    CHECK(steps[0].fits == std::vector<std::string>{"R1", "R2", "C3", "C4", "C5", "C6"});
    CHECK(steps[0].keeps.size() == 1);
    CHECK(steps[0].stage == "Stage 1: Power supply");
    CHECK(steps[1].fits == std::vector<std::string>{"D1"});  // R5 only says where
    CHECK(steps[1].holds == std::vector<std::string>{"Do not fit U1 yet."});
    CHECK(steps[2].fits.empty());
    CHECK(steps[2].title.find("as printed") != std::string::npos);
    CHECK(steps[3].fits.empty());
    CHECK(steps[3].holds.size() == 1);
    CHECK(steps[3].tools == std::vector<std::string>{"multimeter"});
    CHECK(steps[4].fits == std::vector<std::string>{"U1", "U2"});
    CHECK(steps[5].tools == std::vector<std::string>{"nut driver"});
    CHECK_FALSE(steps[5].doubts.empty());
    CHECK(steps[6].fits.size() == 5);
    CHECK(steps[6].stage == "Stage 2: Receiver");
}

TEST_CASE("instructions in other tongues, where the verb stands last") {
    const auto steps = readInstructions(
        "1) R1 bis R4 einl\xC3\xB6ten.\n2) C1 und C2 best\xC3\xBC"
        "cken, IC1 noch nicht einsetzen!\n3) Souder R5 et R6. Gardez les pattes.\n");
    REQUIRE(steps.size() == 3);
    CHECK(steps[0].fits.size() == 4);
    CHECK(steps[1].fits == std::vector<std::string>{"C1", "C2"});
    CHECK(steps[1].holds.size() == 1);
    CHECK(steps[2].fits == std::vector<std::string>{"R5", "R6"});
    CHECK(steps[2].keeps.size() == 1);
}

TEST_CASE("coils, adjustments and promises a line each") {
    Kit kit;
    Part trimmer, bias;
    trimmer.ref = "C10", trimmer.kind = PartKind::trimmer;
    bias.ref = "R62", bias.kind = PartKind::trimmer;
    trimmer.low = 5e-12, trimmer.high = 30e-12;
    Part fixed;
    fixed.ref = "C11", fixed.kind = PartKind::capacitor;
    fixed.nominal = 33e-12;
    kit.parts = {trimmer, fixed, bias};
    const auto tables = readTables(dataFolder());
    REQUIRE(tables);
    const auto coils = readCoilEntries(
        "L2  T37-6, 30 turns #28, tap at 7, tunes 7.0 to 7.1 MHz with C10 and C11\nT1 FT37-43 10T:3T\nL3 2.2 "
        "uH on nothing\n",
        kit, tables->cores);
    REQUIRE(coils.size() == 3);
    REQUIRE(coils[0].kept);
    CHECK(coils[0].doubts.empty());
    CHECK(coils[0].kept->target == Approx(30 * 30 * 3.0e-9));  // AL of T37-6, handbook table
    CHECK(coils[0].kept->tune->low == Approx(7.0e6));
    CHECK(coils[0].kept->tune->high == Approx(7.1e6));
    CHECK(coils[0].kept->tune->fixed == std::vector<std::string>{"C11"});
    REQUIRE(coils[1].kept);
    CHECK_FALSE(coils[1].doubts.empty());  // no wire
    CHECK_FALSE(coils[2].kept);

    const auto adjustments = readAdjustmentEntries(
        "C10: peak the audio at the phones\nR62 bias: 50 mA\nR99: 5 V\nC10 null the carrier\n", kit);
    REQUIRE(adjustments[0].kept);
    CHECK(adjustments[0].kept->kind == Adjustment::Kind::peak);
    REQUIRE(adjustments[1].kept);
    CHECK(adjustments[1].kept->target == Approx(0.05));
    CHECK(adjustments[1].kept->safe == SafeEnd::low);
    CHECK_FALSE(adjustments[2].kept);
    CHECK(adjustments[3].kept->kind == Adjustment::Kind::null);

    const auto promise = readPromises("5 W at 13.8 V\n7.0 to 7.06 MHz\n", {});
    REQUIRE(promise.kept);
    CHECK(promise.kept->power == Approx(5));
    CHECK(promise.kept->supply == Approx(13.8));
    CHECK(promise.kept->frequency == Approx(7.03e6));
    CHECK_FALSE(readPromises("5 W\n", {}).kept);  // at what frequency?
    CHECK(readPromises("It does not transmit.\n", {}).kept->air == Ratings::Air::no);
}

TEST_CASE("a promise that is a limit is one, and never turned round") {
    const auto current = [](const std::string& line) {
        const auto read = readPromises("5 W at 13.8 V, 7.03 MHz\n" + line + "\n", {});
        REQUIRE(read.kept);
        return std::pair(read.kept->currentLow, read.kept->currentHigh);
    };
    for (const char* most : {"It draws no more than 0.9 A", "not more than 0.9 A", "max. 0.9 A", "< 0.9 A",
                             "nicht mehr als 0,9 A", "never above 900 mA", "at most 0.9 A key down"}) {
        INFO(most);
        CHECK(current(most).first == 0);
        CHECK(current(most).second == Approx(0.9));
    }
    // At least so much is no limit that anything can be held against.
    const auto before = current("");
    for (const char* least : {"not less than 0.9 A", "at least 0.9 A", "mindestens 900 mA"}) {
        INFO(least);
        CHECK(current(least) == before);
        CHECK_FALSE(readPromises(std::string("5 W at 13.8 V, 7.03 MHz\n") + least, {}).doubts.empty());
    }
    const auto power = [](const std::string& line) {
        return *readPromises(line + " at 13.8 V, 7.03 MHz\n", {}).kept;
    };
    CHECK(power("not less than 4 W").powerLow == Approx(4));
    CHECK(power("mindestens 4 W").powerLow == Approx(4));
    CHECK(power("mindestens 4 W").powerHigh > 5);  // a rig that gives more keeps its promise
    CHECK(power("4 W or more").power == Approx(4));
    CHECK(power("no more than 4 W").powerHigh == Approx(4));
    CHECK(power("no more than 4 W").powerLow < 4);
    CHECK(power("between 4 and 5 W").powerLow == Approx(4));
    CHECK(power("between 4 and 5 W").powerHigh == Approx(5));
}

TEST_CASE("a word inside another is not that word: a speaker is no peak, and a diplexer no dip") {
    Kit kit;
    for (const char* ref : {"R1", "R2", "C1"}) {
        Part part;
        part.ref = ref;
        part.kind = PartKind::trimmer;
        kit.parts.push_back(part);
    }
    const auto lines = readAdjustmentEntries(
        "R1: speaker level, 0.5 V\nR2: diplexer current, 20 mA\nC1: peaking of the audio\n", kit);
    REQUIRE(lines.size() == 3);
    REQUIRE(lines[0].kept);
    CHECK(lines[0].kept->kind == Adjustment::Kind::set);
    CHECK(lines[0].kept->target == Approx(0.5));
    REQUIRE(lines[1].kept);
    CHECK(lines[1].kept->kind == Adjustment::Kind::set);
    REQUIRE(lines[2].kept);
    CHECK(lines[2].kept->kind == Adjustment::Kind::peak);
}

TEST_CASE("limits, units and modes in columns of their own: words around the point") {
    const VoltageTable table = readVoltageTable(
        "Test point,Min,Typ,Max,Unit,Mode\nTP1,4.75,5.0,5.25,V,RX\nTP2,,12,,V,TX\nI_supply,,45,60,mA,RX\n");
    holds(checkAt(table, "TP1"), 4.75, 5.25);
    CHECK(checkAt(table, "TP1").nominal == 5.0);
    CHECK(checkAt(table, "TP1").condition == "receive");
    holds(checkAt(table, "TP2", "key down"), 10.8, 13.2);
    CHECK(checkAt(table, "I_supply").high == Approx(0.06));
    CHECK(checkAt(table, "I_supply").quantity == "current");
    const VoltageTable tolerance = readVoltageTable(
        "Point;Expected;Tolerance\nU1 pin 8;5.0 V;5%\nU2 pin 3;3.3 V;\xC2\xB1"
        "0.1 V\n");
    holds(checkAt(tolerance, "U1 pin 8"), 4.75, 5.25);
    holds(checkAt(tolerance, "U2 pin 3"), 3.2, 3.4);
    const VoltageTable words = readVoltageTable(
        "IC2\nPin 1: 0V\nTP3 = 2.5V\nQ1 E: 0 V, B: 0.65 V, C: 8.2 V\nMeasure between TP1 and TP2: 3.3V\n+5V "
        "rail: 4.9-5.1V\n"
        "5V at pin 3 of U1\nU3 pin 4 should read about half the supply (6 V)\nCurrent draw with no ICs: "
        "5-10mA\n"
        "Junction of R1 and R2: 6V\nLED1 on\nD5 anode to cathode 0.65 V (diode range)\n");
    holds(checkAt(words, "IC2 Pin 1"), -0.1, 0.1);
    holds(checkAt(words, "TP3"), 2.25, 2.75);
    holds(checkAt(words, "Q1 C"), 7.38, 9.02);
    CHECK(checkAt(words, "TP1").to == "TP2");
    holds(checkAt(words, "+5V rail"), 4.9, 5.1);
    holds(checkAt(words, "pin 3 of U1"), 4.5, 5.5);
    CHECK(checkAt(words, "U3 pin 4").nominal == 6.0);
    holds(checkAt(words, "Current draw"), 0.005, 0.01);
    CHECK(checkAt(words, "Junction of R1 and R2").to == "ground");
    CHECK(checkAt(words, "LED1 on").quantity == "seen");
    CHECK(checkAt(words, "D5 anode").quantity == "diode");
}

TEST_CASE("a limit behind its number is a limit, and what must not be is no value") {
    const VoltageTable table = readVoltageTable(
        "Final drain current, key down: 1.2 A max\nGate rail -0.5 V or less\nRail 4.5 V minimum\nU9 pin 4 "
        "not 5 V\n"
        "TP1 5 V 6 V max\n");
    REQUIRE(table.checks.size() == 4);
    CHECK(table.checks[0].high == Approx(1.2));  // a quarter more would have passed
    CHECK_FALSE(table.checks[0].low);
    CHECK(table.checks[1].high == Approx(-0.5));
    CHECK(table.checks[2].low == Approx(4.5));
    CHECK_FALSE(table.checks[2].high);
    CHECK_FALSE(table.checks[3].doubts.empty());
    CHECK(table.refused.size() == 1);
}

TEST_CASE("what is seen or heard, the diode range and what feeds a point become the kit's checks") {
    const auto checks = checksOf(
        readVoltageTable(
            "LED1 lights\nKey down\nA tone is heard in the phones\nKey up\nD5 anode to cathode 0.65 V "
            "(diode range)\nU3 pin 8  8.0 V from U1\n"),
        {});
    REQUIRE(checks.size() == 4);
    CHECK(checks[0].yesNo());
    CHECK(checks[0].unit == Unit::none);
    CHECK(checks[1].condition == "key down");
    CHECK(checks[1].seen.find("tone") != std::string::npos);
    CHECK(checks[2].diode);
    CHECK(checks[2].unit == Unit::volt);
    CHECK(checks[3].from == "U1");
    const std::string text =
        R"({"format":"ombrek-kit","version":1,"id":"k","name":"K","parts":[{"ref":"U1","kind":"ic","value":"78L08"}]})";
    const auto kit = readKit(withChecks(text, checks), {});
    REQUIRE(kit);
    CHECK(kit->checks[0].seen == checks[0].seen);
    CHECK(kit->checks[2].diode);
    CHECK(kit->checks[3].from == "U1");
}

TEST_CASE("two-hole cores, a ring of one's own, a null, current and harmonics from the paper") {
    const auto tables = readTables(OMBREK_DATA_FOLDER);
    REQUIRE(tables);
    const std::string text =
        R"({"format":"ombrek-kit","version":1,"id":"k","name":"K","parts":[{"ref":"R40","kind":"resistor","value":"1k","tolerance":20},
        {"ref":"C10","kind":"trimmer","value":"5-30 pF","low":"5p","high":"30p"}]})";
    const auto kit = readKit(text, tables->cores);
    REQUIRE(kit);
    const auto coils = readCoilEntries(
        "T3  BN-43-202, primary 2 turns, secondary 5 turns, 0.4 mm\nL5  AL4.9n 12.7x7.7x4.8, 20 turns 0.5 "
        "mm\n"
        "L6  AL4,9n 12,7x7,7x4,8, 20 turns 0.5 mm\nL7  12 turns #28\n",
        *kit, tables->cores);
    REQUIRE(coils.size() == 4);
    REQUIRE(coils[0].kept);
    CHECK(coils[0].kept->core.shape == MagneticCore::Shape::twoHole);
    CHECK(coils[0].kept->target == Approx(4 * 2890e-9));
    REQUIRE(coils[1].kept);
    CHECK(coils[1].kept->target == Approx(400 * 4.9e-9));
    REQUIRE(coils[2].kept);
    CHECK(coils[2].kept->core.al == Approx(4.9e-9));
    CHECK_FALSE(coils[3].kept);
    std::string whole = text;
    for (int i = 0; i < 3; ++i) whole = withCoil(whole, *coils[std::size_t(i)].kept);
    const auto wound = readKit(whole, tables->cores);
    REQUIRE(wound);
    CHECK(wound->coil("L5")->core.outerDiameter == Approx(12.7e-3));
    CHECK(wound->coil("T3")->windings.size() == 2);

    const auto adjustments =
        readAdjustmentEntries("R40: null the carrier in a second receiver\nC10: peak and null\n", *kit);
    REQUIRE(adjustments[0].kept);
    CHECK(adjustments[0].kept->kind == Adjustment::Kind::null);
    CHECK(adjustments[0].kept->reads == "the carrier in a second receiver");
    CHECK_FALSE(adjustments[1].kept);
    CHECK(readKit(withAdjustment(text, *adjustments[0].kept), tables->cores)->adjustments[0].kind ==
          Adjustment::Kind::null);
    const auto seen = readAdjustmentEntries(
        "R40: contrast of the display\nR40 bias: fully down, then up until the current just rises\n", *kit);
    REQUIRE(seen[0].kept);
    CHECK(seen[0].kept->kind == Adjustment::Kind::contrast);
    REQUIRE(seen[1].kept);
    CHECK(seen[1].kept->kind == Adjustment::Kind::bias);
    CHECK(seen[1].kept->safe == SafeEnd::low);
    for (const auto& entry : seen) {
        const auto written = readKit(withAdjustment(text, *entry.kept), tables->cores);
        REQUIRE(written);
        CHECK(written->adjustments[0].kind == entry.kept->kind);
    }

    const auto promise =
        readPromises("5 W at 13.8 V\n7.03 MHz\nat most 0.9 A\nharmonics 45 dB down\n", Ratings());
    REQUIRE(promise.kept);
    CHECK(promise.kept->currentHigh == Approx(0.9));
    CHECK(promise.kept->currentLow == 0);
    CHECK(promise.kept->harmonicsBelow == Approx(45));
    const auto kept = readKit(withRatings(text, *promise.kept), tables->cores);
    REQUIRE(kept);
    CHECK(kept->ratings.currentHigh == Approx(0.9));
    CHECK(kept->ratings.harmonicsBelow == Approx(45));
}

TEST_CASE("a row that looks like the heading of a chip and heads nothing is said") {
    const VoltageTable table =
        readVoltageTable("TP1 5 V\nTP2 moss\nIC3 (LM386)\n1  0 V\n6  9 V\nIC4 nothing below\n");
    CHECK(table.checks.size() == 3);
    REQUIRE(table.refused.size() == 2);
    CHECK(table.refused[0].line == 2);
    CHECK(table.refused[1].line == 6);
}
