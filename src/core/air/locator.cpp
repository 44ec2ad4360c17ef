#include "core/air/locator.h"

#include <GeographicLib/Geodesic.hpp>
#include <cctype>
#include <cmath>
#include <numbers>

namespace ombrek {
namespace {

/// How a pair divides what the pair before left: by so many, in letters or digits.
struct Pair {
    int parts;
    char first;
};
constexpr Pair kPairs[] = {{18, 'A'}, {10, '0'}, {24, 'A'}, {10, '0'}, {24, 'A'}};
constexpr std::size_t kMostPairs = std::size(kPairs);

double radians(double degrees) { return degrees * std::numbers::pi / 180; }

/// From the middle of a square to its corner [km].
double reachOf(const Place2d& place) {
    constexpr double kDegree = 111.2;  // [km]
    return std::hypot(place.halfHeight, place.halfWidth * std::cos(radians(place.latitude))) * kDegree;
}

}  // namespace

Result<Place2d> placeOfLocator(std::string_view locator) {
    const auto wrong = [&] {
        return problem("locator", "\"" + std::string(locator.substr(0, 20)) +
                                      "\" is no locator: two letters A to R, two digits, then two letters A "
                                      "to X, as AB12cd.");
    };
    if (locator.size() < 4 || locator.size() > 2 * kMostPairs || locator.size() % 2 != 0) return wrong();
    double width = 360, height = 180;
    Place2d out{-90, -180, 0, 0};
    for (std::size_t i = 0; i < locator.size() / 2; ++i) {
        const auto [parts, first] = kPairs[i];
        const auto digit = [first = first](char c) {
            return std::toupper(static_cast<unsigned char>(c)) - first;
        };
        const int east = digit(locator[2 * i]), north = digit(locator[2 * i + 1]);
        if (east < 0 || east >= parts || north < 0 || north >= parts) return wrong();
        width /= parts;
        height /= parts;
        out.longitude += east * width;
        out.latitude += north * height;
    }
    out.halfWidth = width / 2;
    out.halfHeight = height / 2;
    out.longitude += out.halfWidth;
    out.latitude += out.halfHeight;
    return out;
}

std::string locatorOf(const Place2d& place, int pairs) {
    double east = std::fmod(std::fmod(place.longitude + 180, 360) + 360, 360);
    double north = std::min(std::max(place.latitude + 90, 0.0), 180 - 1e-9);
    double width = 360, height = 180;
    std::string out;
    for (int i = 0; i < pairs; ++i) {
        const auto [parts, first] = kPairs[i];
        width /= parts;
        height /= parts;
        const auto step = [parts = parts](double& left, double size) {
            const int n = std::min(int(left / size), parts - 1);
            left -= n * size;
            return n;
        };
        out += char(first + step(east, width));
        out += char(first + step(north, height));
    }
    return tidyLocator(out);
}

std::string tidyLocator(std::string_view locator) {
    std::string out(locator);
    for (std::size_t i = 0; i < out.size(); ++i) {
        const auto c = static_cast<unsigned char>(out[i]);
        out[i] = char(i >= 4 ? std::tolower(c) : std::toupper(c));
    }
    return out;
}

GreatCircle greatCircle(const Place2d& from, const Place2d& to) {
    double metres = 0, there = 0, back = 0;
    GeographicLib::Geodesic::WGS84().Inverse(from.latitude, from.longitude, to.latitude, to.longitude, metres,
                                             there, back);
    GreatCircle out{metres / 1000, std::fmod(there + 360, 360), reachOf(from) + reachOf(to)};
    if (metres < 1e-3) out.bearing = NAN;
    return out;
}

MapPoint onMap(const Place2d& middle, const Place2d& place) {
    const GreatCircle way = greatCircle(middle, place);
    if (std::isnan(way.bearing)) return {};
    return {way.kilometres * std::sin(radians(way.bearing)), way.kilometres * std::cos(radians(way.bearing))};
}

}  // namespace ombrek
