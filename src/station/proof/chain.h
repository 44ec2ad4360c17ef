#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/proof/arrives.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// What stands behind the socket as a builder writes it, one thing after the other: "30 dB pad 2 W, analyser
/// +20 dBm", "dummy load 20 W", "wattmeter 10 W", "probe 50 V".
///
/// A decibel is its attenuation; watts are what it takes, of a meter where its scale ends; dBm and volts are
/// the limit of its input; a J what it takes at once.
/// @return a Problem for a figure that is none, or nothing at all
Result<std::vector<Link>> parseChain(std::string_view text);

/// The most that may leave the socket: what is promised at the most, or was read, at the supply in use.
/// @return NaN where the kit promises nothing and nothing was read
double mostPower(const Kit& kit, const std::string& band, double readWatts, double supply);

/// The most that was ever read on any band, with its error, as it would be at this supply [W]; NaN: nothing
/// was.
double mostRead(const Kit& kit, const Build& build, double supply);

/// What arrives where with the key down on a band at a supply. @param chain  as `parseChain` reads it; cannot
/// tell where it says nothing
KeyDownAsk whatArrives(const Kit& kit, const Build& build, const std::string& band, double supply,
                       std::string_view chain);

}  // namespace ombrek
