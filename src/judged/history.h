#pragma once

#include <string>
#include <vector>

#include "judged/judged.h"
#include "kit/subject.h"

namespace ombrek {

/// One thing that happened to a build.
struct HistoryLine {
    std::int64_t at = 0;                         ///< seconds since 1970, UTC
    Station station = Station::none;             ///< where it happened
    std::string what;                            ///< "T1 antenna transformer"
    std::string text;                            ///< "read 1.45 µH, L/C meter"
    VerdictState state = VerdictState::notDone;  ///< of a step, a gate, a finding, the reading that counts
                                                 ///< now; other readings: not done
    bool retired = false;  ///< a reading of something that was changed since, or of what rests on it
};

/// Every reading, change, repair, step, gate, finding, look under the loupe, photograph and sitting, newest
/// first. Nothing is left out because it does not hold any more.
std::vector<HistoryLine> history(const Judged& judged);

}  // namespace ombrek
