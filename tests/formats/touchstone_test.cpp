#include "formats/touchstone.h"

#include <catch2/catch.hpp>

using namespace ombrek;
using Complex = std::complex<double>;

TEST_CASE("Touchstone in the dialects of other programs") {
    // Source: Touchstone File Format Specification 1.1 (from memory): defaults GHZ S MA R 50.
    const auto plain = readTouchstone("! no option line\n0.001 0.5 90\n0.002 0.25 -90\n", "a.s1p").value();
    CHECK_FALSE(plain.twoPort);
    CHECK(plain.frequencies[1] == Approx(2e6));
    CHECK(std::abs(plain.points[0].s11 - Complex(0, 0.5)) < 1e-12);
    CHECK(plain.ohms == Approx(50));
    const auto empty = readTouchstone("#\n0.001 0.5 90\n").value();
    CHECK(empty.frequencies[0] == Approx(1e6));
    const auto shuffled =
        readTouchstone(
            "! by an analyser\r\n# r 75 ri mhz s\r\n7,03 1.0E-1 -2e-1 ! first\r\n\r\n7.1 +0.1 -0.2\r\n")
            .value();
    CHECK(shuffled.ohms == Approx(75));
    CHECK(shuffled.frequencies[0] == Approx(7.03e6));
    CHECK(shuffled.points[0].s11 == Complex(0.1, -0.2));
    const auto wrapped =
        readTouchstone(
            "# Hz S DB R 50\n1000000 -20 0 -0.1 -45\n  -0.1 -45 -20 180\n2000000 -10 0 -1 0 -1 0 -10 0\n",
            "x.S2P")
            .value();
    REQUIRE(wrapped.points.size() == 2);
    CHECK(std::abs(wrapped.points[0].s21) == Approx(std::pow(10, -0.1 / 20)));
    CHECK(wrapped.points[0].s22.real() == Approx(-0.1));
    const auto fortran = readTouchstone("# KHZ S RI\n1.0D+3 1.0D-1 0.0D0\n").value();
    CHECK(fortran.frequencies[0] == Approx(1e6));
    const auto old = readTouchstone("# MHz S MA R 50\r1 0.1 0\r2 0.1 0\r", "mac.s1p").value();
    CHECK(old.points.size() == 2);
    const auto twice = readTouchstone("# MHz S RI R 50\n# Hz S MA R 75\n1 0.1 0\n").value();
    CHECK(twice.ohms == Approx(50));  // only the first option line counts
    const auto noise =
        readTouchstone("# MHz S MA\n10 1 0 1 0 1 0 1 0\n20 1 0 1 0 1 0 1 0\n! noise\n5 1.2 0.3 10 0.2\n",
                       "n.s2p")
            .value();
    CHECK(noise.points.size() == 2);
    CHECK(noise.skipped == 1);
    // Two ports without a name: S21 before S12, as the format orders them.
    const auto two = readTouchstone("# Hz S RI\n1 .1 0 .2 0 .3 0 .4 0\n2 .1 0 .2 0 .3 0 .4 0\n").value();
    REQUIRE(two.twoPort);
    CHECK(two.points[0].s21.real() == Approx(0.2));
    CHECK(two.points[0].s12.real() == Approx(0.3));
}

TEST_CASE("what is no Touchstone says where") {
    const auto refused = [](const std::string& text, const std::string& name = "") {
        const auto read = readTouchstone(text, name);
        return read ? std::string() : read.error().text();
    };
    CHECK_THAT(refused(""), Catch::Contains("no point"));
    CHECK_THAT(refused("# Hz S RI\n1 0.1\n", "a.s1p"), Catch::Contains("line 2"));
    CHECK_THAT(refused("# Hz Z RI\n1 0.1 0\n"), Catch::Contains("S-parameters"));
    CHECK_THAT(refused("[Version] 2.0\n"), Catch::Contains("version 2"));
    CHECK_THAT(refused("# Hz S RI R -5\n1 0 0\n"), Catch::Contains("R 50"));
    CHECK_THAT(refused("# Hz S RI\n1 0.1 zero\n"), Catch::Contains("zero"));
    CHECK_THAT(refused("# Hz S RI\n2 0.1 0\n1 0.1 0\n", "a.s1p"), Catch::Contains("rise"));
    CHECK_THAT(refused("# Hz S RI\n1 inf 0\n"), Catch::Contains("no number"));
}

TEST_CASE("what is written is read back the same") {
    Touchstone data{true, 75, {1e6, 2.5e6}, {{{0.1, -0.25}, {0.7, 1e-9}, {0.7, 0}, {1.0 / 3, 0}}, {}}, 0};
    const auto back = readTouchstone(writeTouchstone(data, "a filter"), "f.s2p").value();
    CHECK(back.ohms == Approx(75));
    CHECK(back.frequencies == data.frequencies);
    for (std::size_t i = 0; i < 2; ++i) {
        CHECK(back.points[i].s11 == data.points[i].s11);
        CHECK(back.points[i].s21 == data.points[i].s21);
        CHECK(back.points[i].s22 == data.points[i].s22);
    }
}
