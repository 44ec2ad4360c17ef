#pragma once

#include <string_view>
#include <vector>

#include "core/proof/budget.h"
#include "core/proof/power.h"
#include "kit/build.h"

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
/// Every way of measuring a power, in the order of the keys.
const std::vector<PowerMethod>& powerMethods();
/// @return the method with this id, or the first
const PowerMethod& powerMethod(std::string_view id);

/// Expanded uncertainty of a reading by a method. @param meter  what the bench's own data sheet makes of it
double readingError(const PowerMethod& method, double value, double meter);

/// Watts from a reading of power, by the method it was taken with, with all errors: the instrument's, that of
/// what goes with it, and of volts the load's 2 % (common practice).
Power powerOf(const Reading& reading, double ohms);
/// Where that uncertainty comes from, the largest first. @return a Problem for a reading that makes no power
Result<PowerBudget> budgetOf(const Reading& reading, double ohms);

/// A power-meter reading [dBm] behind an attenuator as watts before it, with its uncertainty; all else kept.
inline constexpr double kBenchAttenuation = 30.0;  ///< of a usual bench, until the builder says another [dB]
Reading inWatts(Reading reading, double attenuation = kBenchAttenuation);

}  // namespace ombrek
