#pragma once

#include <string>
#include <vector>

#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// One adjuster's turn in a round.
struct RoundTurn {
    const Adjustment* adjustment = nullptr;
    double from = 0, to = 0;  ///< where it stood at the first and the last reading of the turn [travel]
    double reading = 0;       ///< the last [its unit]
    int readings = 0;
};

/// Once round adjusters that pull each other.
struct Round {
    std::vector<RoundTurn> turns;
    double gained = 0;  ///< against the round before; of peaks and nulls [dB], of what is set what it missed
                        ///< less [its unit]; the first has gained nothing
    double moved = 0;   ///< the furthest that one was turned, from where the round before left it [travel]
};

/// Those that an adjustment pulls and is pulled by, itself among them, in the kit's order.
std::vector<const Adjustment*> partnersOf(const Kit& kit, const Adjustment& a);

/// All rounds so far, from every reading since any of them was changed; a round ends when one that had its
/// turn comes again.
std::vector<Round> roundsOf(const Build& build, const std::vector<const Adjustment*>& together);

/// "Round 3 gained 0.2 dB; C5 moved 1.2 %."
std::string roundSentence(const std::vector<Round>& rounds, std::size_t at);

}  // namespace ombrek
