#include <catch2/catch.hpp>

#include "core/parts/marks.h"
#include "core/quantity/quantity.h"
#include "core/sums/sums.h"

using namespace ombrek;

// Marks with a power, a voltage or a tolerance beside the value. Codes by IEC 60062; what stands beside a
// value is common practice. What is no mark is not made into one.

TEST_CASE("what stands beside a value does not go into it") {
    struct Row {
        const char* text;
        PartKind kind;
        double value, percent, volts;  ///< 0: not said
    };
    const Row row = GENERATE(values<Row>({
        {"100nF", PartKind::capacitor, 100e-9, 0, 0},
        {"10UF", PartKind::capacitor, 10e-6, 0, 0},
        {"10UH", PartKind::inductor, 10e-6, 0, 0},
        {"100nH", PartKind::inductor, 100e-9, 0, 0},
        {"22pF", PartKind::capacitor, 22e-12, 0, 0},
        {"47 1/4W", PartKind::capacitor, 47e-12, 0, 0},
        {"1k 1/2W", PartKind::resistor, 1000, 0, 0},
        {"4k7 0.25W 5%", PartKind::resistor, 4700, 5, 0},
        {"10k 5%", PartKind::resistor, 10e3, 5, 0},
        {"10k 5 %", PartKind::resistor, 10e3, 5, 0},
        {"10k \u00b11%", PartKind::resistor, 10e3, 1, 0},
        {"10k/1%", PartKind::resistor, 10e3, 1, 0},
        {"47\u00b5/25", PartKind::capacitor, 47e-6, 0, 25},
        {"100u/16V", PartKind::capacitor, 100e-6, 0, 16},
        {"104 50V", PartKind::capacitor, 100e-9, 0, 50},
        {"104K 50V", PartKind::capacitor, 100e-9, 10, 50},
        {"10 \u00b5F 25 V", PartKind::capacitor, 10e-6, 0, 25},
        {"220 1W", PartKind::resistor, 22, 0, 0},
    }));
    INFO(row.text);
    const auto all = readMark(row.text, row.kind);
    REQUIRE_FALSE(all.empty());
    CHECK(all.front().value == Approx(row.value));
    CHECK(all.front().tolerancePercent.value_or(0) == Approx(row.percent));
    CHECK(all.front().volts.value_or(0) == Approx(row.volts));
    for (const MarkReading& r : readMark(row.text)) {
        CHECK((r.value == Approx(row.value) || r.kind != row.kind));
    }
}

TEST_CASE("what is no mark gives none, and two numbers are no value") {
    for (const char* text : {"1/2", "10k red 5%", "47 48", "hello 104", "104 or 105"}) {
        INFO(text);
        CHECK(readMark(text).empty());
    }
    for (const char* text : {"104 50V", "47 1", "1 2 3", "10k 5", "4 70"}) {
        INFO(text);
        CHECK_FALSE(parseQuantity(text));
    }
    CHECK(parseQuantity("14 060 000")->value == 14060000);
    CHECK(parseQuantity("10 k")->value == 10000);
    for (const char* text : {"104 50V", "10k 5%"}) {
        INFO(text);
        const auto answers = answerSum(text, {});
        REQUIRE(answers);
        for (const SumAnswer& a : *answers)
            CHECK((a.unit == Unit::farad || a.unit == Unit::ohm || a.unit == Unit::henry));
    }
}
