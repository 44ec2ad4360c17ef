#include <catch2/catch.hpp>

#include "bench_fixture.h"
#include "formats/core_clues.h"
#include "formats/stock_text.h"
#include "judged/judged.h"
#include "lists/packing_list.h"
#include "report/label_sheet.h"

using namespace ombrek;

TEST_CASE("a line of stock is typed in the trade's words and written back to be changed") {
    const StockLine line = readStockText("B3 22n 5% 100V film x4").value();
    CHECK(line.drawer == "B3");
    CHECK(line.kind == PartKind::capacitor);
    CHECK(line.value == Approx(22e-9));
    CHECK(line.tolerance == 5);
    CHECK(line.volts == 100);
    CHECK(line.what == "film");
    CHECK(line.count == 4);
    for (const char* text : {"B3 22n 5% 100V film x4", "R1 4k7 1% 0.25W metal film x20", "L2 10uH choke x3",
                             "S1 transistor NPN small signal x9", "H1 spacer 10 mm x16", "D1 diode x2 red"}) {
        INFO(text);
        const StockLine once = readStockText(text).value();
        CHECK(readStockText(stockText(once)).value() == once);
    }
    CHECK(readStockText("S1 transistor NPN small signal x9")->kind == PartKind::transistor);
    CHECK(readStockText("A1 4k7")->count == 1);
}

TEST_CASE("a line of stock without a part is refused with a sentence") {
    for (const char* text : {"", "B3", "B3 x4", "B3 5%", "B3 22n x99999999"}) {
        INFO(text);
        const auto line = readStockText(text);
        if (line) CHECK(line->count <= 1000000);
        if (std::string(text) == "B3 22n x99999999") continue;
        REQUIRE_FALSE(line);
        CHECK(line.error().sentence.size() > 20);
    }
}

TEST_CASE("stock is found by value, range, rating and words, all at once") {
    const auto& drawers = practiceKit().drawers;
    const StockSearch search(drawers);
    const auto count = [&](const char* text) { return search.find(text).size(); };
    CHECK(count("") == drawers.size());
    CHECK(count("10n..47n") == 2);
    CHECK(count("10n..47n 100V") == 0);
    CHECK(count("1M") == 1);
    CHECK(count("npn") == 1);
    CHECK(count("C3") == 2);
    CHECK(count("capacitor 5%") == 7);  // C0G and film, not the X7R and electrolytics
    CHECK(count("no such thing") == 0);
}

TEST_CASE("a kit is ordered line by line, and every part is on exactly one") {
    const Kit& kit = practiceKit().kit;
    std::size_t refs = 0;
    for (const ListLine& line : orderOf(kit)) {
        refs += line.refs.size();
        for (const auto& ref : line.refs) CHECK(kit.part(ref)->value == line.value);
    }
    CHECK(refs == kit.parts.size());
}

TEST_CASE("each way of working prints every part once, in its own order") {
    const Kit& kit = practiceKit().kit;
    Build build;
    const auto refsOf = [](const LabelSheet& sheet) {
        std::size_t out = 0;
        for (const PartLabel& label : sheet.labels) out += label.refs.size();
        return out;
    };
    const LabelSheet trays = labelSheet({kit, build});
    CHECK(trays.title == "Lantern 15, tray map");
    CHECK(refsOf(trays) == kit.parts.size());
    CHECK(trays.labels.front().group == "Resistors");
    build.way = BagWay::byPlan;
    const LabelSheet labels = labelSheet({kit, build});
    CHECK(refsOf(labels) == kit.parts.size());
    CHECK(labels.labels.front().refs ==
          std::vector<std::string>{"R1", "R2"});  // the first step that fits parts
    CHECK(labels.labels.front().mark == "brown black orange gold");
    build.way = BagWay::beforeFitting;
    build.steps["r-supply"] = {};
    CHECK(refsOf(labelSheet({kit, build})) == kit.parts.size() - 2);  // what is fitted is not picked again
}

TEST_CASE("what is typed of an unknown ring, and the cores that lie in the drawers") {
    const CoreClues clues = readCoreClues("12.7 7,7 4.8 yellow 0.40u").value();
    CHECK(clues.outerDiameter == Approx(12.7e-3));
    CHECK(clues.innerDiameter == Approx(7.7e-3));
    CHECK(clues.height == Approx(4.8e-3));
    CHECK(clues.paint == "yellow");
    CHECK(clues.inductance == Approx(0.4e-6));
    for (const char* bad : {"", "1 2 3 4", "900", "4k7", "0.0"}) {
        INFO(bad);
        CHECK_FALSE(readCoreClues(bad));
    }
    const auto here = coresInStock(practiceKit().drawers, shippedTables().cores);
    REQUIRE(here.size() == 4);  // T50-2 in a drawer is not T50-26
    for (const MagneticCore& core : here) CHECK(core.designation.find('-') != std::string::npos);
}

TEST_CASE("only the promise for this very line of this very kit counts as its own") {
    StockLine line;
    line.id = 7;
    line.count = 10;
    const std::vector<Promise> promises{{7, 1, "R1", 2}, {7, 1, "R2", 3}, {7, 2, "R1", 4}, {8, 1, "R1", 5}};
    CHECK(freeFor(line, promises, 1, "R1") == 10 - 3 - 4);
    CHECK(freeFor(line, promises, 2, "R1") == 10 - 2 - 3);
    CHECK(freeFor(line, promises, 3, "R1") == 1);
    line.count = 5;
    CHECK(freeFor(line, promises, 3, "R1") == 0);  // promised more than there is: none, not fewer
}
