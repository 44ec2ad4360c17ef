#pragma once

#include <string>
#include <vector>

#include "core/proof/low_pass.h"

namespace ombrek {

/// A point of a filter as an analyser saw it: sizes alone, since cables turn the phase.
struct FilterPoint {
    double frequency = 0;  ///< [Hz]
    double through = 0;    ///< |S21|
    double back = NAN;     ///< |S11|; NaN: not measured
};

/// What the difference between a filter and its measured curve may be.
struct FilterStory {
    std::string ref;             ///< the part; empty: all parts as they should be
    std::string what;            ///< "a turn too many", "10 times its value", "as it should be"
    double odds = 0;             ///< all stories together 1
    double apart = 0;            ///< r.m.s. distance of its curve [dB]
    std::vector<double> fitted;  ///< values of all parts that fit best under it [SI]
};

/// Each part wrong in its usual ways (a turn more or less, two; ten times, a tenth; the neighbours of E6;
/// missing), and none, all other values fitted within what is known of them; ranked by their odds.
/// @param turns  of each coil by part; 0: not known, or no coil
/// Least squares with the parts' spread as a prior (Gauss–Newton), noise 0.02 of full scale and 0.5 dB
/// (common practice of small analysers).
std::vector<FilterStory> storiesOf(const std::vector<FilterPart>& filter, const std::vector<int>& turns,
                                   const std::vector<FilterPoint>& points, double source, double load);

}  // namespace ombrek
