#include "kit/instrument.h"

#include <algorithm>
#include <cmath>

namespace ombrek {
namespace {

/// One count of a 6000-count meter that picks its own range.
double countOf6000(double reading) {
    const double magnitude = std::max(std::fabs(reading), 1e-12);
    const double range = 6.0 * std::pow(10.0, std::ceil(std::log10(magnitude / 6.0)));
    return range / 6000.0;
}

struct Accuracy {
    Unit unit;
    InstrumentRole role;
    double percent;
    double digits;  ///< of a 6000-count display
    double floor;   ///< absolute [SI]
};
constexpr std::array<Accuracy, 8> kAccuracies{{
    {Unit::ohm, InstrumentRole::multimeter, 0.8, 2, 0},
    {Unit::volt, InstrumentRole::multimeter, 0.5, 2, 0},
    {Unit::ampere, InstrumentRole::multimeter, 1.0, 3, 0},
    {Unit::farad, InstrumentRole::lcMeter, 1.0, 0, 0.5e-12},
    {Unit::henry, InstrumentRole::lcMeter, 1.0, 0, 10e-9},
    {Unit::hertz, InstrumentRole::counter, 1e-4, 0, 10},
    {Unit::dbm, InstrumentRole::powerMeter, 0, 0, 0.2},
    {Unit::decibel, InstrumentRole::powerMeter, 0, 0, 1.0},
}};

const Accuracy* accuracyFor(Unit unit) {
    const auto hit =
        std::find_if(kAccuracies.begin(), kAccuracies.end(), [&](const auto& a) { return a.unit == unit; });
    return hit == kAccuracies.end() ? nullptr : &*hit;
}

}  // namespace

std::string_view name(InstrumentRole role) {
    static constexpr std::array<std::string_view, 4> names{"multimeter", "L/C meter", "counter",
                                                           "power meter"};
    return names[static_cast<std::size_t>(role)];
}

InstrumentRole instrumentFor(Unit unit) {
    const Accuracy* accuracy = accuracyFor(unit);
    return accuracy ? accuracy->role : InstrumentRole::multimeter;
}

double usualUncertainty(Unit unit, double reading) {
    const Accuracy* accuracy = accuracyFor(unit);
    if (accuracy == nullptr || !std::isfinite(reading)) return 0.0;
    InstrumentError error;
    error.percentOfReading = accuracy->percent;
    error.digits = accuracy->floor > 0 ? 1 : accuracy->digits;
    error.resolution = accuracy->floor > 0 ? accuracy->floor : countOf6000(reading);
    return expandedUncertainty(error, reading);
}

}  // namespace ombrek
