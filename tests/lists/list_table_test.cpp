#include "lists/list_table.h"
#include "lists/list_text.h"

#include <catch2/catch.hpp>

#include "bench_fixture.h"
#include "formats/stock_csv.h"
#include "lists/packing_list.h"
#include "lists/parts_list.h"
#include "station/board/work.h"

using namespace ombrek;

namespace {

PartsList readCsvList(const std::string& text) {
    const auto table = readTable(text).value();
    return readListTable(table, guessShape(table));
}

bool doubts(const ListLine& line, const std::string& word) {
    for (const auto& doubt : line.doubts) {
        if (doubt.find(word) != std::string::npos) return true;
    }
    return false;
}

}  // namespace

TEST_CASE("one parts list in every dialect reads the same") {
    const std::vector<std::string> dialects{
        "Ref,Qty,Value,Description,Tolerance\n\"R1, R2\",2,10k,metal film,1%\nC1,1,\"0.1u\",ceramic,10%\n",
        "Designator;Anzahl;Wert;Beschreibung;Toleranz\r\nR1 R2;2;10k;metal film;1 %\r\nC1;1;0,1 \xC2\xB5"
        "F;ceramic;10 %\r\n",
        "Value\tReference\tDescription\tTol.\tQuantity\n10k\tR1 R2\tmetal "
        "film\t1\t2\n100n\tC1\tceramic\t10\t1\n",
        "\xEF\xBB\xBF'Part','Value','Count','Description','Tolerance'\n'R1-R2','10 kOhm','2','metal "
        "film','1%'\n'C1','100 "
        "nF','1','ceramic','10%'\n",
        "Ref|Menge|Wert|Desc|Tol\nR1, R2|2|10k|metal film|1%\nC1|1|0,1 \xB5"
        "F|ceramic|10%\n"};  // Latin-1
    for (const auto& text : dialects) {
        CAPTURE(text);
        const PartsList list = readCsvList(text);
        REQUIRE(list.lines.size() == 2);
        CHECK(list.lines[0].refs == std::vector<std::string>{"R1", "R2"});
        CHECK(list.lines[0].nominal == Approx(10e3));
        CHECK(list.lines[0].tolerance == 1);
        CHECK(list.lines[0].quantity == 2);
        CHECK(list.lines[1].nominal == Approx(100e-9));
        CHECK(list.lines[1].tolerance == 10);
        CHECK(list.doubtful() == 0);
    }
}

TEST_CASE("a table without a header is known by what stands in it") {
    const PartsList list =
        readCsvList("2,\"R1,R2\",10k,metal film\n1,C1,100n,ceramic disc\n1,Q1,NPN,small signal\n");
    REQUIRE(list.lines.size() == 3);
    CHECK(list.lines[0].refs.size() == 2);
    CHECK(list.lines[0].quantity == 2);
    CHECK(list.lines[2].kind == PartKind::transistor);
}

TEST_CASE("lines above the header, empty rows and refused rows have their lines") {
    const PartsList list = readCsvList("Receiver, issue 3\n\nRef,Value,Qty\nR1,10k,1\n,glue,1\nC1,100n,2\n");
    REQUIRE(list.lines.size() == 2);
    CHECK(list.lines[0].line == 4);
    REQUIRE(list.hardware.size() == 1);
    CHECK(list.hardware[0].line == 5);
    CHECK(list.hardware[0].what == "glue");
    CHECK(doubts(list.lines[1], "says 2"));
}

TEST_CASE("order codes, packages, marks and volts are kept") {
    const PartsList list = readCsvList(
        "Reference,Value,Package,Rated voltage,Marking,Supplier "
        "code,Qty\nC1,100n,1206,50,104,Q-771,1\nC2,22p,0805,,22J,Q-772,1\n");
    REQUIRE(list.lines.size() == 2);
    CHECK(list.lines[0].package == "1206");
    CHECK(list.lines[0].volts == 50);
    CHECK(list.lines[0].mark == "104");
    CHECK(list.lines[0].code == "Q-771");
    CHECK(list.lines[1].tolerance == 5);  // the J of its mark
}

TEST_CASE("a shape goes to text and back, nonsense does not") {
    const auto table = readTable("Ref,Value\nR1,10k\n").value();
    const ListShape shape = guessShape(table);
    CHECK(shape.key == "ref|value");
    const auto back = readShape(shapeText(shape));
    REQUIRE(back);
    CHECK(back->columns == shape.columns);
    CHECK(back->headerRows == 1);
    for (const char* bad : {"", "x", "1,99", "1,,2", "1,-1", "99999"}) CHECK_FALSE(readShape(bad));
}

