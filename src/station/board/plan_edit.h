#pragma once

#include <string>
#include <vector>

#include "core/quantity/problem.h"
#include "kit/kit.h"

namespace ombrek {

/// A plan changed by its builder. Each gives all steps anew, or a sentence why it cannot be.

/// A step one place earlier (−1) or later (1) in the manual's order. What a step waits for stays before it.
Result<std::vector<Step>> movedStep(const Kit& kit, const std::string& id, int by);

/// A step and the one behind it as one: parts, tools, cautions and the second's hold. A hold is not joined
/// with what it holds back.
Result<std::vector<Step>> joinedStep(const Kit& kit, const std::string& id);

/// A step that fits several parts as two: the first so many, and the rest.
/// @param first  how many parts stay in it
Result<std::vector<Step>> splitStep(const Kit& kit, const std::string& id, int first);

/// One more step behind another. @param after  step id; empty: the last
std::vector<Step> addedStep(const Kit& kit, const std::string& title, const std::string& after);

}  // namespace ombrek
