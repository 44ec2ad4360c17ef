#pragma once

namespace ombrek {

/// Inductance of a single-layer air-core coil [H]: r²N²/(9r + 10l) µH with r, l in inches.
///
/// Good to 1 % for a length beyond 0.8 of the radius. Source: H. A. Wheeler 1928.
/// @param radius  to the middle of the wire [m] @param length  of the winding [m] @throws std::domain_error
double airCoreInductance(double radius, double length, int turns);

/// Whole turns of an air-core coil nearest to an inductance [H], close-wound or with a given pitch.
/// @param pitch  advance a turn, at least the wire over its enamel [m]
int airCoreTurns(double radius, double pitch, double inductance);

}  // namespace ombrek
