#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// How one line of the parts list stands: the last reading's verdict, or the builder's own word.
///
/// A reading outside its limits says which preferred value it looks like. A part marked missing fails; one
/// that has no value to measure passes when it has been seen, or when another type was accepted in its place.
Verdict partVerdict(const Part& part, const Build& build);

/// Limits of a part's value with its tolerance [SI].
Limits partLimits(const Part& part);

struct BagCount {
    int total = 0, in = 0, missing = 0, doubtful = 0, wrong = 0, waiting = 0;
};

/// "sorted by kind", "labelled by the plan", "each just before fitting".
std::string_view word(BagWay way);
/// "measure all", "measure the doubtful", "trust the bag".
std::string_view word(BagDepth depth);

/// Parts of the same kind and value, in the list's order.
std::vector<const Part*> likeParts(const Kit& kit, const Part& part);

/// Why a part ought to be measured even by one who measures only what is doubtful: it has no mark, its mark
/// can be read as another value of this kit, it is close-tolerance, or it sets a frequency. Empty: its mark
/// is enough.
std::string worthMeasuring(const Kit& kit, const Part& part);

/// Whether what is printed on a part says what the list wants: one of the mark's readings is the nominal
/// value; for a part without a value the words are the same.
bool markAgrees(const Part& part, std::string_view printed);

/// What is printed on a part disagrees with the list, so that only a measurement counts.
bool markLies(const Part& part, const Build& build);

}  // namespace ombrek
