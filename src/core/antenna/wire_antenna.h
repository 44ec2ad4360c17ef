#pragma once

#include <complex>

namespace ombrek {

/// What a straight wire shows at its end against ground.
///
/// As an open transmission line of the characteristic impedance 60·(ln(2·length/radius) − 1), which loses on
/// its way what the wire radiates: the radiation resistance of a sinusoidal current. A model of a straight
/// wire, upright over good ground, to choose a length by; trees, bends and poor ground change it much.
/// @param length, radius  [m] @param frequency  [Hz] @param ground  resistance of the counterpoise [Ω]
/// @throws std::domain_error unless positive, and the length well over the radius
/// Source: any antenna text (the transmission-line model; Si and Ci formula of the radiation resistance).
std::complex<double> wireImpedance(double length, double radius, double frequency, double ground = 0);

/// Radiation resistance of an upright wire over perfect ground at its current's maximum [Ω].
double radiationResistance(double length, double frequency);

}  // namespace ombrek
