#include "core/coil/loss.h"

#include <array>
#include <cmath>
#include <complex>
#include <numbers>
#include <stdexcept>

namespace ombrek {
namespace {

constexpr double kCopper = 1.7241e-8;             ///< [Ω·m], IEC 60028
constexpr double kMu0 = 4e-7 * std::numbers::pi;  ///< [H/m]

void requirePositive(double value, const char* what) {
    if (!(value > 0) || !std::isfinite(value)) throw std::domain_error(what);
}

/// J0(z)/J1(z) by its continued fraction 2/z − 1/(4/z − 1/(6/z − …)), taken from far enough in.
std::complex<double> besselRatio(std::complex<double> z) {
    const int terms = 40 + int(2 * std::abs(z));
    std::complex<double> tail = 0;
    for (int k = terms; k >= 2; --k) tail = 1.0 / (2.0 * k / z - tail);
    return 2.0 / z - tail;
}

}  // namespace

double skinDepth(double frequency) {
    requirePositive(frequency, "a frequency is positive");
    return std::sqrt(kCopper / (std::numbers::pi * frequency * kMu0));
}

double acResistanceRatio(const Wire& wire, double frequency) {
    requirePositive(wire.bare, "a wire has a diameter");
    const double x = wire.bare / 2 / skinDepth(frequency);
    if (x > 5000) return x / 2 + 0.25;  // far in the limit of thin skin
    const std::complex<double> z(x, -x);
    return (z / 2.0 * besselRatio(z)).real();
}

double acResistance(const Wire& wire, double length, double frequency) {
    return copperResistance(wire, length) * acResistanceRatio(wire, frequency);
}

double copperQ(double inductance, const Wire& wire, double length, double frequency) {
    requirePositive(inductance, "an inductance is positive");
    requirePositive(length, "a wire has a length");
    return 2 * std::numbers::pi * frequency * inductance / acResistance(wire, length, frequency);
}

double coreArea(const MagneticCore& core) {
    if (core.shape != MagneticCore::Shape::ring) throw std::domain_error("the section is known of a ring");
    return core.height * (core.outerDiameter - core.innerDiameter) / 2;
}

double fluxDensity(const MagneticCore& core, int turns, double volts, double frequency) {
    if (turns < 1) throw std::domain_error("a winding has at least one turn");
    requirePositive(frequency, "a frequency is positive");
    return std::fabs(volts) / (4.44 * frequency * turns * coreArea(core));
}

double fluxCeiling(double frequency) {
    requirePositive(frequency, "a frequency is positive");
    struct Point {
        double frequency, flux;
    };
    static constexpr std::array<Point, 4> points{
        {{1e6, 15e-3}, {7e6, 5.7e-3}, {14e6, 4.2e-3}, {28e6, 3.0e-3}}};
    std::size_t i = 0;
    while (i + 2 < points.size() && frequency > points[i + 1].frequency) ++i;
    const double slope = std::log(points[i + 1].flux / points[i].flux) /
                         std::log(points[i + 1].frequency / points[i].frequency);
    return points[i].flux * std::pow(frequency / points[i].frequency, slope);
}

double driftPercent(const MagneticCore& core, double degrees) { return core.tempco * degrees * 1e-4; }

}  // namespace ombrek
