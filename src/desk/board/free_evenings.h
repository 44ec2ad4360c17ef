#pragma once

#include <QString>
#include <vector>

#include "core/plan/schedule.h"
#include "core/quantity/problem.h"

namespace ombrek {

/// Evenings of the coming weeks from a week's pattern: "Tue Thu 20:00 2h, Sat 14:00 3h". Local time, so that
/// an evening keeps its hour over a change of the clocks.
/// @param now  seconds since 1970 @param weeks  to look ahead
/// @return rising by time, or a sentence on what is not understood
Result<std::vector<FreeTime>> freeEvenings(const QString& pattern, std::int64_t now, int weeks);

}  // namespace ombrek
