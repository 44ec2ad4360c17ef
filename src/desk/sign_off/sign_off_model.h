#pragma once

#include <vector>

#include "desk/pieces/lines.h"
#include "judged/judged.h"

namespace ombrek {

/// What the Sign-off page shows, worked out from the book alone.
struct SignOffView {
    const Gate* gate = nullptr;  ///< looked at; of judged.readiness()
    int row = 0;
    QString now, why;
    std::vector<Evidence>
        evidence;           ///< of the gate: what bars it first, then what was passed knowingly, the rest
    std::vector<Fact> fit;  ///< what the rig is fit for
};

/// @param chosen  id of a gate; another: the next that is not open, or the last
SignOffView signOffView(const Judged& judged, const std::string& chosen);

/// One evidence as a line of the list, and as facts on a card.
StateLine evidenceLine(const Evidence& evidence, bool current);
std::vector<Fact> evidenceFacts(const Evidence& evidence);

}  // namespace ombrek
