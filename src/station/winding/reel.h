#pragma once

#include <string>
#include <vector>

#include "core/quantity/verdict.h"
#include "kit/stock.h"
#include "station/winding/winding.h"

namespace ombrek {

/// What a kit takes off one kind of wire, and what the drawers hold of it.
struct ReelUse {
    std::string wire;                            ///< as the kit names it, "28AWG"
    double wanted = 0;                           ///< to cut [m]
    double atHand = 0;                           ///< on all reels in the drawers [m]
    std::string drawers;                         ///< where they lie, "W1, W2"
    VerdictState state = VerdictState::notDone;  ///< pass: enough; fail: too short; not done: no reel known
    std::string sentence;                        ///< "28AWG: 2.9 m of 12 m in W1."
};

/// Wire totals of a cut list against the reels in stock.
///
/// A reel is a stock line whose description names a wire and a length: "enamelled wire 28AWG, 12 m". Wires
/// count as the same when their bare diameters differ by less than 3 %, half the step of a gauge.
std::vector<ReelUse> reelUse(const CutList& list, const std::vector<StockLine>& stock);

}  // namespace ombrek
