#include <cmath>
#include <limits>

#include "core/quantity/shown.h"

using namespace ombrek;

namespace {

double shown(const char* text, Unit unit, double wanted = 0) {
    const auto out = parseShown(text, unit, wanted);
    REQUIRE(out);
    CHECK_FALSE(out->beyond);
    return out->value;
}

}  // namespace

TEST_CASE("a bare number has the prefix that the display has") {
    CHECK(shown("47", Unit::farad, 47e-6) == 47e-6);
    CHECK(shown("47", Unit::farad, 47e-12) == 47e-12);
    CHECK(shown("98.4", Unit::ohm, 100e3) == 98.4e3);
    CHECK(shown("0,99", Unit::ohm, 1e3) == 990);
    CHECK(shown("990", Unit::ohm, 1e3) == 990);
    CHECK(shown("2.9", Unit::henry, 2.7e-6) == 2.9e-6);
    CHECK(shown("21.0601", Unit::hertz, 21.06e6) == 21.0601e6);
    CHECK(shown("21060100", Unit::hertz, 21.06e6) == 21060100);
    CHECK(shown("4.98", Unit::volt, 5) == 4.98);
    CHECK(shown("8", Unit::ampere, 8e-3) == 8e-3);
    CHECK(shown("0", Unit::farad, 47e-6) == 0);
    // What is said is not guessed.
    CHECK(shown("47n", Unit::farad, 47e-6) == 47e-9);
    CHECK(shown("4.7 k\u2126", Unit::ohm, 4.7) == 4700);
    CHECK(shown("1.5 V", Unit::volt, 5e-3) == 1.5);
    // Nothing is wanted, or on one side only: the unit itself.
    CHECK(shown("12", Unit::ohm) == 12);
    CHECK(shown("0.2", Unit::volt) == 0.2);
}

TEST_CASE("a display that shows no number is a reading", "[reference]") {
    // Source: SCPI-1999, volume 1, 7.2.1.4: 9.9E37 is an overload. The words are common practice.
    for (const char* text :
         {"OL", "ol", "0L", "O.L", "inf", "open", "9.9E37", "9.9e+37", "\u221e", " O L "}) {
        INFO(text);
        const auto out = parseShown(text, Unit::ohm);
        REQUIRE(out);
        CHECK(std::isinf(out->value));
        CHECK(out->beyond);
    }
    const auto over = parseShown("> 20 M", Unit::ohm);
    REQUIRE(over);
    CHECK(over->value == 20e6);
    CHECK(over->beyond);
    CHECK(shownText(*over, Unit::ohm) == "over 20\u202fM\u03a9");
    // A beeper that is silent says little: the resistance is over its threshold, not that it is open.
    const auto silent = parseShown("no beep", Unit::ohm);
    REQUIRE(silent);
    CHECK(silent->beyond);
    CHECK(silent->value <= 100);
    CHECK_FALSE(parseShown("no beep", Unit::volt));
    CHECK_FALSE(parseShown("OL", Unit::hertz));
    CHECK_FALSE(parseShown("> 5", Unit::watt));
}

TEST_CASE("what no meter can show is refused where it enters") {
    struct Case {
        const char* text;
        Unit unit;
    };
    for (const Case& c : std::initializer_list<Case>{{"47 F", Unit::farad},
                                                     {"1f", Unit::henry},
                                                     {"-5", Unit::ohm},
                                                     {"1e-20", Unit::henry},
                                                     {"-3", Unit::watt},
                                                     {"4000", Unit::dbm},
                                                     {"0", Unit::hertz},
                                                     {"1e15", Unit::ohm},
                                                     {"1e9", Unit::volt},
                                                     {"1e9", Unit::decibel},
                                                     {"nan", Unit::volt},
                                                     {"9.8e37", Unit::ohm},
                                                     {"1e-300", Unit::farad},
                                                     {"", Unit::ohm},
                                                     {">", Unit::ohm},
                                                     {">>1", Unit::farad},
                                                     {"OL5", Unit::ohm},
                                                     {"5 V", Unit::ohm}}) {
        INFO(c.text << " in " << plural(c.unit));
        const auto out = parseShown(c.text, c.unit);
        REQUIRE_FALSE(out);
        CHECK_FALSE(out.error().sentence.empty());
    }
    CHECK(impossible(NAN, Unit::ohm));
    CHECK(impossible(-INFINITY, Unit::ohm));
    CHECK_FALSE(impossible(INFINITY, Unit::ohm));
    CHECK_FALSE(impossible(0, Unit::henry));
}

TEST_CASE("every space that people and programs put before a unit is one") {
    for (const char* space : {" ", "\u2009", "\u202f", "\u00a0", "\u2007", "\u200a", "\t", ""}) {
        const auto value = parseQuantity("4.7" + std::string(space) + "kHz");
        INFO('"' << space << '"');
        REQUIRE(value);
        CHECK(value->value == 4700);
    }
}

TEST_CASE("a person reads the person's decimal mark, a machine a point") {
    struct Mark {
        explicit Mark(char with) { writeDecimalsWith(with); }
        ~Mark() { writeDecimalsWith('.'); }
    } comma(',');
    CHECK(formatQuantity(4700, Unit::ohm, 3) == "4,7\u202fk\u03a9");
    CHECK(formatQuantity(1000, Unit::ohm, 4) == "1\u202fk\u03a9");
    CHECK(formatQuantity(21.06e6, Unit::hertz, 8) == "21,06\u202fMHz");
    CHECK(splitQuantity(2.5, Unit::volt, 4).number == "2,500");
    CHECK(personNumber(0.5) == "0,5");
    CHECK(decimals(1.25, 1, true) == "+1,2");
    CHECK(plainNumber(0.5) == "0.5");
    // What is written is read back.
    CHECK(parseQuantity(formatQuantity(4.7e-9, Unit::farad, 3))->value == 4.7e-9);
}

TEST_CASE("numbers are written with the digits they have, whatever the locale of the machine",
          "[reference]") {
    // Source: SI writing of numbers (ISO 80000-1): the digits asked for, the prefix that keeps 1 to 1000.
    CHECK(decimals(-0.04, 1) == "0.0");
    CHECK(decimals(NAN, 1) == "–");
    CHECK(formatQuantity(999.96, Unit::ohm, 4, Zeros::keep) == "1.000\u202fk\u03a9");
    CHECK(formatQuantity(1e300, Unit::none, 3).size() < 400);
    CHECK(formatQuantity(12345.6789, Unit::none, 12) == "12.3456789k");
}
