#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/proof/less_power.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

class Judged;

/// What the book knows of a band's power that is less than promised, with what the builder says beside it.
/// @param said  as `readPowerWords` understands it
PowerFacts powerFacts(const Judged& judged, const std::string& band, std::string_view said);

/// What the builder looked at, in any order: "swr 1.8, drive 70 %, jumps yes, key up 13.9 V, other 2.4 W,
/// warm 2 of 3, idle 80 %, gain 0.5 dB, voice". @param kit  for what a ratio is against
/// @return a Problem at the first thing that is not understood
Result<PowerFacts> readPowerWords(const Kit& kit, const std::string& band, std::string_view said);

/// The fact whose answer would change the ranking most, as a question to the builder; empty where none would.
std::string whatToLookAt(const PowerFacts& facts);

}  // namespace ombrek
