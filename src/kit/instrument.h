#pragma once

#include <array>
#include <string_view>

#include "core/quantity/instrument.h"
#include "core/quantity/quantity.h"

namespace ombrek {

/// The instruments of a usual bench.
enum class InstrumentRole { multimeter, lcMeter, counter, powerMeter };
inline constexpr std::array<InstrumentRole, 4> kInstrumentRoles{
    InstrumentRole::multimeter, InstrumentRole::lcMeter, InstrumentRole::counter, InstrumentRole::powerMeter};

std::string_view name(InstrumentRole role);
/// The instrument that measures a unit on this bench.
InstrumentRole instrumentFor(Unit unit);

/// Expanded uncertainty of a reading with the bench's usual instruments [same unit].
///
/// Multimeter of 6000 counts: 0.5 % + 2 digits on volts, 0.8 % + 2 digits on ohms, 1 % + 3 digits on amperes.
/// L/C meter: 1 % + 0.5 pF, 1 % + 10 nH. Counter: 1 ppm of its reference + 10 Hz. Power meter: 0.2 dB.
/// These are the simulated bench's own data sheets, and honest guesses for a typed reading (common practice).
double usualUncertainty(Unit unit, double reading);

}  // namespace ombrek
