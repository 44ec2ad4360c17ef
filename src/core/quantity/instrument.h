#pragma once

namespace ombrek {

/// An instrument's error as its data sheet states it: ±(percent of reading + digits + percent of range).
struct InstrumentError {
    double percentOfReading = 0.0;  ///< [%]
    double digits = 0.0;            ///< counts of the last digit
    double resolution = 0.0;        ///< value of one count [SI]
    double percentOfRange = 0.0;    ///< [%]
    double range = 0.0;             ///< full scale [SI]
};

/// Expanded uncertainty U = 2u of one reading [same unit as the reading].
///
/// Each stated limit is taken as the half width of a rectangular distribution (u = a/√3) and the parts are
/// combined in quadrature. Source: JCGM 100 (GUM), 4.3.7 and 6.3.
/// Example: 23.6 pF on a meter of 1 % + 0.5 pF gives 0.64 pF.
double expandedUncertainty(const InstrumentError& error, double reading);

}  // namespace ombrek
