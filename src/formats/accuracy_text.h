#pragma once

#include <string>
#include <string_view>

#include "core/quantity/problem.h"
#include "kit/instrument.h"

namespace ombrek {

/// "0.8 % + 2 digits of 6000", "1 % + 0.5 pF", "1 ppm + 10 Hz".
std::string accuracyText(const MeterLine& line);

/// An accuracy as a data sheet prints it: "0.8 % + 2", "0.5% + 3 digits of 20000", "1 % + 0.5 pF",
/// "1 ppm". Only the accuracy of `line` is changed.
Result<void> readAccuracy(std::string_view text, MeterLine& line);

/// What is asked before an accuracy is taken that no meter has: none at all, or most of what it shows; empty:
/// nothing.
std::string accuracyDoubt(const MeterLine& line);

}  // namespace ombrek
