#pragma once

#include <vector>

#include "desk/pieces/lines.h"
#include "judged/judged.h"
#include "report/board_drawing.h"
#include "station/board/loupe.h"

namespace ombrek {

/// What is gone through under the loupe.
enum class LoupePass { joints, senses, all };

/// What the Loupe page shows, worked out from the book alone.
struct LoupeView {
    std::vector<const Part*> parts;  ///< still to be looked at in this pass
    std::size_t at = 0;              ///< the one in hand
    QString now, why, title;
    std::vector<StateLine> lines;
    BoardDrawing drawing;

    const Part* part() const { return parts.empty() ? nullptr : parts[at]; }
};

/// @param at  the part in hand, brought into what there is
LoupeView loupeView(const Judged& judged, LoupePass pass, std::size_t at);

}  // namespace ombrek
