#pragma once

#include <optional>
#include <string>
#include <vector>

#include "judged/judged.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// What the Proof page shows, worked out from the book alone.
struct ProofView {
    ProofState proof;
    struct Item {
        Subject subject;
        std::string name;
        Unit unit = Unit::none;
        std::string text;  ///< what was measured
        VerdictState state = VerdictState::notDone;
    };
    std::vector<Item> items;  ///< in the order of measuring
    std::size_t inHand = 0;
    bool finished = false;  ///< everything measured and nothing chosen
    std::string now, why;
};

/// @param chosen  nothing: the first not measured @param method  power method in use @param band  of a rig
/// with several
ProofView proofView(const Judged& judged, const std::optional<Subject>& chosen, const PowerMethod& method,
                    const std::string& band = "");
/// The first band on which something is not measured yet; the first of all when nothing is left.
std::string bandToProve(const Judged& judged);

}  // namespace ombrek
