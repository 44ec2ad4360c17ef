#pragma once

#include "look/plot.h"
#include "station/judged.h"

namespace ombrek {

/// An adjuster's readings over its travel, the fitted curve, and where it should stand. Used on the Tune page
/// and in the report.
PlotData tunePlot(const Judged& judged, const Adjustment& adjustment);

/// The fundamental, each harmonic measured, the limit, and what the low-pass as built takes away at every
/// frequency.
PlotData spectrumPlot(const Kit& kit, const Build& build, const ProofState& proof,
                      const LimitProfile& profile, const std::string& band = "");

}  // namespace ombrek
