#pragma once

#include <string>
#include <vector>

#include "core/coil/core.h"
#include "core/quantity/problem.h"
#include "kit/build.h"
#include "kit/subject.h"

namespace ombrek {

/// A kit with an upgrade or a modification put on top of it (docs/formats/upgrade.md): the finished rig stays
/// one thing with one history.
struct Upgraded {
    std::string name;  ///< of the upgrade
    std::string text;  ///< kit JSON
    /// Parts and coils that are taken out, new in place of others or changed, and what is to be measured
    /// again because of them: where the upgrade does not say what, everything that is measured under power.
    std::vector<Subject> again;
    std::vector<std::string> says;  ///< what it does, sentences
};

/// Remove, cut, bridge, add, change: each becomes a step behind those there are, in that order, the first
/// with the caution that the power is off, the last a hold for a look at every joint. Steps that the upgrade
/// brings stand in their place.
/// @return a Problem when it is no upgrade, is for another kit, or names what the kit does not have
Result<Upgraded> withUpgrade(const std::string& kitText, const std::string& upgradeText,
                             const std::vector<MagneticCore>& cores);

}  // namespace ombrek
