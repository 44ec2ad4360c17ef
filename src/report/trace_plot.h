#pragma once

#include <vector>

#include "core/proof/spectrum.h"
#include "look/plot.h"

namespace ombrek {

/// A part of a trace with its peaks named, the limit and the noise. However many points it has, so many are
/// drawn as there is room for: the highest of each stretch.
/// @param points  by rising frequency @param low, high  what is to be seen [Hz]
PlotData tracePlot(const std::vector<TracePoint>& points, const Spectrum& spectrum, double low, double high,
                   int inHand);

}  // namespace ombrek
