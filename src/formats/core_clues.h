#pragma once

#include <string_view>

#include "core/coil/which_core.h"
#include "core/quantity/problem.h"
#include "kit/stock.h"

namespace ombrek {

/// What one types of an unknown ring: sizes in millimetres (outer, hole, height), its paint, and the
/// inductance of ten trial turns, in any order of kinds: "12.7 7.7 4.8 yellow 0.40u". The meter's error is
/// the usual one.
/// @return what was understood, or a sentence on what was not
Result<CoreClues> readCoreClues(std::string_view text);

/// The ring cores that lie in the drawers: lines whose description names one of the table.
std::vector<MagneticCore> coresInStock(const std::vector<StockLine>& stock,
                                       const std::vector<MagneticCore>& table);

}  // namespace ombrek
