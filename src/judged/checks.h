#pragma once

#include "judged/judged.h"

namespace ombrek {

/// Where to look when a check is off, of what is known without a circuit: its feed first when that is off or
/// not read, else between the feed and here. Empty when the kit does not say how it is fed.
std::string upstreamAdvice(const Judged& judged, const Check& check);

/// The next check to make: a gate that was read and does not pass, else the first that was not read, else the
/// first that was read and does not pass; null when every check passes.
const Check* nextCheck(const Judged& judged);

/// The gate check that bars the way to `check`, or null: it comes earlier and does not pass.
/// @param check  one of the kit's
const Check* barredBy(const Judged& judged, const Check& check);

}  // namespace ombrek
