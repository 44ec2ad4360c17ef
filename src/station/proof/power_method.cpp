#include "station/proof/power_method.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/instrument.h"

namespace ombrek {

const std::vector<PowerMethod>& powerMethods() {
    // Errors as limits, common practice: an attenuator is known to 0.5 dB, the vertical scale of a scope to 3
    // %, a small diode's drop to 0.1 V beside the DC meter's own error, a hobby wattmeter to 10 %.
    static const std::vector<PowerMethod> methods{
        {"attenuator", "through attenuator", Unit::dbm, "attenuation", Unit::decibel, kBenchAttenuation, 0.5,
         0},
        {"peak-to-peak", "scope, peak-to-peak", Unit::volt, "", Unit::none, 0, 0, 3},
        {"diode-probe", "diode probe", Unit::volt, "diode drop", Unit::volt, 0.35, 0.1, 0},
        {"wattmeter", "wattmeter", Unit::watt, "correction", Unit::none, 1, 0, 10},
    };
    return methods;
}

const PowerMethod& powerMethod(std::string_view id) {
    const auto& all = powerMethods();
    const auto hit = std::find_if(all.begin(), all.end(), [&](const PowerMethod& m) { return m.id == id; });
    return hit == all.end() ? all.front() : *hit;
}

double readingError(const PowerMethod& method, double value, double meter) {
    if (method.percent <= 0) return meter;  // a DC meter or power meter, by its own data sheet
    return expandedUncertainty({.percentOfReading = method.percent}, value);
}

namespace {

constexpr double kLoadError = 2;  ///< of a dummy load's resistance [%], a limit

Power withLoad(Power power) {
    power.uncertainty =
        std::hypot(power.uncertainty, 2 * kLoadError / 100 / std::sqrt(3.0) * std::abs(power.watts));
    return power;
}

}  // namespace

Result<PowerBudget> budgetOf(const Reading& r, double ohms) {
    const PowerMethod& method = powerMethod(r.method);
    PowerWay way;
    way.method = method.id == "attenuator" ? "analyser" : std::string(method.id);
    way.load = ohms;
    way.loadError = kLoadError;
    way.probeError = 0;  // the scope's error is of the whole
    // A limit whose standard uncertainty is the reading's (rectangular).
    const double limit = r.uncertainty * std::sqrt(3.0) / 2;
    const double percent = r.value > 0 ? 100 * limit / r.value : 0;
    const double with = method.setting.empty() ? 0 : r.setting(method.setting, NAN);
    way.volts = way.watts = way.dbm = r.value;
    way.voltsError = way.wattsError = percent;
    way.dbmError = limit;
    way.drop = way.correction = way.attenuation = with;
    way.dropError = way.attenuationError = method.settingError;
    return powerBy(way);
}

Power powerOf(const Reading& r, double ohms) {
    const PowerMethod& method = powerMethod(r.method);
    // What must go with it and is not known makes the power unknown, never another one.
    const double with = method.setting.empty() ? 0 : r.setting(method.setting, NAN);
    // U = 2u of what goes with the reading, its limit taken as rectangular (GUM 4.3.7).
    const double beside = 2 * method.settingError / std::sqrt(3.0);
    if (method.id == "peak-to-peak") return withLoad(powerFromPeakToPeak(r.value, r.uncertainty, ohms));
    if (method.id == "diode-probe")
        return withLoad(powerFromDiodeProbe(r.value, r.uncertainty, with, beside, ohms));
    if (method.id == "wattmeter") {
        const double percent = r.value > 0 ? 100 * r.uncertainty / r.value : 0;
        return powerFromWattmeter(r.value, with, percent);
    }
    return powerThroughAttenuator(r.value, with, std::hypot(r.uncertainty, beside));
}

Reading inWatts(Reading reading, double attenuation) {
    Reading behind = reading;
    behind.method = "attenuator";
    behind.settings = {{std::string(powerMethod("attenuator").setting), attenuation}};
    const Power power = powerOf(behind, 50);
    reading.value = power.watts;
    reading.uncertainty = power.uncertainty;
    reading.unit = Unit::watt;
    return reading;
}

}  // namespace ombrek
