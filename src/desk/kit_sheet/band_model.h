#pragma once

#include <QString>
#include <vector>

#include "desk/pieces/lines.h"
#include "look/plot.h"
#include "station/rebuild.h"

namespace ombrek {

/// What the page of a band that was not supplied shows.
struct BandView {
    QString now, why;
    std::vector<StateLine> elements;  ///< what it was and what it becomes, the low-pass first
    QString text;                     ///< what is to be made again, doubts first
    QString caution;                  ///< what must be proved before it goes on the air
    PlotData plot;                    ///< of the low-pass before and after
    bool plotted = false;             ///< the kit has a low-pass
};
/// What Another band shows. @param prototype  the low-pass is drawn anew
BandView bandView(const Rebuilt& rebuilt, bool prototype);

/// "3.5 to 3.8 MHz", as a variant is called.
std::string bandName(const Band& band);

}  // namespace ombrek
