#pragma once

#include <array>
#include <cstdint>
#include <limits>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/instrument.h"
#include "core/quantity/quantity.h"

namespace ombrek {

/// The instruments of a usual bench.
enum class InstrumentRole { multimeter, lcMeter, counter, powerMeter };
inline constexpr std::array<InstrumentRole, 4> kInstrumentRoles{
    InstrumentRole::multimeter, InstrumentRole::lcMeter, InstrumentRole::counter, InstrumentRole::powerMeter};

std::string_view word(InstrumentRole role);
/// The instrument that measures a unit on this bench.
InstrumentRole instrumentFor(Unit unit);

/// One line of an instrument's data sheet: what it promises for one quantity over one range.
struct MeterLine {
    std::int64_t id = 0;
    std::string name;  ///< the builder's name for the instrument; empty: the role's
    Unit unit = Unit::none;
    double low = 0, high = std::numeric_limits<double>::infinity();  ///< range of readings [SI]
    double percent = 0;                                              ///< of the reading [%]
    double digits = 0, counts = 6000;                                ///< of the last digit; of the display
    double floor = 0;                                                ///< an absolute part of the error [SI]
    double zero = 0;              ///< shown with nothing on the clips, taken off every reading [SI]
    std::int64_t calibrated = 0;  ///< seconds since 1970; 0: not known
};

/// The usual bench, one line a quantity: multimeter of 6000 counts with 0.5 % + 2 digits on volts, 0.8 % + 2
/// digits on ohms, 1 % + 3 digits on amperes; L/C meter 1 % + 0.5 pF, 1 % + 10 nH; counter 1 ppm of its
/// reference + 10 Hz; power meter 0.2 dB. The simulated bench's own data sheets, and honest guesses for a
/// typed reading (common practice).
const std::vector<MeterLine>& usualMeters();

/// What a reading is worth.
struct Measured {
    double value = 0;        ///< the zero taken off [SI]
    double uncertainty = 0;  ///< U = 2u [same unit]
};

/// The line that holds for a reading: of its unit and range, else the nearest range of the unit; nothing when
/// the bench has none.
std::optional<MeterLine> meterFor(const std::vector<MeterLine>& meters, Unit unit, double shown);

/// The zero taken off, and the expanded uncertainty by the data sheet. The error is of what the meter shows,
/// so it is taken before the zero is.
Measured measuredWith(const std::vector<MeterLine>& meters, Unit unit, double shown);

/// Expanded uncertainty of a reading with the usual bench [same unit].
double usualUncertainty(Unit unit, double reading);

/// Whether a data sheet may still be believed: its promise usually holds for a year (common practice).
bool calibrationIsOld(const MeterLine& line, std::int64_t now);

}  // namespace ombrek
