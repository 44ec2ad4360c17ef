#include <catch2/catch.hpp>
#include <cmath>

#include "core/quantity/earned.h"

using namespace ombrek;

TEST_CASE("a value has the digits that its uncertainty earns") {
    // JCGM 100:2008, 7.2.6: at most two significant digits of an uncertainty; the estimate ends where it ends.
    CHECK(earnedText(5.01987, 0.0274, Unit::volt) == "5.020\u202fV ± 0.027\u202fV");
    CHECK(earnedText(3.1284, 0.4812, Unit::watt) == "3.13\u202fW ± 0.48\u202fW");
    CHECK(earnedText(0.0001452, 0.0000021, Unit::henry) == "145.2\u202fµH ± 2.1\u202fµH");
    CHECK(earnedText(56.42, 1.2, Unit::decibel) == "56.4\u202fdB ± 1.2\u202fdB");
    CHECK(earnedText(21.059922e6, 27, Unit::hertz) == "21.059922\u202fMHz ± 27\u202fHz");
    CHECK(earnedText(1e-8, 230e-6, Unit::volt) == "0\u202fµV ± 230\u202fµV");
    CHECK(earnedText(999.97, 0.5, Unit::ohm) == "999.97\u202fΩ ± 0.50\u202fΩ");
    CHECK(earnedText(4700, 0, Unit::ohm) == "4.700\u202fkΩ");
    CHECK(earnedText(-0.05, 0.004, Unit::volt) == "-50.0\u202fmV ± 4.0\u202fmV");
}

TEST_CASE("absurd uncertainties do no harm") {
    for (const double u : {1e-30, 1e30, double(NAN), double(INFINITY), -1.0}) {
        CHECK_FALSE(earnedText(5, u, Unit::volt).empty());
        CHECK_FALSE(earnedText(NAN, u, Unit::volt).empty());
        CHECK_FALSE(earnedText(0, u, Unit::none).empty());
    }
}
