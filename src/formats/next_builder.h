#pragma once

#include <string>
#include <vector>

#include "core/quantity/problem.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// A kit as it goes to its next builder: with errata, and what this builder learnt: minutes a step took, and
/// how often it had to be mended. Nothing of the builder goes with it.
struct NextBuilder {
    std::string kitText;
    std::vector<std::string> leftOut;  ///< where a text was left out because it names the builder or a path
    std::size_t times = 0;             ///< steps whose time is known
};

/// @param mine  words that are the builder's own: name, callsign, locator, places; of any case
/// @return a Problem when the kit's text is no kit
Result<NextBuilder> forNextBuilder(const std::string& kitText, const Kit& kit, const Build& build,
                                   const std::vector<std::string>& mine);

/// A kit's text with the minutes that the builder before took as its plan.
Result<std::string> plannedByBuilderBefore(const std::string& kitText);

}  // namespace ombrek
