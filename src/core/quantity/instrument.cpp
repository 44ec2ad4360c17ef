#include "core/quantity/instrument.h"

#include <cmath>

namespace ombrek {

double expandedUncertainty(const InstrumentError& error, double reading) {
    const double ofReading = error.percentOfReading / 100.0 * std::fabs(reading);
    const double ofDigits = error.digits * error.resolution;
    const double ofRange = error.percentOfRange / 100.0 * error.range;
    return 2.0 * std::hypot(ofReading, ofDigits, ofRange) / std::sqrt(3.0);
}

}  // namespace ombrek
