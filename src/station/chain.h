#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/proof/arrives.h"
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

}  // namespace ombrek