TEST_CASE("tables are told from pasted text, and a corrected shape is remembered") {
    CHECK(looksLikeTable("Ref,Value,Qty\nR1,10k,1\nC1,100n,1\n"));
    CHECK_FALSE(looksLikeTable("C1, C2, C5-C8   100nF 50V   6\nR1, R2  10k  2\nR3   22k  1\n"));
    const std::string odd = "Ref,Other,Value\nR1,1k,10k\nR2,2k,20k\n";
    const auto guessed = readPartsList(odd);
    REQUIRE(guessed);
    CHECK(guessed->list.lines[0].nominal == Approx(10e3));
    const auto taught = readPartsList(odd, {}, [](const std::string& key) -> std::optional<ListShape> {
        CHECK(key == "ref|other|value");
        return ListShape{{Column::refs, Column::value, Column::none}, {}, 1, key};
    });
    REQUIRE(taught);
    CHECK(taught->list.lines[0].nominal == Approx(1e3));
}

TEST_CASE("a list becomes a kit one can build") {
    const auto source = readPartsList(
        "C1, C2  100nF 50V (marked 104)  2\nR1-R3  4.7k 5%  3\nQ1  NPN small signal  1\nT1  T50-6 toroid, 24 "
        "turns  1\n"
        "VC1  trimmer 5-30 pF  1\nU1  8 V regulator  1\nJ1  antenna socket\nR9  odd value\n");
    REQUIRE(source);
    const auto kit =
        readKit(kitFromList(source->list, "Quay \"receiver\"", shippedTables().cores), shippedTables().cores);
    if (!kit) FAIL(kit.error().text());
    CHECK(kit->name == "Quay \"receiver\"");
    REQUIRE(kit->parts.size() == 11);
    CHECK(kit->part("U1")->value == "8 V regulator");
    CHECK(kit->part("T1")->value.starts_with("T50-6"));
    CHECK(kit->part("R2")->nominal == Approx(4700));
    CHECK(kit->part("C1")->volts == 50);
    CHECK(kit->part("VC1")->high == Approx(30e-12));
    // Without a value it stays what its letter says, to be looked at and not measured.
    CHECK(kit->part("R9")->kind == PartKind::resistor);
    CHECK_FALSE(kit->part("R9")->measurable());
    // Every part is fitted in exactly one step, the flat ones first, after the bench is laid out.
    std::size_t fitted = 0;
    for (const Step& step : kit->steps) fitted += step.fits.size();
    CHECK(fitted == kit->parts.size());
    CHECK(kit->steps.front().id == "lay-out");
    REQUIRE(kit->steps[2].fits.size() == 3);
    CHECK(kit->steps[2].fits.front() == "R1");
    CHECK(stepOrder(*kit, Order::manual).has_value());
    CHECK_FALSE(readPartsList("nothing here\n").has_value());
}

TEST_CASE("a packing list is set against the order") {
    const auto order = readListText(
        "R1, R2  10k 1%  2\nC1-C4  100nF ceramic  4\nC5  22pF  1\nQ1  NPN small signal  1\nL1  10uH  1");
    const auto packing = readPackingList(
        "Packing note 7\nItem;Ordered;Shipped;Back-ordered;Substituted by\n"
        "Resistor 10 kOhm 1 %;2;2;0;\nCapacitor 100 nF;4;1;3;\nCapacitor 22 pF;1;1;0;capacitor 27 pF\n"
        "NPN small signal;1;0;0;\nSolder wire;1;1;0;\n");
    REQUIRE(packing);
    const auto lines = reconcile(order.lines, *packing);
    REQUIRE(lines.size() == 6);
    CHECK(lines[0].state == Delivery::complete);
    CHECK(lines[1].state == Delivery::backOrdered);
    CHECK(lines[1].sentence.find("3 to follow") != std::string::npos);
    CHECK(lines[2].state == Delivery::substituted);
    CHECK(lines[2].sentence.find("27 pF") != std::string::npos);
    CHECK(lines[3].state == Delivery::shortShipped);
    CHECK(lines[4].state == Delivery::notOnList);
    CHECK(lines[5].state == Delivery::notOrdered);
    CHECK_FALSE(readPackingList("a,b\n1,2\n"));
    const auto bad = readPackingList("Item,Shipped\nR1,many\n");
    REQUIRE_FALSE(bad);
    CHECK(bad.error().place == "line 2");
}

