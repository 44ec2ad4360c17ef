#pragma once

#include <optional>
#include <string_view>
#include <vector>

#include "core/proof/harmonics.h"
#include "core/proof/power.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// The ways a builder measures power, in the order of the keys on the page.
struct PowerMethod {
    std::string_view id;       ///< stored with the reading
    std::string_view name;     ///< "peak-to-peak on the scope"
    Unit unit;                 ///< of the reading
    std::string_view setting;  ///< name of the figure that goes with it; empty if none
    Unit settingUnit;
    double usualSetting;
    double settingError;  ///< limit of its error [settingUnit]
    double percent;  ///< limit of the instrument's error [% of reading]; 0: by the data sheet of the bench
};
const std::vector<PowerMethod>& powerMethods();
/// @return the method with this id, or the first
const PowerMethod& powerMethod(std::string_view id);

/// Expanded uncertainty of a reading by a method. @param meter  what the bench's own data sheet makes of it
double readingError(const PowerMethod& method, double value, double meter);

/// Watts from a reading of power, by the method it was taken with, with all errors: the instrument's and
/// that of what goes with it.
Power powerOf(const Reading& reading, double ohms);

/// A power-meter reading [dBm] behind an attenuator as watts before it, with its uncertainty; all else kept.
inline constexpr double kBenchAttenuation = 30.0;  ///< of a usual bench, until the builder says another [dB]
Reading inWatts(Reading reading, double attenuation = kBenchAttenuation);

/// What was proved, beside what the kit promises.
struct ProofState {
    std::optional<Power> power;  ///< as measured, at the supply used
    double supply = 0;           ///< read before the power [V]; the rated one while none was
    bool supplyKnown = false;    ///< the supply was read before the power
    double powerAtRated = 0;     ///< the measured power scaled to the rated supply [W]
    Verdict powerVerdict;
    std::optional<double> frequency;  ///< [Hz]
    Verdict frequencyVerdict;
    std::vector<Harmonic> harmonics;
    std::vector<Verdict> harmonicVerdicts;  ///< one for every order 2 … ratings.harmonics
    double required = 0;  ///< [dB] below the fundamental, by the profile at the measured power
};

/// The kit's low-pass with the values that were measured, and nominal ones where none was.
std::vector<LadderElement> lowPassAsBuilt(const Kit& kit, const Build& build);

/// @param profile  the chosen limit profile
ProofState proofState(const Kit& kit, const Build& build, const LimitProfile& profile);

}  // namespace ombrek
