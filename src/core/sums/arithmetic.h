#pragma once

#include <vector>

#include "core/sums/figures.h"

namespace ombrek::sums {

/// The answer of a sum of signs, "4k7 || 10k", "37 dBm - 3 dB", "12 V / 470 ohm", or of parts "in series" and
/// "in parallel": everything that it may be, the likeliest first. + − × ÷ with brackets; units go along (V·A
/// is W). Capacitors in series come to less, as all else does in parallel.
/// @return nothing when it is no such sum, when a word or a figure would be left unused, or units do not go
/// together
std::vector<Meaning> reckoned(const Sentence& sentence);

}  // namespace ombrek::sums
