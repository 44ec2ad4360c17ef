#include "core/quantity/quantity.h"

#include <cmath>
#include <random>

using namespace ombrek;

TEST_CASE("a quantity is read as people write it") {
    const auto row = GENERATE(table<const char*, double, Unit>({
        {"4k7", 4700, Unit::none},
        {"4K7", 4700, Unit::none},
        {"4.7k", 4700, Unit::none},
        {"4,7 k", 4700, Unit::none},
        {"4.7 kΩ", 4700, Unit::ohm},
        {"4.7kohm", 4700, Unit::ohm},
        {"R47", 0.47, Unit::ohm},
        {"0R47", 0.47, Unit::ohm},
        {"10R", 10, Unit::ohm},
        {"1M", 1e6, Unit::none},
        {"1m", 1e-3, Unit::none},
        {"2n2", 2.2e-9, Unit::none},
        {"p33", 0.33e-12, Unit::none},
        {"47p", 47e-12, Unit::none},
        {"0.1u", 1e-7, Unit::none},
        {"0.1µ", 1e-7, Unit::none},
        {"0,1 μF", 1e-7, Unit::farad},
        {"100nF", 1e-7, Unit::farad},
        {"1.2uH", 1.2e-6, Unit::henry},
        {"21.06 MHz", 21.06e6, Unit::hertz},
        {"10.0021M", 10.0021e6, Unit::none},
        {"0.99 k", 990, Unit::none},
        {"1e3", 1000, Unit::none},
        {"1E-6", 1e-6, Unit::none},
        {"2.5e+2 V", 250, Unit::volt},
        {"-12.5 V", -12.5, Unit::volt},
        {"+3", 3, Unit::none},
        {"34.8 dBm", 34.8, Unit::dbm},
        {"-50dB", -50, Unit::decibel},
        {"20 mA", 0.02, Unit::ampere},
        {"5 W", 5, Unit::watt},
        {"5mW", 0.005, Unit::watt},
        {"12 %", 12, Unit::percent},
        {"25°C", 25, Unit::celsius},
        {".5", 0.5, Unit::none},
        {"100\u202fpF", 100e-12, Unit::farad},
        {"100\u202fpF", 100e-12, Unit::farad},
        {"100\u00a0pF", 100e-12, Unit::farad},
    }));
    const auto read = parseQuantity(std::get<0>(row));
    INFO(std::get<0>(row));
    REQUIRE(read);
    CHECK(read->value == Approx(std::get<1>(row)).epsilon(1e-12));
    CHECK(read->unit == std::get<2>(row));
}

TEST_CASE("what is no quantity gets a sentence") {
    const auto* text =
        GENERATE("", " ", "k", "abc", "1.2.3", "1,000.5", "4k7k", "4k7n", "--5", "1 2x", "1e999", "nan",
                 "inf", "0x10", "5 furlongs", "1e", "..", "12 VV", "\xff\xfe", "1k2k3", "9e400");
    const auto read = parseQuantity(text);
    INFO(text);
    REQUIRE_FALSE(read);
    CHECK(read.error().sentence.find("is not") != std::string::npos);
}

TEST_CASE("a hundred digits are refused, not truncated") {
    CHECK_FALSE(parseQuantity(std::string(100, '9')));
}

TEST_CASE("the expected unit is filled in, and another one is told") {
    CHECK(parseQuantity("4.7k", Unit::ohm)->unit == Unit::ohm);
    CHECK(parseQuantity("5m", Unit::metre)->value == 5.0);
    CHECK(parseQuantity("5mm", Unit::metre)->value == Approx(0.005));
    const auto wrong = parseQuantity("4.7 nF", Unit::ohm);
    REQUIRE_FALSE(wrong);
    CHECK(wrong.error().sentence.find("wanted ohms") != std::string::npos);
}

TEST_CASE("0.1u is the double nearest to 1e-7, not one multiplied up") {
    CHECK(parseQuantity("0.1u")->value == 1e-7);
    CHECK(parseQuantity("2n2")->value == 2.2e-9);
}

TEST_CASE("a value is written with an engineering prefix") {
    CHECK(formatQuantity(4700, Unit::ohm) == "4.7\u202fkΩ");
    CHECK(formatQuantity(1e-7, Unit::farad) == "100\u202fnF");
    CHECK(formatQuantity(1000, Unit::ohm) == "1\u202fkΩ");
    CHECK(formatQuantity(999.6, Unit::ohm) == "1\u202fkΩ");
    CHECK(formatQuantity(999.4, Unit::ohm) == "999\u202fΩ");
    CHECK(formatQuantity(0, Unit::volt) == "0\u202fV");
    CHECK(formatQuantity(-12.345, Unit::volt, 4) ==
          "-12.35\u202fV");  // 12.345 lies a hair above the half in binary
    CHECK(formatQuantity(36.99, Unit::dbm, 4) == "36.99\u202fdBm");
    CHECK(formatQuantity(1234, Unit::percent, 4) == "1234\u202f%");
    CHECK(formatQuantity(2.2e-12, Unit::farad, 3, Zeros::keep) == "2.20\u202fpF");
    CHECK(formatQuantity(1e12, Unit::hertz) == "1000\u202fGHz");
    CHECK(formatQuantity(NAN, Unit::volt) == "–\u202fV");
    CHECK(formatQuantity(-0.0, Unit::volt) == "0\u202fV");
}

TEST_CASE("writing and reading again loses nothing that was shown") {
    std::mt19937 engine(7);
    std::uniform_real_distribution<double> exponent(-11.9, 8.9);
    for (int i = 0; i < 2000; ++i) {
        const double value = std::pow(10.0, exponent(engine));
        for (const Unit unit : {Unit::ohm, Unit::farad, Unit::hertz, Unit::none}) {
            const std::string text = formatQuantity(value, unit, 6);
            const auto read = parseQuantity(text, unit);
            INFO(text);
            REQUIRE(read);
            REQUIRE(read->value == Approx(value).epsilon(5.1e-6));  // half a unit of the sixth figure
        }
    }
}

TEST_CASE("a plain number reads back to the same double") {
    for (const double value : {0.1, 1e-7, 21060000.0, 1.0 / 3, -2.5e-12}) {
        CHECK(std::strtod(plainNumber(value).c_str(), nullptr) == value);
    }
}

TEST_CASE("random bytes never break the reader") {
    std::mt19937 engine(11);
    for (int i = 0; i < 20000; ++i) {
        std::string text(engine() % 12, ' ');
        for (char& c : text) c = static_cast<char>(engine() % 256);
        const auto read = parseQuantity(text);
        if (read) REQUIRE(std::isfinite(read->value));
    }
}
