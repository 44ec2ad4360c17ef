#pragma once

#include "core/frequency/dial.h"
#include "judged/judged.h"
#include "look/plot.h"
#include "station/proof/power_table.h"

namespace ombrek {

/// An adjuster's readings over its travel, the fitted curve, and where it should stand. Used on the Tune page
/// and in the report.
PlotData tunePlot(const Judged& judged, const Adjustment& adjustment);

/// The fundamental, each harmonic measured, the limit, and what the low-pass as built takes away at every
/// frequency.
PlotData spectrumPlot(const Kit& kit, const Build& build, const ProofState& proof,
                      const LimitProfile& profile, const std::string& band = "");

/// Power against the supply of one band: what was read, and the supply's square through it.
PlotData supplyPlot(const PowerTable& table, std::size_t band, const Ratings& rated);

/// The frequencies read over the knob's positions.
PlotData dialPlot(const std::vector<DialPoint>& points);

}  // namespace ombrek
