#pragma once

#include <string>
#include <vector>

#include "core/proof/readiness.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// What the Board page shows, worked out from the book alone.
struct BoardView {
    const Step* step = nullptr;  ///< in hand; null when all are done
    std::string now, why;
    std::vector<Evidence> needs;  ///< of a hold point
    bool earned = true;
    std::vector<std::string> aheads;
    std::vector<std::string> notIn;  ///< designators of this step that are not in yet
    std::string caution, note, remark;

    struct Line {
        std::string id, text, right;
        VerdictState state = VerdictState::notDone;
        bool hold = false;
    };
    std::vector<Line> plan;

    enum class Fitting { waits, now, in };
    struct Piece {
        const Part* part = nullptr;
        Fitting fitting = Fitting::waits;
    };
    std::vector<Piece> pieces;  ///< every placed part
};

/// @param order  indices into kit.steps @param chosen  step id; empty: the next to do
BoardView boardView(const Kit& kit, const Build& build, const std::vector<std::size_t>& order,
                    const std::string& chosen);

}  // namespace ombrek
