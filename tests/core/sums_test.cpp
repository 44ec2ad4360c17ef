#include "core/sums/sums.h"
#include "draws.h"

#include <cmath>
#include <random>

using namespace ombrek;

namespace {

std::vector<MagneticCore> cores() {
    MagneticCore a;
    a.designation = "T50-2";
    a.al = 4.9e-9;
    a.alTolerancePercent = 5;
    MagneticCore b = a;
    b.designation = "T37-6";
    b.al = 3.0e-9;
    return {a, b};
}

SumAnswer best(const std::string& text) {
    const auto answers = answerSum(text, cores());
    REQUIRE(answers);
    REQUIRE_FALSE(answers->empty());
    return answers->front();
}

}  // namespace

TEST_CASE("the sums of the bench") {
    const auto row = GENERATE(table<const char*, double, Unit>({
        {"104", 100e-9, Unit::farad},
        {"4k7", 4700, Unit::ohm},
        {"2n2", 2.2e-9, Unit::farad},
        {"R47", 0.47, Unit::ohm},
        {"22", 22e-12, Unit::farad},
        {"brown black red", 1000, Unit::ohm},
        {"grey red brown gold", 820, Unit::ohm},
        {"5 W in dBm", 36.9897, Unit::dbm},
        {"34.8 dBm in W", 3.01995, Unit::watt},
        {"5W", 36.9897, Unit::dbm},
        {"34.8 dBm", 3.01995, Unit::watt},
        {"31 Vpp", 2.4025, Unit::watt},
        {"31Vpp", 2.4025, Unit::watt},
        {"20 vpp", 1.0, Unit::watt},
        {"T50-2 18t", 1.5876e-6, Unit::henry},
        {"t50-2 18 turns", 1.5876e-6, Unit::henry},
        {"T37-6 for 1.2u", 20, Unit::none},
        {"T37-6 1.2uH", 20, Unit::none},
        {"10.0021M vs 10M", 210, Unit::ppm},
        {"10.0021 MHz vs 10 MHz", 210, Unit::ppm},
        {"4.9k vs 4.7k", 4.2553, Unit::percent},
        {"0,99 k", 990, Unit::none},
        {"12.5 V", 12.5, Unit::volt},
        {"SWR 1.5", 13.979, Unit::decibel},
        {"bridge 1 V 0.2 V", 13.979, Unit::decibel},
        {"heat 13.8 V 0.8 A 5 W", 6.04, Unit::watt},
        {"key down 25 10 s 35 20 s 45 85", 60, Unit::second},
    }));
    INFO(std::get<0>(row));
    const SumAnswer answer = best(std::get<0>(row));
    CHECK(answer.value == Approx(std::get<1>(row)).epsilon(1e-4));
    CHECK(answer.unit == std::get<2>(row));
    CHECK_FALSE(answer.text.empty());
    CHECK_FALSE(answer.meaning.empty());
    CHECK_FALSE(answer.working.text().empty());
}

TEST_CASE("every meaning of an ambiguous mark is offered, the capacitor first") {
    const auto answers = answerSum("104", cores());
    REQUIRE(answers);
    REQUIRE(answers->size() == 4);
    CHECK((*answers)[0].meaning.starts_with("capacitor"));
    CHECK((*answers)[1].meaning.starts_with("inductor"));
    CHECK((*answers)[2].meaning.starts_with("resistor"));
    CHECK((*answers)[3].value == 104);
}

TEST_CASE("what is not understood gets examples") {
    for (const char* text :
         {"", "   ", "hello world", "T99-9 for 1u", "T50-2 for", "T50-2 0t", "T50-2 -3t", "5 W in furlongs",
          "1 V vs 1 Hz", "10M vs 0", "-5 W in dBm", "T37-6 for -1u", "T50-2 99999999999t", "0 Vpp"}) {
        INFO(text);
        const auto answers = answerSum(text, cores());
        REQUIRE_FALSE(answers);
        CHECK(answers.error().sentence.find("104") != std::string::npos);
    }
}

TEST_CASE("random text never breaks the sums line, and never gives a number that is none") {
    std::mt19937 engine(13);
    const std::vector<std::string> pieces{"T50-2", " for ", "1.2u", "vs",   " in ", "dBm",
                                          "W",     "10M",   "Vpp",  "104",  "red",  "black",
                                          "k",     "-",     ",",    "9e99", "\xff", "t"};
    for (int i = 0; i < draws(20000, 3000); ++i) {
        std::string text;
        for (unsigned n = engine() % 6; n > 0; --n)
            text += pieces[engine() % pieces.size()] + (engine() % 2 ? " " : "");
        const auto answers = answerSum(text, cores());
        if (!answers) continue;
        for (const auto& a : *answers) REQUIRE(std::isfinite(a.value));
    }
}

TEST_CASE("blanks around a sum change nothing, and a deviation has four figures of ppm, three of per cent") {
    for (const char* text : {" 4k7", "4k7 ", "  4k7\t ", "4k7\n"}) CHECK(best(text).value == 4700);
    CHECK(best("10.123456 vs 10").text.starts_with("12350"));
    CHECK(best("12.3456 vs 10").text.starts_with("23.5"));
    CHECK(best("12.3456 vs 10").unit == Unit::percent);
}

TEST_CASE("pads and taps of preferred values, both shapes, the one that is asked for first") {
    const auto pads = answerSum("10 dB pad", cores());
    REQUIRE(pads);
    REQUIRE(pads->size() == 2);
    CHECK((*pads)[0].meaning.starts_with("pi pad"));
    // 100, 68, 100 ohm of E24 in pi make 9.6 dB (by the nodal equations, by hand).
    CHECK((*pads)[0].value == Approx(9.7).margin(0.2));
    const auto t = answerSum("20 dB T pad 75 ohm 5 W E96", cores());
    REQUIRE(t);
    CHECK((*t)[0].meaning.starts_with("T pad of 20 dB at 75"));
    CHECK((*t)[0].value == Approx(20).margin(0.2));
    CHECK((*t)[0].text.find("W)") != std::string::npos);
    CHECK(best("40 dB tap 5 W").value == Approx(40).margin(0.3));
    for (const char* wrong : {"pad", "0 dB pad", "tap 40", "SWR", "SWR 0.5", "bridge 1 V", "bridge 0.1 V 5 V",
                              "heat 1 V 1 A 5 W", "heat", "key down 25 10 s"}) {
        INFO(wrong);
        CHECK_FALSE(answerSum(wrong, cores()).has_value());
    }
}
