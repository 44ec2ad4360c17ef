#pragma once

#include <string>
#include <vector>

#include "core/proof/spectrum.h"
#include "core/quantity/problem.h"

namespace ombrek {

/// A trace as an analyser writes it, in any dialect of CSV: lines before the table are passed over, the
/// column of frequencies is the one that rises, the level is the one that is called so, or the next. Units
/// come from the heading or stand behind the frequencies' sizes; decimal commas with semicolons or tabs.
/// @param carrier  known to be in it, to tell a column of megahertz without a heading [Hz]; 0: nothing known
/// @return a Problem when there is no such table
Result<std::vector<TracePoint>> readTrace(const std::string& bytes, double carrier = 0);

}  // namespace ombrek
