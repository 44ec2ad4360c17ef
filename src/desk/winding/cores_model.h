#pragma once

#include <vector>

#include "desk/pieces/lines.h"
#include "formats/core_clues.h"
#include "judged/judged.h"

namespace ombrek {

/// What the Cores page shows: other cores for a coil, or what an unknown ring may be.
struct CoresView {
    QString now, why;
    QString title;         ///< of the line in hand
    QString number, unit;  ///< its turns, or its odds; without a unit it is a word
    QString text;
    std::vector<StateLine> lines;
    std::size_t at = 0;  ///< brought into what there is
};

/// @param atHand  cores of the drawers; empty: the whole table is offered
CoresView otherCoresView(const Kit& kit, const Coil& coil, const std::vector<MagneticCore>& atHand,
                         const std::vector<MagneticCore>& table, std::size_t at);
/// @param typed  the clues as they were typed
CoresView whichCoreView(const CoreClues& clues, const QString& typed, const std::vector<MagneticCore>& table,
                        std::size_t at);
/// A coil that is on no ring of the table, or none.
CoresView noRingView();

}  // namespace ombrek
