#pragma once

#include <string>
#include <vector>

#include "core/coil/core.h"
#include "core/quantity/problem.h"

namespace ombrek {

/// A kit that comes in several variants is one file: its rows are those of the variant that is built, and
/// each variant keeps beside them the rows that differ (docs/formats/kit.md). What is said of a part whatever
/// is built, its place and its errata, belongs to the kit and stays.

/// One variant as a whole kit.
struct KitVersion {
    std::string name;  ///< "40 m"
    std::string text;  ///< kit JSON
};

/// The versions in one text. @param chosen  name of the one that is built
std::string withVariants(const std::vector<KitVersion>& versions, const std::string& chosen);

/// The kit as it is for another of its variants. What was changed in the one in force meanwhile is kept with
/// it. @return a Problem when the kit has no variant of that name, or does not hold together with it
Result<std::string> withVariant(const std::string& kitText, const std::string& name,
                                const std::vector<MagneticCore>& cores);

/// The kit with one more variant, which is then the one in force. @param supplied  what the kit was till now,
/// when it had no variants
Result<std::string> withNewVariant(const std::string& kitText, const std::string& supplied,
                                   const KitVersion& version, const std::vector<MagneticCore>& cores);

}  // namespace ombrek
