#pragma once

#include <string>

#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// How one line of the parts list stands: the last reading's verdict, or the builder's own word.
///
/// A reading outside its limits says which preferred value it looks like. A part marked missing fails; one
/// that has no value to measure passes when it has been seen.
Verdict partVerdict(const Part& part, const Build& build);

/// Limits of a part's value with its tolerance [SI].
Limits partLimits(const Part& part);

struct BagCount {
    int total = 0, in = 0, missing = 0, doubtful = 0, wrong = 0, waiting = 0;
};
BagCount countBag(const Kit& kit, const Build& build);

/// The first line that nothing is known of yet, or null.
const Part* nextPart(const Kit& kit, const Build& build);

}  // namespace ombrek
