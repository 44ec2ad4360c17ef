#pragma once

#include <optional>
#include <string>
#include <vector>

#include "kit/build.h"
#include "kit/kit.h"
#include "station/winding/winding.h"

namespace ombrek {

/// What the Winding page shows, worked out from the book alone.
struct WindingView {
    const Coil* coil = nullptr;
    using Stage = CoilStage;
    Stage stage = Stage::cut;
    std::optional<std::size_t> inHand;  ///< winding being wound
    int turns = 0, wanted = 0;          ///< of the winding in hand, or the first
    std::string now, why;
    std::string tens;  ///< "one ten and eight"
    struct Fact {
        std::string name, value;
        std::optional<VerdictState> state;
    };
    std::vector<Fact> facts;
    std::string note, caution;
    Verdict verdict;  ///< of the measured inductance
    std::optional<TrimAdvice> advice;
    std::optional<TrimmerCover> cover;
    std::vector<LaidWinding> lay;        ///< of each winding, seen from the parts side
    std::vector<int> seen;               ///< counts as they look from outside
    std::optional<std::size_t> toProve;  ///< winding whose continuity is proved next

    struct CoilLine {
        std::string ref, text, right;
        VerdictState state = VerdictState::notDone;
    };
    std::vector<CoilLine> coils;
};

/// @param chosen  designator; empty: the next coil to wind or measure, or the last one
WindingView windingView(const Kit& kit, const Build& build, const std::string& chosen);

/// A count as counted on the bench, by tens: 18 → "one ten and eight".
std::string tensOf(int turns);

}  // namespace ombrek
