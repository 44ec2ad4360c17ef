#pragma once

#include <vector>

#include "desk/pieces/lines.h"
#include "judged/judged.h"

namespace ombrek {

/// What the Trimmer page shows of a tuned coil: what its trimmer covers, as it is or with turns that are only
/// tried.
struct TrimmerPageView {
    const Coil* coil = nullptr;  ///< null: none with a trimmer
    QString now, why;
    TrimmerCover cover;
    std::vector<Fact> facts, chance;
    QString chanceText;
};

/// @param more  turns tried, against what is on the core
TrimmerPageView trimmerPageView(const Kit& kit, const Build& build, const std::string& ref, int more);

/// The kit's coils that have a trimmer.
std::vector<const Coil*> tunedCoils(const Kit& kit);

}  // namespace ombrek
