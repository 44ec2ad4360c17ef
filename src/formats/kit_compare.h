#pragma once

#include <string>
#include <vector>

#include "core/coil/core.h"
#include "core/quantity/problem.h"
#include "kit/build.h"
#include "kit/subject.h"

namespace ombrek {

/// One thing that two versions of a kit say differently.
struct KitDifference {
    Subject subject;    ///< a part, coil, step, check or adjustment; of unknown kind: the kit as a whole
    std::string field;  ///< "value", "erratum"; empty: only one of them has it
    std::string mine, theirs;  ///< as the files have it; empty: nothing
};

/// What two kit files say differently, in the order of the files. Where a thing is drawn is a difference,
/// too.
/// @pre both are kit JSON
std::vector<KitDifference> compareKits(const std::string& mine, const std::string& theirs);

/// "3 values and 2 errata differ; R99 is new."; "They say the same."
std::string comparedInWords(const std::vector<KitDifference>& differences);

/// A kit put together from two versions.
struct Merged {
    std::string text;
    std::vector<std::string> changed;  ///< parts and coils of which the paper says something else now
    std::vector<std::string> kept;     ///< what stays though theirs does not have it, sentences
};
/// Another version of a kit put into a build in progress. What theirs says of a thing holds; what only mine
/// has stays, and so do the steps that are done, the place of a part where theirs has none, and the variant.
/// @return a Problem when one of them, or what comes of both, is no kit
Result<Merged> mergeKits(const std::string& mine, const std::string& theirs, const Build& build,
                         const std::vector<MagneticCore>& cores);

}  // namespace ombrek
