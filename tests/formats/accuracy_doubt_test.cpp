#include <catch2/catch.hpp>

#include "formats/accuracy_text.h"

using namespace ombrek;

TEST_CASE("an accuracy that no meter has is asked about, and a bare number is none") {
    MeterLine line;
    line.unit = Unit::farad;
    line.counts = 6000;
    for (const char* refused : {"1e308", "1e-30", "five", "-1 %", "1 V"}) {
        INFO(refused);
        CHECK_FALSE(readAccuracy(refused, line));
    }
    for (const char* doubted : {"0", "0 %", "0 pF", "99 %"}) {
        INFO(doubted);
        REQUIRE(readAccuracy(doubted, line));
        CHECK_FALSE(accuracyDoubt(line).empty());
    }
    for (const char* usual : {"0.8 % + 2 digits", "1 % + 0.5 pF", "1 ppm", "0.05 %"}) {
        INFO(usual);
        REQUIRE(readAccuracy(usual, line));
        CHECK(accuracyDoubt(line).empty());
    }
}
