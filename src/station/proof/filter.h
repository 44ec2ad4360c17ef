#pragma once

#include <vector>

#include "core/circuit/network.h"
#include "core/proof/low_pass.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// The low-pass of a band as it was built: values measured where they were, else nominal, each with how well
/// it is known, and the coils' losses. Empty where the kit does not say all of it.
std::vector<FilterPart> filterAsBuilt(const Kit& kit, const Build& build, const std::string& band = "");
/// The same as the kit wants it.
std::vector<FilterPart> filterAsWanted(const Kit& kit, const std::string& band = "");

/// What is asked of it at the power that was read, or is promised. What the finals give before it is what was
/// read of the harmonics, less what the filter as built takes away; at the worst where none was read.
/// @param watts  0: as promised
FilterQuestion filterQuestion(const Kit& kit, const Build& build, const LimitProfile& profile, double watts,
                              const std::string& band = "");

/// Turns of each of its coils; 0 for what is none.
std::vector<int> turnsOf(const Kit& kit, const std::vector<FilterPart>& filter);

/// Unloaded Q of a coil of the kit at a frequency: copper and core as two losses, the core's 300 (common
/// practice for small powder cores); 150 where the winding is not known.
double coilQ(const Coil& coil, double frequency);

/// A ladder as a network, to be seen from its ends.
Network networkOf(const std::vector<FilterPart>& filter);
/// The kit's low-pass as it is wanted. @return a Problem where it has none
Result<Network> filterNetwork(const Kit& kit);

}  // namespace ombrek
