#pragma once

#include <vector>

#include "desk/pieces/lines.h"
#include "look/plot.h"
#include "station/winding/coil_figures.h"

namespace ombrek {

/// What the Figures page shows of a coil as it is thought of.
struct FiguresView {
    bool known = false;  ///< a coil is chosen
    QString now, why;
    QString number, unit;  ///< the inductance
    QString band, title, text;
    std::vector<Fact> facts;
    PlotData curve;  ///< inductance over turns, with what is wanted and where one stands
};

/// @param ref      of the coil that the idea began with
/// @param changed  it is not as the kit has it
FiguresView figuresView(const CoilIdea& idea, const QString& ref, bool changed);

}  // namespace ombrek
