#include "core/antenna/wire_antenna.h"

#include <cmath>
#include <numbers>
#include <stdexcept>

namespace ombrek {
namespace {

constexpr double kLight = 299792458;  ///< [m/s]
constexpr double kEuler = 0.5772156649015329;

/// ∫ from 0 to x by Simpson's rule.
template <class F>
double integral(F f, double x) {
    const int n = 2 * (50 + int(8 * x));
    const double h = x / n;
    double sum = f(0.0) + f(x);
    for (int i = 1; i < n; ++i) sum += (i % 2 == 1 ? 4 : 2) * f(i * h);
    return sum * h / 3;
}

double sineIntegral(double x) {
    return integral([](double t) { return t == 0 ? 1.0 : std::sin(t) / t; }, x);
}
double cosineIntegral(double x) {
    return kEuler + std::log(x) +
           integral([](double t) { return t < 1e-9 ? 0.0 : (std::cos(t) - 1) / t; }, x);
}

}  // namespace

double radiationResistance(double length, double frequency) {
    if (!(length > 0) || !(frequency > 0)) throw std::domain_error("length and frequency are positive");
    const double kl = 2 * std::numbers::pi * frequency / kLight * 2 * length;  // of the dipole with its image
    const double dipole =
        60 *
        (kEuler + std::log(kl) - cosineIntegral(kl) +
         0.5 * std::sin(kl) * (sineIntegral(2 * kl) - 2 * sineIntegral(kl)) +
         0.5 * std::cos(kl) * (kEuler + std::log(kl / 2) + cosineIntegral(2 * kl) - 2 * cosineIntegral(kl)));
    return dipole / 2;
}

std::complex<double> wireImpedance(double length, double radius, double frequency, double ground) {
    if (!(radius > 0) || !(length > 10 * radius) || !(frequency > 0) || !(ground >= 0))
        throw std::domain_error("a wire is longer than it is thick, and its frequency positive");
    const double z0 = 60 * (std::log(2 * length / radius) - 1);
    const double phase = 2 * std::numbers::pi * frequency / kLight * length;  // β·length
    // The line's wire has a resistance in which a sinusoidal current would lose what it radiates.
    const double resistance =
        2 * radiationResistance(length, frequency) / (1 - std::sin(2 * phase) / (2 * phase));
    const std::complex<double> lossy = std::sqrt(std::complex<double>(1, -resistance / (z0 * phase)));
    const std::complex<double> way = std::complex<double>(0, phase) * lossy;
    return z0 * lossy * std::cosh(way) / std::sinh(way) + ground;
}

}  // namespace ombrek
