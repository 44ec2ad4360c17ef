#pragma once

#include "kit/build.h"
#include "kit/kit.h"
#include "kit/proof.h"
#include "look/plot.h"

namespace ombrek {

/// An adjuster's readings over its travel, the fitted curve, and where it should stand. Used on the Tune page and in the report.
PlotData tunePlot(const Kit& kit, const Adjustment& adjustment, const Build& build);

/// Each harmonic below the fundamental, and the limit.
PlotData harmonicsPlot(const Kit& kit, const ProofState& proof, const LimitProfile& profile);

}  // namespace ombrek
