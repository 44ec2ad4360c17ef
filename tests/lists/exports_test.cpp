#include <catch2/catch.hpp>
#include <cmath>

#include "lists/parts_list.h"

using namespace ombrek;

// Lists as design programs and shops set them; parts are made up.

namespace {

struct Want {
    std::string ref;
    PartKind kind;
    double nominal = 0;  ///< 0: a described part
    std::string words = {};
    bool fitted = true;
};

void reads(const std::string& name, const std::string& text, const std::vector<Want>& wanted) {
    CAPTURE(name);
    const auto source = readPartsList(text);
    REQUIRE(source);
    for (const Want& want : wanted) {
        CAPTURE(want.ref);
        int found = 0;
        for (const ListLine& line : source->list.lines) {
            if (std::find(line.refs.begin(), line.refs.end(), want.ref) == line.refs.end()) continue;
            ++found;
            CHECK(word(line.kind) == word(want.kind));
            CHECK(line.fitted == want.fitted);
            if (want.nominal > 0) CHECK(line.nominal == Approx(want.nominal).epsilon(1e-6));
            CHECK(line.value.find(want.words) != std::string::npos);
            CHECK(line.sure());
        }
        CHECK(found == 1);
    }
}

using K = PartKind;

}  // namespace

TEST_CASE("tables as design programs export them") {
    reads("grouped, library names, DNP",
          "Qty,Reference(s),Value,LibPart,Footprint,Datasheet,DNP\n"
          "3,\"C1, C2, "
          "C3\",100n,Device:C,Capacitor_SMD:C_0805_2012Metric,~,\n1,C4,22p,Device:C,Capacitor_SMD:C_0805,~,"
          "DNP\n"
          "2,\"R1, "
          "R2\",10k,Device:R,Resistor_SMD:R_0805_2012Metric,~,\n1,U1,NE555P,Timer:NE555P,Package_DIP:DIP-8_"
          "W7.62mm,,\n",
          {{"C3", K::capacitor, 100e-9},
           {"C4", K::capacitor, 22e-12, "", false},
           {"R2", K::resistor, 10e3},
           {"U1", K::ic, 0, "NE555P"}});
    reads("set in columns with device and package",
          "Partlist exported from board.sch\n\n"
          "Part     Value          Device             Package      Library    Sheet\n\n"
          "C1       100n           C-EU025-024X044    C025-024X044 rcl        1\n"
          "C2       10u            CPOL-EUE2.5-6      E2,5-6       rcl        1\n"
          "D1       1N4148         1N4148DO35-10      DO35-10      diode      1\n"
          "JP1                     PINHD-1X3          1X03         pinhead    1\n"
          "Q1       BC547B         BC547B             TO92-EBC     transistor 1\n"
          "Q2       16MHz          CRYSTALHC49U-V     HC49U-V      crystal    1\n"
          "R1       4k7            R-EU_0207/10       0207/10      rcl        1\n",
          {{"C2", K::capacitor, 10e-6},
           {"D1", K::diode, 0, "1N4148"},
           {"JP1", K::other, 0, "PINHD"},
           {"Q1", K::transistor, 0, "BC547B"},
           {"Q2", K::crystal, 0, "16MHz"},
           {"R1", K::resistor, 4700}});
    reads("comment is the value, tabs and quotes",
          "\"Comment\"\t\"Description\"\t\"Designator\"\t\"Footprint\"\t\"Quantity\"\n"
          "\"100nF\"\t\"Capacitor\"\t\"C1, C2, C3\"\t\"CAPC2012X12N\"\t\"3\"\n\"BC848\"\t\"NPN "
          "Transistor\"\t\"T1\"\t\"SOT23-3\"\t\"1\"\n"
          "\"Header 3\"\t\"Header, "
          "3-Pin\"\t\"P1\"\t\"HDR1X3\"\t\"1\"\n\"DNF\"\t\"Capacitor\"\t\"C9\"\t\"CAPC2012X12N\"\t\"1\"\n",
          {{"C2", K::capacitor, 100e-9},
           {"T1", K::transistor, 0, "BC848"},
           {"P1", K::other, 0, "Header"},
           {"C9", K::capacitor, 0, "", false}});
    reads("designators that go on in the next row, the value beside the last",
          "Item\tQuantity\tReference\tPart\n______________\n\n1\t3\tC1,C2,C3\t0.1uF\n2\t4\tR1,R2,R3,"
          "\n\t\tR4\t4.7K\n3\t1\tU1\t74HC04\n",
          {{"C3", K::capacitor, 100e-9},
           {"R1", K::resistor, 4700},
           {"R4", K::resistor, 4700},
           {"U1", K::ic, 0, "74HC04"}});
    reads("designation is the value",
          "Id;Designator;Footprint;Quantity;Designation;Supplier and "
          "ref\n1;C1,C2;C_Disc;2;100n;;\n2;J1;PinHeader;1;Conn_01x02;;\n",
          {{"C2", K::capacitor, 100e-9}, {"J1", K::other, 0, "Conn"}});
    reads("unknown values",
          "refdes\tvalue\tfootprint\tdevice\tquantity\nC1\t100nF\t1206\tCAPACITOR\t1\nU1\tunknown\tSO8\tLM358"
          "-1\t1\n",
          {{"C1", K::capacitor, 100e-9}, {"U1", K::ic, 0, "LM358-1"}});
}

