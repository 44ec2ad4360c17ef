#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/quantity/quantity.h"

namespace ombrek {

/// What a meter shows: a number, or that it is beyond what it can show.
struct Shown {
    double value = 0;     ///< SI; infinite for a bare overload
    bool beyond = false;  ///< the true value is `value` or more
};

/// A reading as a person types it from a display: "4k7", "OL", "inf", "open", ">20M", "no beep", "9.9E37".
///
/// A bare number is taken with the usual prefix of the unit that brings it nearest to what is wanted, as it
/// stands on the display: 47 at a 47 µF part is 47 µF. What no meter can show (see `impossible`) is a
/// Problem. "No beep" says no more than that the resistance is over the beeper's threshold, 50 Ω (common
/// practice).
/// @param wanted  about what is expected [SI]; 0: not known, and a bare number is in the unit itself
Result<Shown> parseShown(std::string_view text, Unit unit, double wanted = 0);

/// "47 µF", "over 20 MΩ", "open".
std::string shownText(const Shown& shown, Unit unit, int figures = 6);

/// Why no bench instrument can show this value, as a sentence; nothing when it can. Infinity is an overload
/// and possible where a meter has one.
std::optional<std::string> impossible(double value, Unit unit);

/// What SCPI instruments send for an overload, and how one is kept in a file. Source: SCPI-1999, vol.
/// 1, 7.2.1.4.
inline constexpr double kOverload = 9.9e37;

}  // namespace ombrek
