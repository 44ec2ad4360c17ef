#pragma once

#include <string>
#include <vector>

#include "core/frequency/pchip.h"

namespace ombrek {

/// A frequency that was read with the knob at a position.
struct DialPoint {
    double position = 0;   ///< in whatever the knob is read in: degrees, turns, millimetres
    double frequency = 0;  ///< [Hz]
};

/// How a dial is to be drawn.
struct DialShape {
    bool round = true;
    double size = 60;  ///< diameter of the ring of marks, or length of the straight scale [mm]
    double sweep =
        180;  ///< that the positions from first to last go over, round [degrees]; 0: positions are degrees
    double travel = 0;  ///< positions are shares of a whole travel of this, 1 or 100, and the sweep or the
                        ///< scale is all of it; 0: it goes from the first to the last position
    bool mirrored = false;  ///< drawn for the inside of a window; the marks' places stay
};

struct DialMark {
    double frequency = 0;  ///< [Hz]
    double place = 0;      ///< the knob's own angle, clockwise [degrees], or from the scale's left end [mm]
    bool major = false;
    std::string label;  ///< of a major mark, "7.05"
};

struct Dial {
    DialShape shape;
    std::vector<DialMark> marks;  ///< by rising place
    double low = 0, high = 0;     ///< frequencies that are reached [Hz]
    double from = 0, to = 0;      ///< places of the scale's ends
    double major = 0, minor = 0;  ///< steps [Hz]
};

/// Marks at round frequencies, about ten major ones, on the curve through the points.
/// @return a Problem when the points are too few or the frequency turns back
Result<Dial> dialOf(const std::vector<DialPoint>& points, const DialShape& shape);

/// A few marks of it, to hold it against the rig afterwards.
std::vector<DialMark> toCheck(const Dial& dial);

}  // namespace ombrek
