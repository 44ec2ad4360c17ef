#pragma once

#include <string>
#include <vector>

#include "kit/build.h"
#include "kit/kit.h"
#include "station/judged.h"

namespace ombrek {

/// What the Proof page shows, worked out from the book alone.
struct ProofView {
    ProofState proof;
    struct Item {
        std::string subject;  ///< "proof:power"
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

/// @param chosen  subject; empty: the first not measured @param method  power method in use
ProofView proofView(const Judged& judged, const std::string& chosen, const PowerMethod& method);

}  // namespace ombrek
