#include <catch2/catch.hpp>
#include <cmath>

#include "lists/parts_list.h"

using namespace ombrek;

// Lines that were read wrongly in silence once: right now, or doubted, or refused with a sentence. All are
// made up.

namespace {

ListLine only(const std::string& text) {
    const auto read = readPartsList(text);
    INFO(text);
    REQUIRE(read);
    REQUIRE_FALSE(read->list.lines.empty());
    return read->list.lines.front();
}

}  // namespace

TEST_CASE("units written out, in other letters, and numbers that begin with their mark") {
    struct Row {
        const char* text;
        double value;
    };
    for (const Row& row :
         {Row{"R1 1.0 kilohm", 1e3}, Row{"R1 47 kiloohm", 47e3}, Row{"R1 10 kilohms", 10e3},
          Row{"R1 1 Megaohm", 1e6}, Row{"R1 2.2 megohms", 2.2e6}, Row{"C1 47 nanofarad", 47e-9},
          Row{"C1 10 microfarads", 10e-6}, Row{"C1 22 picofarad", 22e-12}, Row{"L1 10 microhenry", 10e-6},
          Row{"R1 10 \u043a\u041e\u043c", 10e3}, Row{"C1 10 \u043c\u043a\u0424", 10e-6},
          Row{"C1 ,01 \u00b5F", 1e-8}, Row{"R1 ,33 Ohm", 0.33}, Row{"R1 330 ohms", 330},
          Row{"R1 brown black red gold", 1e3}}) {
        INFO(row.text);
        const ListLine line = only(row.text);
        CHECK(line.nominal == Approx(row.value));
        CHECK(line.sure());
    }
}

TEST_CASE("a word behind a number that nobody knows, and another part's value, are doubts") {
    CHECK_FALSE(only("R1,47 zorkohm\nR2,10k\n").sure());
    CHECK(readPartsList("R1 10k  c1 100n\nr2 22k  c2 10n")->list.parts() == 4);
    CHECK_FALSE(only("X1 7030 kHz 10116 kHz").sure());
    CHECK_FALSE(only("C17 not fitted on the 40 m version").sure());
    CHECK(only("C17 not fitted on the 40 m version").nominal == 0);
}

TEST_CASE("what is turned is a trimmer, in any letters; a choke's 4R7 is no resistor") {
    for (const char* text : {"R1 10K preset", "VR1 10k \u534a\u56fa\u5b9a\u62b5\u6297",
                             "C3 30pF \u30c8\u30ea\u30de\u30b3\u30f3\u30c7\u30f3\u30b5"}) {
        INFO(text);
        CHECK(only(text).kind == PartKind::trimmer);
    }
    CHECK(only("L1;4R7\nR1;10k\n").kind != PartKind::resistor);
}

TEST_CASE("places that stay empty are not fitted") {
    for (const char* text :
         {"R9 10k leave empty", "R9 10k left empty", "R9 10k bleibt frei", "R9 10k laisser vide"}) {
        INFO(text);
        CHECK_FALSE(only(text).fitted);
    }
}

TEST_CASE("numbers of a coil that are in no winding are shown") {
    const auto list = readPartsList(
        "L1 22 turns, then 3 over the cold end T37-6 0.3mm\nT1 10 turns prim. 2 turns sec., 5:1 FT37-43 "
        "0.3mm\n");
    REQUIRE(list);
    REQUIRE(list->list.coils.size() == 2);
    const auto& first = list->list.coils[0];
    CHECK(std::any_of(first.doubts.begin(), first.doubts.end(),
                      [](const std::string& d) { return d.find("was not used") != std::string::npos; }));
    const auto& second = list->list.coils[1].windings;
    REQUIRE(second.size() == 2);
    CHECK(second[0].turns == 10);
    CHECK(second[1].turns == 2);
    CHECK(second[1].name == "secondary");
}

TEST_CASE("one designator alone is a part without a value, not the next one's") {
    const auto list = readPartsList("R1\nR2 brown black red\n");
    REQUIRE(list);
    REQUIRE(list->list.lines.size() == 2);
    CHECK_FALSE(list->list.lines[0].sure());
    CHECK(list->list.lines[1].nominal == Approx(1000));
}

TEST_CASE("the source of a web page and a program's own file are refused with a sentence") {
    CHECK(
        readPartsList("<table><tr><td>R1</td><td>10k</td></tr></table>").error().sentence.find("web page") !=
        std::string::npos);
    std::string bytes;
    for (int i = 0; i < 5000; ++i) bytes += char(i * 37 % 256);
    CHECK(readPartsList(bytes).error().sentence.find("no text") != std::string::npos);
}

TEST_CASE("a line that no paper has is cut and the rest is read") {
    const auto list = readPartsList("R1 10k\n" + std::string(60000, '7') + "\nR2 22k\n");
    REQUIRE(list);
    CHECK(list->list.parts() == 2);
}
