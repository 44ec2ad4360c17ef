#pragma once

#include <string>

#include "core/quantity/quantity.h"

namespace ombrek {

/// A value with as many digits as its uncertainty earns: "5.020 V ± 0.027 V". The uncertainty has two digits
/// (JCGM 100, 7.2.6), the value ends where they end; without one it has four.
/// @param uncertainty  U = 2u [same unit]
std::string earnedText(double value, double uncertainty, Unit unit);

/// The value alone.
std::string earnedValue(double value, double uncertainty, Unit unit);

}  // namespace ombrek
