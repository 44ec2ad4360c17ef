#include "core/quantity/preferred.h"

#include <algorithm>
#include <stdexcept>

using namespace ombrek;

TEST_CASE("the preferred series are those of IEC 60063", "[reference]") {
    // Source: IEC 60063, tables of E6, E12, E24, E48 and E96.
    CHECK(decadeOf(Series::e3) == std::vector<int>{100, 220, 470});
    CHECK(decadeOf(Series::e6) == std::vector<int>{100, 150, 220, 330, 470, 680});
    CHECK(decadeOf(Series::e12) ==
          std::vector<int>{100, 120, 150, 180, 220, 270, 330, 390, 470, 560, 680, 820});
    CHECK(decadeOf(Series::e24) == std::vector<int>{100, 110, 120, 130, 150, 160, 180, 200,
                                                    220, 240, 270, 300, 330, 360, 390, 430,
                                                    470, 510, 560, 620, 680, 750, 820, 910});
    CHECK(decadeOf(Series::e48) ==
          std::vector<int>{100, 105, 110, 115, 121, 127, 133, 140, 147, 154, 162, 169, 178, 187, 196, 205,
                           215, 226, 237, 249, 261, 274, 287, 301, 316, 332, 348, 365, 383, 402, 422, 442,
                           464, 487, 511, 536, 562, 590, 619, 649, 681, 715, 750, 787, 825, 866, 909, 953});
    CHECK(decadeOf(Series::e96) ==
          std::vector<int>{100, 102, 105, 107, 110, 113, 115, 118, 121, 124, 127, 130, 133, 137, 140, 143,
                           147, 150, 154, 158, 162, 165, 169, 174, 178, 182, 187, 191, 196, 200, 205, 210,
                           215, 221, 226, 232, 237, 243, 249, 255, 261, 267, 274, 280, 287, 294, 301, 309,
                           316, 324, 332, 340, 348, 357, 365, 374, 383, 392, 402, 412, 422, 432, 442, 453,
                           464, 475, 487, 499, 511, 523, 536, 549, 562, 576, 590, 604, 619, 634, 649, 665,
                           681, 698, 715, 732, 750, 768, 787, 806, 825, 845, 866, 887, 909, 931, 953, 976});
}

TEST_CASE("E192 has 920, not 919", "[reference]") {
    // Source: IEC 60063: the one value that is not the rounded power.
    const auto series = decadeOf(Series::e192);
    CHECK(series.size() == 192);
    CHECK(std::count(series.begin(), series.end(), 920) == 1);
    CHECK(std::count(series.begin(), series.end(), 919) == 0);
    CHECK(std::is_sorted(series.begin(), series.end()));
}

TEST_CASE("the nearest preferred value is nearest by ratio, over decades") {
    CHECK(nearestPreferred(990, Series::e24) == Approx(1000));
    CHECK(nearestPreferred(98.4e3, Series::e12) == Approx(100e3));
    CHECK(nearestPreferred(33.2e-9, Series::e6) == Approx(33e-9));
    CHECK(nearestPreferred(9.9e-12, Series::e6) == Approx(10e-12));
    CHECK(nearestPreferred(1.0, Series::e3) == Approx(1.0));
    CHECK_THROWS_AS(nearestPreferred(0, Series::e24), std::domain_error);
    CHECK_THROWS_AS(nearestPreferred(-1, Series::e24), std::domain_error);
}

TEST_CASE("membership of a series") {
    CHECK(isPreferred(4700, Series::e12));
    CHECK_FALSE(isPreferred(4800, Series::e24));
    CHECK(isPreferred(49.9, Series::e96));
    CHECK_FALSE(isPreferred(-4700, Series::e12));
}
