#include <catch2/catch.hpp>
#include <cmath>
#include <cstdio>
#include <random>
#include <string>

#include "core/air/band_name.h"
#include "core/air/locator.h"

using namespace ombrek;

TEST_CASE("a locator names the middle of its square") {
    // IARU Region 1, VHF Managers Handbook, locator system (from memory): a field is 20° by 10°, a square 2° by
    // 1°, a subsquare 5' by 2.5', counted from 180° west and 90° south.
    const Place2d field = placeOfLocator("AA00").value();
    CHECK(field.longitude == Approx(-179));
    CHECK(field.latitude == Approx(-89.5));
    const Place2d middle = placeOfLocator("JJ00").value();
    CHECK(middle.longitude == Approx(1));
    CHECK(middle.latitude == Approx(0.5));
    const Place2d fine = placeOfLocator("JJ00aa").value();
    CHECK(fine.longitude == Approx(2.5 / 60));
    CHECK(fine.latitude == Approx(1.25 / 60));
    CHECK(fine.halfWidth == Approx(2.5 / 60));
    CHECK(placeOfLocator("jn58TD").value().latitude == Approx(placeOfLocator("JN58td").value().latitude));
    const Place2d finer = placeOfLocator("JN58td25").value();
    CHECK(finer.halfWidth == Approx(0.25 / 60));
    CHECK(std::abs(finer.longitude - placeOfLocator("JN58td").value().longitude) < 2.5 / 60);
}

TEST_CASE("a place's locator names a square it lies in") {
    std::mt19937 random(7);
    for (int i = 0; i < 2000; ++i) {
        const Place2d place{std::uniform_real_distribution(-90.0, 90.0)(random),
                            std::uniform_real_distribution(-180.0, 180.0)(random), 0, 0};
        for (const int pairs : {2, 3, 4, 5}) {
            const std::string locator = locatorOf(place, pairs);
            INFO(locator);
            const auto back = placeOfLocator(locator);
            REQUIRE(back);
            CHECK(std::abs(back->latitude - place.latitude) <= back->halfHeight * (1 + 1e-6));
            CHECK(std::abs(back->longitude - place.longitude) <= back->halfWidth * (1 + 1e-6));
        }
    }
}

TEST_CASE("what is no locator is refused with a sentence") {
    for (const char* wrong : {"", "A", "JN", "JN5", "JNAA", "SN58", "JZ00", "JN58ty", "JN58zz", "J158", "JN58td2",
                              "JN58td255a55", "  ", "JN 58", "日本", "JN58t\xff", "12AB"}) {
        INFO(wrong);
        REQUIRE_FALSE(placeOfLocator(wrong));
        CHECK(placeOfLocator(wrong).error().sentence.find("no locator") != std::string::npos);
    }
}

TEST_CASE("distances agree with GeographicLib's own tool") {
    // GeodSolve of Debian's geographiclib-tools: azimuth at the first point and distance [m].
    std::mt19937 random(11);
    const auto any = [&] {
        return Place2d{std::uniform_real_distribution(-88.0, 88.0)(random),
                       std::uniform_real_distribution(-180.0, 180.0)(random), 0, 0};
    };
    for (int i = 0; i < 40; ++i) {
        const Place2d a = any(), b = any();
        char command[300];
        std::snprintf(command, sizeof command, "LC_ALL=C GeodSolve -i --input-string '%.9f %.9f %.9f %.9f' 2>/dev/null",
                      a.latitude, a.longitude, b.latitude, b.longitude);
        FILE* pipe = popen(command, "r");
        REQUIRE(pipe != nullptr);
        double azimuth = 0, back = 0, metres = 0;
        const int read = std::fscanf(pipe, "%lf %lf %lf", &azimuth, &back, &metres);
        pclose(pipe);
        REQUIRE(read == 3);
        const GreatCircle way = greatCircle(a, b);
        CHECK(way.kilometres == Approx(metres / 1000).epsilon(1e-6));
        CHECK(way.bearing == Approx(std::fmod(azimuth + 360, 360)).margin(1e-3));
    }
}

TEST_CASE("distances agree with a sphere within its own error, and have no bearing to themselves") {
    // A sphere of 6371 km is off by up to 0.6 % (from memory: the earth's flattening is 1/298.26).
    const auto radians = [](double d) { return d * 3.14159265358979323846 / 180; };
    const Place2d a = placeOfLocator("JO62qm").value(), b = placeOfLocator("QF56").value();
    const double angle = std::acos(std::sin(radians(a.latitude)) * std::sin(radians(b.latitude)) +
                                   std::cos(radians(a.latitude)) * std::cos(radians(b.latitude)) *
                                       std::cos(radians(a.longitude - b.longitude)));
    CHECK(greatCircle(a, b).kilometres == Approx(6371 * angle).epsilon(0.006));
    CHECK(std::isnan(greatCircle(a, a).bearing));
    CHECK(greatCircle(a, a).kilometres == 0);
    // An azimuthal equidistant map keeps both.
    const MapPoint there = onMap(a, b);
    CHECK(std::hypot(there.east, there.north) == Approx(greatCircle(a, b).kilometres));
}

TEST_CASE("a frequency's band, and a band's middle") {
    CHECK(bandAt(7.031e6) == "40m");
    CHECK(bandAt(14.0e6) == "20m");
    CHECK(bandAt(27e6).empty());
    CHECK(bandAt(0).empty());
    CHECK(bandAt(NAN).empty());
    CHECK(bandAt(middleOfBand("2M")) == "2m");
    CHECK(middleOfBand("11m") == 0);
}
