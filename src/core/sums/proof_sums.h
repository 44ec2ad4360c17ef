#pragma once

#include <string>
#include <vector>

#include "core/sums/sums.h"

namespace ombrek {

/// What is asked at an antenna socket: "10 dB pad", "20 dB T pad 75 ohm 5 W E96", "40 dB tap 5 W", "SWR 1.5",
/// "bridge 1.2 V 0.15 V" (open, then with the load), "heat 13.8 V 0.8 A 5 W", "key down 22 30 s 45 60 s 58
/// 80" (room, two times with their temperatures, the limit). Empty: it is none of these.
std::vector<SumAnswer> proofSums(const std::string& text);

}  // namespace ombrek
