#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/proof/readiness.h"
#include "judged/judged.h"
#include "kit/build.h"
#include "kit/kit.h"
#include "report/board_drawing.h"

namespace ombrek {

/// What the Board page shows, worked out from the book alone.
struct BoardView {
    const Step* step = nullptr;  ///< in hand; null when all are done
    std::string now, why;
    std::vector<Evidence> needs;  ///< of a hold point
    bool earned = true;
    std::vector<std::string> aheads;
    std::vector<KeepAhead> keeps;    ///< to lay aside for a later step
    std::vector<std::string> notIn;  ///< designators of this step that are not in yet
    std::string caution, note, remark, erratum;
    std::vector<std::string> tools;        ///< to lie ready
    std::vector<std::string> hot;          ///< heat-shy parts that sit close by and are in already
    std::vector<const Finding*> findings;  ///< open, at the parts of this step
    std::optional<Sitting> pause;          ///< that may still be counted

    struct Line {
        std::string id, text, right;
        VerdictState state = VerdictState::notDone;
        bool hold = false;
    };
    std::vector<Line> plan;

    std::vector<BoardPiece> pieces;  ///< every placed part
};

/// @param order  indices into kit.steps @param chosen  step id; empty: the next to do
BoardView boardView(const Judged& judged, const std::string& chosen);

/// Designators whose name or value fits what is typed, as one types it: "R14", "4k7", "100n".
std::vector<std::string> findParts(const Kit& kit, const std::string& typed);

}  // namespace ombrek
