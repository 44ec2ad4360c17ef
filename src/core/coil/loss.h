#pragma once

#include "core/coil/core.h"
#include "core/coil/wire.h"

namespace ombrek {

/// Depth to which current sinks in copper at 20 °C [m], δ = √(ρ/(π f µ0)): 20.9 µm at 10 MHz.
/// Source: any text on electromagnetics; ρ of IEC 60028. @throws std::domain_error unless frequency > 0
double skinDepth(double frequency);

/// Resistance of a straight round wire at a frequency over its resistance at DC, at least 1.
///
/// Exact for a lone wire: Re[(z/2)·J0(z)/J1(z)], z = (1 − j)·a/δ, a the radius of the copper. Neighbouring
/// turns raise it further.
/// Source: any text on electromagnetics (Bessel solution of the round conductor).
double acResistanceRatio(const Wire& wire, double frequency);

/// Resistance of a length of wire at a frequency [Ω].
double acResistance(const Wire& wire, double length, double frequency);

/// Quality factor of a winding from its copper alone, ωL/R: an upper bound, since the core and the nearness
/// of the turns add loss.
/// @param length  of the wire on the core [m] @throws std::domain_error unless all are positive
double copperQ(double inductance, const Wire& wire, double length, double frequency);

/// Cross-section of a ring core [m²], h·(OD − ID)/2. @throws std::domain_error for another shape
double coreArea(const MagneticCore& core);

/// Peak flux density in a ring core [T], V/(4.44·f·N·Ae). Source: Faraday's law for a sine.
/// @param volts  across the winding, r.m.s.
double fluxDensity(const MagneticCore& core, int turns, double volts, double frequency);

/// Flux density beyond which a powder core warms [T]: 15 mT at 1 MHz, 5.7 at 7, 4.2 at 14, 3.0 at 28 MHz,
/// by straight lines on logarithmic scales between and beyond. A rule of thumb (from memory of handbook
/// tables).
double fluxCeiling(double frequency);

/// Change of an inductance with temperature [%] by the core's temperature coefficient. Resonance moves by
/// half of it, the other way.
double driftPercent(const MagneticCore& core, double degrees);

}  // namespace ombrek
