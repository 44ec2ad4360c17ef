#include <catch2/catch.hpp>
#include <cmath>

#include "core/meter/display_words.h"
#include "core/meter/line_pattern.h"
#include "core/meter/standing.h"

using namespace ombrek;

namespace {

/// A line by the pattern that was shown in another.
Sample readBy(const std::string& shown, std::size_t number, std::optional<std::size_t> unit,
              const std::string& line, const std::string& fixed = "") {
    const auto pattern = learnPattern(shown, number, unit, fixed);
    REQUIRE(pattern);
    const auto back = readLinePattern(pattern->text());  // as the book keeps it
    REQUIRE(back);
    CHECK(back->text() == pattern->text());
    return readLine(*back, line);
}

Standing standing(Unit unit, Flow flow = Flow::either, int average = 1) {
    return {unit, flow, [](double value) { return 0.01 * std::fabs(value) + 1e-15; }, average};
}

Sample volts(double value) {
    Sample out;
    out.kind = Sample::Kind::reading;
    out.unit = Unit::volt;
    out.value = value;
    return out;
}

}  // namespace

TEST_CASE("units are read as meters print them, and what may be two is none") {
    struct Row {
        const char* word;
        Unit unit;
        double factor;
    };
    // Prefixes of the SI brochure; forms of displays and printers are common practice.
    for (const Row& row : std::vector<Row>{{"V", Unit::volt, 1},
                                           {"mV", Unit::volt, 1e-3},
                                           {"kOhm", Unit::ohm, 1e3},
                                           {"MOhm", Unit::ohm, 1e6},
                                           {"MOHM", Unit::ohm, 1e6},
                                           {"Ω", Unit::ohm, 1},
                                           {"kΩ", Unit::ohm, 1e3},
                                           {"ohms", Unit::ohm, 1},
                                           {"pF", Unit::farad, 1e-12},
                                           {"uF", Unit::farad, 1e-6},
                                           {"µF", Unit::farad, 1e-6},
                                           {"nF", Unit::farad, 1e-9},
                                           {"uH", Unit::henry, 1e-6},
                                           {"kHz", Unit::hertz, 1e3},
                                           {"MHZ", Unit::hertz, 1e6},
                                           {"VDC", Unit::volt, 1},
                                           {"mVac", Unit::volt, 1e-3},
                                           {"dBm", Unit::dbm, 1},
                                           {"mA", Unit::ampere, 1e-3}}) {
        INFO(row.word);
        const auto read = readUnitWord(row.word);
        REQUIRE(read);
        CHECK(read->unit == row.unit);
        CHECK(read->factor == row.factor);
    }
    CHECK(readUnitWord("mVac")->ac);
    for (const char* word : {"MV", "MA", "MF", "MH", "MW", "", "X", "pV2", "volt-ish", "k", "mdBm"}) {
        INFO(word);
        CHECK_FALSE(readUnitWord(word));
    }
}

TEST_CASE("lines of hand meters are read by one that was shown") {
    // Fourteen characters a line, of many hand-held meters; from memory.
    const std::string shown = "DC  -01.234  V";
    const auto dc = readBy(shown, 1, 2, shown);
    CHECK(dc.kind == Sample::Kind::reading);
    CHECK(dc.value == Approx(-1.234));
    CHECK(dc.unit == Unit::volt);
    CHECK(dc.count == Approx(0.001));
    CHECK(dc.dc);
    CHECK(readBy(shown, 1, 2, "AC   230.1  V").ac);
    CHECK(readBy(shown, 1, 2, "OH   4.702 KOhm").value == Approx(4702));
    CHECK(readBy(shown, 1, 2, "OH   O.L MOhm").kind == Sample::Kind::overload);
    CHECK(readBy(shown, 1, 2, "CA   0.470  nF").value == Approx(0.47e-9));
    CHECK(readBy(shown, 1, 2, "DI   0.632  V").diode);
    CHECK(readBy(shown, 1, 2, "DC  - 0.500 mV").value == Approx(-0.5e-3));
    const auto zero = readBy(shown, 1, 2, "DC  -0.000  V");
    CHECK(zero.value == 0);
    CHECK_FALSE(std::signbit(zero.value));
    CHECK(readBy(shown, 1, 2, "DC  ---- V").kind == Sample::Kind::blank);
    CHECK(readBy(shown, 1, 2, "DC  1.234 V HOLD").held);
    CHECK(readBy(shown, 1, 2, "DC  1.234 V LOBAT").lowBattery);

    // An L/C meter's line with labels: another label is another thing.
    const std::string lc = "C= 101.3 pF Q= 85";
    CHECK(readBy(lc, 1, 2, "C= 99.70 pF Q= 85").value == Approx(99.7e-12));
    CHECK(readBy(lc, 1, 2, "L= 99.70 pF Q= 85").kind == Sample::Kind::none);
    CHECK(readBy(lc, 1, 2, "C= 10 1.3 pF Q= 85").kind == Sample::Kind::none);
    CHECK(readBy(lc, 1, 2, "C= 101.3 pF").kind == Sample::Kind::none);
    // A line that says no unit.
    CHECK(readBy("104.20", 0, std::nullopt, "  98.70", "pF").value == Approx(98.7e-12));
    CHECK(readBy("104.20", 0, std::nullopt, "98.70 nF", "pF").kind == Sample::Kind::none);
    // Temperature, time and date change from line to line; letters of other alphabets come as UTF-8 or
    // Latin-1.
    const std::string busy = "2026-12-01 12:03:44 T:25.3C V:12.34V A:0.123A";
    CHECK(readBy(busy, 7, 8, "2026-12-02 09:10:11 T:26.0C V:13.80V A:1.500A").value == Approx(13.8));
    CHECK(readBy("C 4.700 \xc2\xb5"
                 "F",
                 1, 2,
                 "C 1.000 \xc2\xb5"
                 "F")
              .value == Approx(1e-6));
    CHECK(readBy("C 4.700 \xb5"
                 "F",
                 1, 2,
                 "C 1.000 \xb5"
                 "F")
              .value == Approx(1e-6));
    // Exponents, and commas between fields.
    CHECK(readBy("+1.23400E-09,F,0", 0, 1, "+2.20000E-10,F,0").value == Approx(220e-12));
    const auto comma = learnPattern("12,34 V", 0, 1, "", true);
    REQUIRE(comma);
    CHECK(readLine(*readLinePattern(comma->text()), "5,10 V").value == Approx(5.1));
    CHECK(readLine(*comma, "OL V").kind == Sample::Kind::overload);
    CHECK(readLine(*comma, "OL").kind == Sample::Kind::overload);  // without its unit
}

