#pragma once

#include "core/quantity/working.h"

namespace ombrek {

/// A power with its expanded uncertainty (U = 2u) and how it was found.
struct Power {
    double watts = 0.0;
    double uncertainty = 0.0;  ///< [W]
    Working working;
};

double dbmFromWatts(double watts);  ///< 10·log10(P/1 mW); @throws std::domain_error unless positive
double wattsFromDbm(double dbm);

/// Power of a sine from its peak-to-peak voltage across a load: P = Vpp²/(8R).
/// @param uncertainty  of the voltage [V], U = 2u
Power powerFromPeakToPeak(double volts, double uncertainty, double ohms);

/// Power before an attenuator from a level after it. @param attenuation [dB], positive @param uncertainty
/// [dB], U = 2u
Power powerThroughAttenuator(double dbm, double attenuation, double uncertainty);

/// Power from the DC of a peak-reading diode probe: P = ((Vdc + Vd)/√2)²/R.
/// @param diodeDrop  Vd, 0.2 to 0.7 V from the diode's own curve @param dropUncertainty  of Vd [V]
Power powerFromDiodeProbe(double volts, double uncertainty, double diodeDrop, double dropUncertainty,
                          double ohms);

/// Power from a wattmeter's reading times its calibration factor. @param percent  error of the meter [%], U =
/// 2u
Power powerFromWattmeter(double watts, double correction, double percent);

/// The same stage at another supply: a stage saturated by its supply goes as V² (common practice).
/// @throws std::domain_error unless both voltages are positive
double powerAtSupply(double watts, double supply, double otherSupply);

}  // namespace ombrek
