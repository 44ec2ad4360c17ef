#pragma once

#include <string>
#include <string_view>

#include "core/quantity/problem.h"

namespace ombrek {

/// A place on the earth, or the middle of a square on it.
struct Place2d {
    double latitude = 0, longitude = 0;    ///< WGS 84 [°], north and east positive
    double halfHeight = 0, halfWidth = 0;  ///< of the square that was said [°]; 0: a point
};

/// The middle of the square that a locator names: field, square, subsquare and finer, two characters each,
/// letters and digits in turn; 4 to 10 characters, upper or lower case.
/// Source: IARU Region 1, VHF Managers Handbook, locator system. @return a Problem for what is none
Result<Place2d> placeOfLocator(std::string_view locator);

/// The locator of a place. @param pairs  2: "AB12", 3: "AB12cd", … 5
std::string locatorOf(const Place2d& place, int pairs = 3);

/// As it is written: "AB12cd". @pre it is one
std::string tidyLocator(std::string_view locator);

/// The shortest way between two places over the earth (WGS 84, by GeographicLib).
struct GreatCircle {
    double kilometres = 0;
    double bearing = 0;  ///< at the first place, from true north over east, 0 … 360 [°]; NaN: no way to go
    double within = 0;   ///< how far both squares let the ends lie from their middles, together [km]
};
/// The shortest way over the WGS 84 ellipsoid: distance [m] and bearing [degrees]. Source: GeographicLib.
GreatCircle greatCircle(const Place2d& from, const Place2d& to);

/// A place as seen from another on an azimuthal equidistant map about it: east and north [km].
struct MapPoint {
    double east = 0, north = 0;
};
/// Where a place stands on an azimuthal map about the middle.
MapPoint onMap(const Place2d& middle, const Place2d& place);

}  // namespace ombrek