TEST_CASE("what is no pattern, and no place in a line, is refused") {
    for (const char* text : {"", "@", "# # V", "#", "# @ | V", "# | furlong", "# @ @"}) {
        INFO(text);
        CHECK_FALSE(readLinePattern(text));
    }
    CHECK_FALSE(learnPattern("1.2 V", 7, 1, ""));
    CHECK_FALSE(learnPattern("1.2 V", 0, 9, ""));
    CHECK_FALSE(learnPattern("1.2 V", 1, 0, ""));
    CHECK_FALSE(learnPattern("1.2", 0, std::nullopt, "furlong"));
    CHECK_FALSE(learnPattern("", 0, 1, "V"));
    CHECK(readLine({}, "1.2 V").gone);
    CHECK(guessNumber(displayWords("noise 7 12.5 mV ok")) == 2);
    CHECK_FALSE(guessNumber(displayWords("hello 7")));
}

TEST_CASE("a sample of another quantity, frozen, of a low battery or of the other current is none") {
    Sample s = volts(5);
    CHECK(unfit(s, Unit::volt).empty());
    CHECK_FALSE(unfit(s, Unit::ohm).empty());
    s.unit = Unit::none;
    CHECK(unfit(s, Unit::volt).find("which unit") != std::string::npos);
    s = volts(5);
    s.held = true;
    CHECK(unfit(s, Unit::volt).find("hold") != std::string::npos);
    s = volts(5);
    s.lowBattery = true;
    CHECK(unfit(s, Unit::volt).find("battery") != std::string::npos);
    s = volts(5);
    s.ac = true;
    CHECK_FALSE(unfit(s, Unit::volt, Flow::dc).empty());
    CHECK(unfit(s, Unit::volt, Flow::ac).empty());
    CHECK_FALSE(unfit(s, Unit::volt, Flow::peakToPeak).empty());
    s.ac = false;
    s.peakToPeak = true;
    CHECK(unfit(s, Unit::volt, Flow::peakToPeak).empty());
    CHECK_FALSE(unfit(s, Unit::volt, Flow::ac).empty());
    CHECK_FALSE(unfit(s, Unit::volt, Flow::dc).empty());
    CHECK_FALSE(unfit(volts(5), Unit::volt, Flow::ac).empty());  // it does not say so: cannot tell
    CHECK_FALSE(unfit(volts(1e9), Unit::volt).empty());          // no bench shows that
    CHECK_FALSE(unfit(volts(NAN), Unit::volt).empty());
    CHECK_FALSE(unfit(noSample("because"), Unit::volt).empty());
}

TEST_CASE("a reading is taken when three stand, and one that wanders is told of") {
    auto s = standing(Unit::volt);
    CHECK(s.take(volts(0.2)) == Standing::State::waiting);  // the needle rises
    CHECK(s.take(volts(3.9)) == Standing::State::waiting);
    CHECK(s.take(volts(5.00)) == Standing::State::waiting);
    CHECK(s.take(volts(5.01)) == Standing::State::waiting);
    CHECK(s.take(volts(50.1)) == Standing::State::waiting);  // garbled, and still a number
    for (int i = 0; i < 4; ++i)
        CHECK(s.take(volts(5.00)) == Standing::State::waiting);  // after others it takes five
    REQUIRE(s.take(volts(5.02)) == Standing::State::stands);
    CHECK(s.value().value == 5.02);
    auto calm = standing(Unit::volt);
    CHECK(calm.take(volts(5.00)) == Standing::State::waiting);
    CHECK(calm.take(volts(5.01)) == Standing::State::waiting);
    CHECK(calm.take(volts(5.02)) == Standing::State::stands);

    auto wanders = standing(Unit::volt);
    for (int i = 0; i < 200; ++i)
        CHECK(wanders.take(volts(5 * std::pow(1.008, i))) == Standing::State::waiting);
    CHECK(wanders.why().find("does not stand: 5") != std::string::npos);

    auto open = standing(Unit::ohm);
    Sample overload;
    overload.kind = Sample::Kind::overload;
    overload.unit = Unit::ohm;
    overload.value = INFINITY;
    CHECK(open.take(overload) == Standing::State::waiting);
    CHECK(open.take(overload) == Standing::State::waiting);
    CHECK(open.take(overload) == Standing::State::stands);

    auto many = standing(Unit::volt, Flow::either, 10);
    for (int i = 0; i < 9; ++i) CHECK(many.take(volts(5 + 0.004 * (i % 2))) == Standing::State::waiting);
    REQUIRE(many.take(volts(5.004)) == Standing::State::stands);
    CHECK(many.value().value == Approx(5.002));
}