TEST_CASE("a packing list meets the order by its code first") {
    auto order = readCsvList("Ref,Value,Supplier code,Qty\nR1,10k,Q-1,1\nR2,22k,Q-2,1\n").lines;
    const auto packing = readPackingList("Order code,Shipped\nQ-2,1\nQ-1,1\n").value();
    for (const auto& line : reconcile(order, packing)) CHECK(line.state == Delivery::complete);
}

TEST_CASE("the drawers come in and go out whole") {
    const auto file = readStock(
        "drawer,kind,value,tolerance,volts,count,what\nA1,resistor,4k7,1,,20,metal film\n"
        "B2,,\"0,1 uF\",10,63V,5,\nC3,transistor,\"NPN, small signal\",,,7,\n"
        "D4,capacitor,lots,,,1,\nE5,gizmo,1k,,,1,\nF6,resistor,1k,,,-2,\n");
    REQUIRE(file);
    REQUIRE(file->lines.size() == 3);
    CHECK(file->lines[1].kind == PartKind::capacitor);
    CHECK(file->lines[1].value == Approx(100e-9));
    CHECK(file->lines[1].volts == 63);
    CHECK(file->lines[2].what == "NPN, small signal");
    REQUIRE(file->refused.size() == 3);
    CHECK(file->refused[0].line == 5);
    CHECK(file->refused[2].reason.find("count") != std::string::npos);
    CHECK(readStock(writeStock(file->lines))->lines == file->lines);
    CHECK_FALSE(readStock("a,b\n1,2\n"));
    CHECK_FALSE(readStock(""));
}

TEST_CASE("a table of coils: core, turns and wire stand in columns of their own") {
    for (const char* table : {"Ref,Turns,Core\nL1,12,T37-2\nL2,14,T37-6\n",
                              "Coil;Core;Turns;Wire AWG\nL1;T37-2;12;28\nL2;T37-6;14;28\n",
                              "Spule\tKern\tWindungen\tDraht\nL1\tT37-2\t12\t0,3 mm\nL2\tT37-6\t14\t0,3 mm\n",
                              "Coil   Turns   Core\nL1     12      T37-2\nL2     14      T37-6\n"}) {
        CAPTURE(table);
        const auto list = readPartsList(table);
        REQUIRE(list);
        REQUIRE(list->list.coils.size() == 2);
        CHECK(list->list.lines[0].refs == std::vector<std::string>{"L1"});
        CHECK(list->list.coils[0].core == "T37-2");
        CHECK(list->list.coils[0].windings.at(0).turns == 12);
        CHECK(list->list.coils[1].core == "T37-6");
        CHECK(list->list.coils[1].windings.at(0).turns == 14);
    }
}

TEST_CASE("a quote without its partner swallows no rows and is told; a header is no heading") {
    const std::string table =
        "Reference,Quantity,Value,Footprint,DNP\n\"R1,R2\",2,4.7K,R_0805,\nR3,1,330,R_0805,\n\"R4,1,220,R_"
        "0805,\n"
        "L1,1,10uH,,\n\"C1,C2\",2,\"100nF,\n X7R\",C_0805,DNP\nT1,1,\"6\" coax\",,\n";
    const auto read = readPartsList(table);
    REQUIRE(read);
    REQUIRE(read->list.lines.size() == 6);
    CHECK(read->list.lines[1].nominal == Approx(330));
    CHECK(read->list.lines[2].refs == std::vector<std::string>{"R4"});
    CHECK(read->list.lines[2].nominal == Approx(220));
    CHECK_FALSE(read->list.lines[2].sure());
    CHECK(read->list.lines[3].nominal == Approx(10e-6));
    CHECK(read->list.lines[3].sure());
    CHECK_FALSE(read->list.lines[4].fitted);
    CHECK(read->list.lines[4].nominal == Approx(100e-9));
    for (std::size_t i : {0, 1, 2, 3, 5}) CHECK(read->list.lines[i].fitted);
    REQUIRE(read->list.notes.size() == 1);
    CHECK(read->list.notes[0].find("Line 4") == 0);
    // The same as text, where the columns are not to be made out.
    for (const ListLine& line :
         readListText("Reference,Quantity,Value,Footprint,DNP\nR1 4k7\nR2 330\n").lines)
        CHECK(line.fitted);
}

TEST_CASE("a list of which nothing is fitted is asked about, and makes no kit") {
    const auto read = readPartsList("Not fitted:\nR1 10k\nR2 22k\n");
    REQUIRE(read);
    CHECK_FALSE(anyFitted(read->list));
    CHECK_FALSE(read->list.lines[0].sure());
}
