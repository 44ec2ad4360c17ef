#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/verdict.h"

namespace ombrek {

/// How much better the rig hears one signal than a receiver one trusts.
struct HeardDifference {
    double decibels = 0;  ///< the rig's level less the other's
    double spread = 0;    ///< how well that is known, a standard deviation [dB]
};

/// What a builder says of one comparison: "equal", "weaker", "much weaker", "stronger", "not heard"; two
/// S-meters, mine first, "S5 S7" (6 dB a step, IARU Region 1 recommendation R.1); two levels, "-73 -70 dBm";
/// or a difference, "-6 dB". By ear: equal is within 2 dB, weaker about 6, much weaker about 12 (common
/// practice). @return nothing for what is none of it
std::optional<HeardDifference> readComparison(std::string_view text);

/// All comparisons together.
struct ReceiveVerdict {
    VerdictState state = VerdictState::notDone;
    double mean = 0, uncertainty = 0;  ///< of the difference, U = 2u [dB]
    std::string sentence, remedy;
};

/// On signals that come and go each comparison is one draw: three at least are wanted, and their own scatter
/// counts. Within 3 dB is alike; more than that worse, beyond the uncertainty, is weaker.
ReceiveVerdict judgeReceive(const std::vector<HeardDifference>& comparisons);

}  // namespace ombrek
