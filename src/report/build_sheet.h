#pragma once

#include "kit/build.h"
#include "kit/kit.h"
#include "report/a4_sheet.h"

namespace ombrek {

/// The plan on paper, A4, black on white: every step with its box, values and marks, what it wants and what
/// to mind, hold points in a frame, and the piece of the board it is about. Its drawing may run on another
/// thread.
/// @param order  indices into kit.steps
A4Sheet buildSheet(const Kit& kit, const Build& build, const std::vector<std::size_t>& order);

}  // namespace ombrek
