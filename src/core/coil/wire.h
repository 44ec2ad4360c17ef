#pragma once

#include <string>
#include <string_view>

#include "core/quantity/problem.h"

namespace ombrek {

/// Enamelled copper wire. Diameters in metres.
struct Wire {
    double bare = 0.0;       ///< over the copper [m]
    double enamelled = 0.0;  ///< over the enamel [m]
};

/// Bare diameter of an American gauge [m]: 0.127 mm · 92^((36−n)/39).
/// Source: ASTM B258. @param gauge 0 to 56 @throws std::domain_error outside
double awgDiameter(int gauge);

/// Wire of a bare diameter [m] with a usual enamel added: 30 to 60 µm, growing with the diameter.
/// Source: IEC 60317-0-1 grades, from memory. @throws std::domain_error unless 0.02 mm to 5 mm
Wire enamelledWire(double bareDiameter);

/// "26AWG", "26 AWG", "#26", "28SWG" or "0.4mm". SWG 16 to 40 from the table (from memory).
Result<Wire> parseWire(std::string_view text);

/// How wires are named to a person: as the kit gives them, or by the nearest gauge or the bare diameter.
enum class WireNames { asGiven, awg, swg, millimetres };
/// And lengths of wire.
enum class Lengths { centimetres, inches };
/// Said once, before anything is written, as writeDecimalsWith.
void writeWiresAs(WireNames names, Lengths lengths);

/// A wire for a person: "28AWG", "0.32 mm", "30SWG (kit: 28AWG)". A gauge is named only when its diameter is
/// within half a gauge of the wire's (an AWG step is 12.3 %, ASTM B258); else the diameter.
/// @param given  as the kit writes it
std::string wireName(const std::string& given, const Wire& wire);
/// "47 cm", or inches.
std::string lengthName(double metres);

/// DC resistance of a length of copper wire at 20 °C [Ω]. Source: IEC 60028, 1.7241e-8 Ω·m.
double copperResistance(const Wire& wire, double length);

}  // namespace ombrek
