#include "core/proof/power.h"

#include <cmath>
#include <stdexcept>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

std::string watts(double value) { return formatQuantity(value, Unit::watt, 3); }
std::string volts(double value) { return formatQuantity(value, Unit::volt, 4); }
std::string ohms(double value) { return formatQuantity(value, Unit::ohm, 4); }

void requirePositive(double value, const char* what) {
    if (!(value > 0) || !std::isfinite(value)) throw std::domain_error(what);
}

}  // namespace

double dbmFromWatts(double watts) {
    requirePositive(watts, "a power in dBm is positive");
    return 10.0 * std::log10(watts / 1e-3);
}

double wattsFromDbm(double dbm) { return 1e-3 * std::pow(10.0, dbm / 10.0); }

Power powerFromPeakToPeak(double vpp, double uncertainty, double r) {
    requirePositive(r, "a load is positive");
    const double power = vpp * vpp / (8 * r);
    Power out{power, vpp > 0 ? 2 * power * uncertainty / vpp : 0.0, {}};
    out.working.lines = {{"P = Vpp²/(8R)", volts(vpp) + "² / (8 × " + ohms(r) + ")", watts(power)}};
    out.working.source = "power of a sine";
    return out;
}

Power powerThroughAttenuator(double dbm, double attenuation, double uncertainty) {
    const double before = dbm + attenuation;
    const double power = wattsFromDbm(before);
    Power out{power, power * (std::pow(10.0, uncertainty / 10.0) - 1.0), {}};
    out.working.lines = {
        {"level + attenuation",
         formatQuantity(dbm, Unit::dbm, 4) + " + " + formatQuantity(attenuation, Unit::decibel, 4),
         formatQuantity(before, Unit::dbm, 4)},
        {"P = 1 mW × 10^(dBm/10)", "", watts(power)}};
    out.working.source = "definition of dBm";
    return out;
}

Power powerFromDiodeProbe(double vdc, double uncertainty, double drop, double dropUncertainty, double r) {
    requirePositive(r, "a load is positive");
    const double peak = vdc + drop;
    const double power = peak * peak / (2 * r);
    Power out{power, peak > 0 ? 2 * power * std::hypot(uncertainty, dropUncertainty) / peak : 0.0, {}};
    out.working.lines = {{"P = ((Vdc + Vd)/√2)²/R",
                          "((" + volts(vdc) + " + " + volts(drop) + ")/√2)² / " + ohms(r), watts(power)}};
    out.working.source = "peak rectifier on a sine";
    return out;
}

Power powerFromWattmeter(double reading, double correction, double percent) {
    const double power = reading * correction;
    Power out{power, std::fabs(power) * percent / 100.0, {}};
    out.working.lines = {
        {"P = reading × correction", watts(reading) + " × " + personNumber(correction), watts(power)}};
    out.working.source = "the meter's own calibration";
    return out;
}

double powerAtSupply(double power, double supply, double other) {
    requirePositive(supply, "a supply voltage is positive");
    requirePositive(other, "a supply voltage is positive");
    return power * (other / supply) * (other / supply);
}

}  // namespace ombrek
