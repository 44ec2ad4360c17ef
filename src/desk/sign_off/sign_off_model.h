#pragma once

#include <vector>

#include "desk/pieces/lines.h"
#include "station/judged.h"

namespace ombrek {

/// What the Sign-off page shows, worked out from the book alone.
struct SignOffView {
    const Gate* gate = nullptr;  ///< looked at; of judged.readiness()
    int row = 0;
    QString now, why;
    std::vector<Evidence> evidence;  ///< of the gate: what is wrong first, then what is open, then the rest
    std::size_t more = 0;            ///< that found no room
    std::vector<Fact> report;
};

/// @param chosen  id of a gate; another: the next that is not open, or the last
SignOffView signOffView(const Judged& judged, const std::string& chosen);

}  // namespace ombrek
