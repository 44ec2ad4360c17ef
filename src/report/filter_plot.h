#pragma once

#include <vector>

#include "core/proof/as_measured.h"
#include "core/proof/low_pass.h"
#include "look/plot.h"

namespace ombrek {

/// What a filter lets through over the frequency: as built, with what its parts' errors make of it, with a
/// coil bent, and as it was measured. Each may be empty but the first.
PlotData filterPlot(const std::vector<FilterPart>& built, const FilterQuestion& question,
                    const FilterBand& band, const std::vector<LadderElement>& bent,
                    const std::vector<FilterPoint>& measured);

}  // namespace ombrek
