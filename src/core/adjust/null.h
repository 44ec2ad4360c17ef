#pragma once

#include <string>
#include <vector>

#include "core/adjust/peak.h"

namespace ombrek {

/// What the readings say about where the null is: the lowest reading, a carrier or a reflected power.
struct NullEstimate {
    double position = 0.5;      ///< of the lowest reading so far, 0 … 1
    double nextPosition = 0.5;  ///< where to read next, 0 … 1
    double reading = 0;         ///< the lowest
    VerdictState state = VerdictState::notDone;
    std::string sentence;
};

/// How near on both sides a null must be shown to be one [travel].
inline constexpr double kNullWidth = 0.05;

/// Where an adjuster nulls, from readings of any shape that falls to one place and rises from it. It is
/// settled (pass) when the adjuster *stands* at the lowest reading and both neighbours, at most 5 % of the
/// travel away, read more; lowest at an end of the travel is an end stop: the null lies beyond it. Until then
/// the wider side of the lowest reading is halved. Source: bracketing of a minimum, any numerical text; the
/// width is common practice.
/// @param readings  oldest first, so that the adjuster stands where the last was taken
NullEstimate estimateNull(const std::vector<AdjusterReading>& readings);

}  // namespace ombrek
