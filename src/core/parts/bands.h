#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/parts/marks.h"

namespace ombrek {

/// The band colours of IEC 60062, black to white, then gold, silver, pink.
const std::vector<std::string>& bandColours();
/// Whether a word names a band colour; "gray" and "purple" too.
bool isBandColour(std::string_view word);

/// Readings of three to six colour bands in the order given and, if it is valid, from the other end; a
/// reading whose value is a preferred one (IEC 60063, E24 or E96) comes first.
/// @param kind  resistor (value in Ω) or inductor (chokes use the same bands in µH)
std::vector<MarkReading> readBands(const std::vector<std::string>& colours,
                                   PartKind kind = PartKind::resistor);

/// The colour words of a resistor's four bands for a value, for "look for yellow violet red gold"; empty if
/// the value has more than two figures or is out of range.
std::vector<std::string> bandsFor(double ohms, double tolerancePercent);

}  // namespace ombrek
