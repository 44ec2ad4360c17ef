#include "core/coil/lay.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

using namespace ombrek;

namespace {
constexpr double degree = std::numbers::pi / 180;
}

TEST_CASE("a winding runs from pad to pad in its sense", "[lay]") {
    const WindingToLay coil{20, 200 * degree, 160 * degree};
    const auto right = layWindings({coil}, true, 8 * degree);
    CHECK(right[0].start == Approx(200 * degree));
    CHECK(right[0].sweep == Approx(320 * degree));
    CHECK_FALSE(right[0].crowded);
    // The other way round only 40° lie between the holes: twenty turns of 8° do not.
    const auto left = layWindings({coil}, false, 8 * degree);
    CHECK(left[0].sweep == Approx(-40 * degree));
    CHECK(left[0].crowded);
}

TEST_CASE("windings without pads share 330 degrees by their turns and do not overlap", "[lay]") {
    for (const bool clockwise : {true, false}) {
        const auto lay = layWindings({{20, {}, {}}, {3, {}, {}}, {4, {}, {}}}, clockwise, 6 * degree);
        double used = 0;
        for (std::size_t i = 0; i < lay.size(); ++i) {
            CHECK((lay[i].sweep > 0) == clockwise);
            if (i > 0) CHECK(std::fabs(lay[i].start - lay[i - 1].start) > std::fabs(lay[i - 1].sweep));
            used += std::fabs(lay[i].sweep);
        }
        CHECK(used < 330 * degree);
        CHECK(lay[0].sweep / lay[1].sweep == Approx(20.0 / 3));
    }
    CHECK(layWindings({{50, {}, {}}}, true, 8 * degree)[0].crowded);
}
