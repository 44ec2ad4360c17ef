#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// A colour picture, eight bits a channel, red-green-blue, row by row without gaps.
struct Picture {
    int width = 0, height = 0;
    std::vector<std::uint8_t> rgb;
};

/// One wire found across the front of the ring.
struct WireMark {
    double angle = 0;       ///< around the ring, clockwise from the right [°]
    double x1 = 0, y1 = 0;  ///< at the hole [pixels of the picture given]
    double x2 = 0, y2 = 0;  ///< at the outer edge
    double agreement = 1;   ///< share of the looks that found it, 0 … 1
};

struct TurnCount {
    int count = 0;
    bool sure = false;            ///< the looks at several radii agree
    std::vector<WireMark> marks;  ///< clockwise
    std::string sentence;         ///< what was found, ready to be shown
    int width = 0, height = 0;    ///< of the picture
};

/// Largest picture that is looked at.
inline constexpr long kMostPixels = 60000000;

/// Count the turns of a ring coil in a picture taken from its front: every turn crosses the front once.
///
/// The ring is found against its background, unrolled between its hole and its edge, and the wires are
/// counted at several radii; where the looks do not agree the count is not sure. Works on pictures of a
/// single ring that fills a good part of the picture, tilted up to about 20°. Proven on drawn pictures only.
/// @return a Problem when there is no ring, or the picture is too large or too small
Result<TurnCount> countTurns(const Picture& picture);

}  // namespace ombrek
