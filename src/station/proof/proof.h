#pragma once

#include <cmath>
#include <optional>
#include <vector>

#include "core/proof/harmonics.h"
#include "core/proof/power.h"
#include "kit/build.h"
#include "kit/kit.h"
#include "station/proof/power_method.h"

namespace ombrek {

/// What was proved, beside what the kit promises.
struct ProofState {
    std::optional<Power> power;  ///< as measured, at the supply used
    double supply = 0;           ///< read before the power [V]; the rated one while none was
    Verdict supplyVerdict;       ///< whether what was read last can be
    bool supplyKnown = false;    ///< the supply was read before the power
    double powerAtRated = 0;     ///< the measured power scaled to the rated supply [W]
    Verdict powerVerdict;
    std::optional<double> frequency;  ///< [Hz]
    Verdict frequencyVerdict;
    std::optional<Verdict> edgeVerdict;  ///< where the kit says its band's edges
    double drift = NAN, driftOver = 0;   ///< of the readings of ten minutes before the last [Hz], [s]
    std::vector<Harmonic> harmonics;
    std::vector<Verdict> harmonicVerdicts;  ///< one for every order 2 … ratings.harmonics
    double required = 0;  ///< [dB] below the fundamental, by the profile at the measured power
};

/// The kit's low-pass with the values that were measured, and nominal ones where none was.
std::vector<LadderElement> lowPassAsBuilt(const Kit& kit, const Build& build, const std::string& band = "");

/// The supply of a reading [V]: as kept with it, else as read last before it; NaN: a later one says nothing
/// of it.
double supplyOf(const Build& build, const Reading& reading);

/// @param profile  the chosen limit profile @param band  of a rig with several; empty: its only one
ProofState proofState(const Kit& kit, const Build& build, const LimitProfile& profile,
                      const std::string& band = "");

}  // namespace ombrek
