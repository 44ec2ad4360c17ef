#pragma once

#include "judged/judged.h"

namespace ombrek {

/// What a hold point rests on, one row for each thing it needs, and for each check that a step which fits
/// nothing speaks of; empty when only the builder's own eyes are asked.
std::vector<Evidence> holdEvidence(const Step& step, const Judged& judged);
bool holdEarned(const Step& step, const Judged& judged);

}  // namespace ombrek
