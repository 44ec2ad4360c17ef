#pragma once

#include <optional>
#include <vector>

namespace ombrek {

/// A winding that is to be laid on a ring. Angles are clockwise from the top, seen from the parts side [rad].
struct WindingToLay {
    int turns = 0;
    std::optional<double> start, finish;  ///< towards the pads of its two tails; both or none
};

/// Where a winding lies: it begins at `start` and runs over `sweep`, negative when counter-clockwise.
struct LaidWinding {
    double start = 0, sweep = 0;
    bool crowded = false;  ///< its turns do not lie side by side between its pads: the tails would cross
};

/// How windings lie on a ring that is wound in one sense.
///
/// A winding with pads runs from the one to the other in the sense wanted. Those without pads share 330°
/// by their turns, one after the other, from 210° on.
/// @param pitch  angle of one turn, wire touching wire at the hole [rad]
std::vector<LaidWinding> layWindings(const std::vector<WindingToLay>& windings, bool clockwise, double pitch);

}  // namespace ombrek