TEST_CASE("tables as hobbyists set them, in German and French") {
    reads("German",
          "Anzahl;Name;Wert;Bauform;Bemerkung\n2;R1, R2;4,7k;0207;gelb-violett-rot-gold\n1;R3;0,47;0411;1 "
          "W\n1;C1;100n;RM5;Keramik\n"
          "1;C2;2200\xC2\xB5/25V;RM7,5;Elko, liegend\n1;C3;4-20p;Trimmer;Folientrimmer, "
          "gelb\n1;T1;BF245A;TO-92;\n2;;M3x8;;Schrauben\n",
          {{"R2", K::resistor, 4700},
           {"R3", K::resistor, 0.47},
           {"C1", K::capacitor, 100e-9},
           {"C2", K::capacitor, 2200e-6},
           {"C3", K::trimmer, 0, "4-20p"},
           {"T1", K::transistor, 0, "BF245A"}});
    reads("French",
          "Line;Nb;Rep\xC3\xA8re;Valeur;Bo\xC3\xAEtier\n1;3;R1 \xC3\xA0 R3;1,5 k\xCE\xA9;0207\n2;1;C3;470 "
          "\xC2\xB5"
          "F / 25 V;radial\n"
          "3;1;L1;tore T50-6, 18 spires, fil 0,4 mm;\n4;1;CI1;NE612;DIP8\n5;4;;entretoise M3 x 10;\n",
          {{"R2", K::resistor, 1500},
           {"C3", K::capacitor, 470e-6},
           {"L1", K::coil, 0, "T50-6"},
           {"CI1", K::ic, 0, "NE612"}});
    const auto coil = readPartsList(
        "Anzahl;Name;Wert;Bauform;Bemerkung\n1;L2;;T50-6;18 Wdg. 0,5 CuL, Anzapfung bei 4 "
        "Wdg.\n1;R1;10k;0207;\n");
    REQUIRE(coil);
    REQUIRE(coil->list.coils.size() == 1);
    CHECK(coil->list.coils[0].core == "T50-6");
    CHECK(coil->list.coils[0].wire == "0.5mm");
    CHECK(coil->list.coils[0].windings[0].taps == std::vector<int>{4});
}

TEST_CASE("old manuals: capitals, kinds in front, numbers without units") {
    const auto source = readPartsList(
        "C1   C-DISC      .1 MFD\nC2   ELECTRO     10/25\nC4   SILVER MICA 330\nR1   CARBON      1.5K  1/4W  "
        "BRN-GRN-RED\n"
        "R2   CARBON      3.9 MEG\nL1   CHOKE       1 MH\nQ1   NPN         2N4401\nT1   AUDIO XFMR  1K:8 "
        "OHM\nr3   4k7\n");
    REQUIRE(source);
    const auto value = [&](const std::string& ref) {
        for (const ListLine& line : source->list.lines) {
            if (line.refs.front() == ref) return line.nominal;
        }
        return -1.0;
    };
    CHECK(value("C1") == Approx(100e-9));
    CHECK(value("C2") == Approx(10e-6));
    CHECK(value("C4") == Approx(330e-12));
    CHECK(value("R1") == Approx(1500));
    CHECK(value("R2") == Approx(3.9e6));
    CHECK(value("L1") == Approx(1e-3));
    CHECK(value("r3") == Approx(4700));
    // What stands without a unit is asked about.
    CHECK(source->list.doubtful() == 2);
}

TEST_CASE("a designator named in passing is none") {
    const auto source =
        readPartsList("R1 10k\nR2 22k\n1 x 8-pin socket for U1\nSee schematic for C99\nU1 LM386\n");
    REQUIRE(source);
    CHECK(source->list.parts() == 3);
    CHECK(source->list.hardware.size() == 1);
    CHECK(source->list.refused.size() == 1);
}
