#include <catch2/catch.hpp>
#include <cmath>

#include "core/quantity/verdict.h"
#include "formats/accuracy_text.h"
#include "kit/instrument.h"

using namespace ombrek;

TEST_CASE("an accuracy is read as a data sheet prints it, and written back") {
    MeterLine line;
    line.unit = Unit::ohm;
    REQUIRE(readAccuracy("0.8 % + 2", line));
    CHECK(line.percent == 0.8);
    CHECK(line.digits == 2);
    REQUIRE(readAccuracy("0,5% + 3 digits of 20000", line));
    CHECK(line.percent == 0.5);
    CHECK(line.digits == 3);
    CHECK(line.counts == 20000);
    line.unit = Unit::farad;
    REQUIRE(readAccuracy("1 % + 0.5 pF", line));
    CHECK(line.digits == 0);
    CHECK(line.floor == Approx(0.5e-12));
    MeterLine again = line;
    REQUIRE(readAccuracy(accuracyText(line), again));
    CHECK(again.percent == line.percent);
    CHECK(again.floor == Approx(line.floor));
}

TEST_CASE("an accuracy that cannot be read changes nothing and says so") {
    MeterLine line;
    line.unit = Unit::farad;
    line.percent = 3;
    for (const char* text :
         {"", "good", "-1 %", "1 % +", "1 % + 5 V", "200 %", "1 % + 2 digits of 3", "%", "0.5"}) {
        INFO(text);
        const auto read = readAccuracy(text, line);
        REQUIRE_FALSE(read);
        CHECK(read.error().sentence.size() > 20);
        CHECK(line.percent == 3);
    }
}

TEST_CASE("the zero is taken off after the error is reckoned from what is shown") {
    std::vector<MeterLine> meters = usualMeters();
    for (MeterLine& m : meters) {
        if (m.unit == Unit::farad) m.zero = 0.6e-12;
    }
    const Measured m = measuredWith(meters, Unit::farad, 23.6e-12);
    CHECK(m.value == Approx(23.0e-12));
    // U = 2·√(0.236² + 0.5²)/√3 pF: JCGM 100 (GUM) 4.3.7, rectangular limits.
    CHECK(m.uncertainty == Approx(2 * std::hypot(0.236e-12, 0.5e-12) / std::sqrt(3.0)));
    const Verdict verdict =
        judge(m.value, limitsAround(22e-12, 5), m.uncertainty, VerdictRule::guardBand, Unit::farad);
    CHECK(verdict.state == VerdictState::doubtful);
}

TEST_CASE("the range that holds the reading gives its error: outside all, the nearest does") {
    MeterLine low, high;
    low.unit = high.unit = Unit::ohm;
    low.high = 600;
    low.percent = 0.5;
    high.low = 600;
    high.high = 60e3;
    high.percent = 2;
    const std::vector<MeterLine> meters{low, high};
    CHECK(meterFor(meters, Unit::ohm, 470)->percent == 0.5);
    CHECK(meterFor(meters, Unit::ohm, 4700)->percent == 2);
    CHECK(meterFor(meters, Unit::ohm, 1e6)->percent == 2);
    CHECK_FALSE(meterFor(meters, Unit::farad, 1e-9));
    CHECK(measuredWith(meters, Unit::farad, 1e-9).uncertainty == 0);
}

TEST_CASE("one count is the last digit of the range the meter picks by itself") {
    MeterLine m;
    m.unit = Unit::volt;
    m.digits = 1;
    m.counts = 2000;  // ranges 2, 20, 200 V of 2000 counts: 1 mV, 10 mV, 100 mV (common practice)
    const double k = 2 / std::sqrt(3.0);
    CHECK(measuredWith({m}, Unit::volt, 1.5).uncertainty == Approx(k * 0.001));
    CHECK(measuredWith({m}, Unit::volt, 13.8).uncertainty == Approx(k * 0.01));
    CHECK(measuredWith({m}, Unit::volt, 0.19).uncertainty == Approx(k * 0.0001));
}

TEST_CASE("a data sheet's promise runs out after a year") {
    MeterLine m;
    CHECK_FALSE(calibrationIsOld(m, 2000000000));
    m.calibrated = 1900000000;
    CHECK_FALSE(calibrationIsOld(m, m.calibrated + 300LL * 86400));
    CHECK(calibrationIsOld(m, m.calibrated + 400LL * 86400));
}
