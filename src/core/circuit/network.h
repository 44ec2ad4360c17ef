#pragma once

#include <complex>
#include <string>
#include <vector>

#include "core/circuit/ladder.h"
#include "core/quantity/problem.h"

namespace ombrek {

/// A resistor, coil or capacitor between two nodes, or a line without loss from one to the other against
/// ground; 0 is ground.
struct NetworkPart {
    enum class Kind { resistor, inductor, capacitor, line };
    std::string name;
    Kind kind = Kind::resistor;
    int a = 0, b = 0;
    double value = 0;     ///< [Ω], [H] or [F]; of a line its impedance [Ω]
    double ohms = 0;      ///< in series with an L or C [Ω]
    double parallel = 0;  ///< across an L or C [Ω]; 0: nothing
    double delay = 0;     ///< of a line [s]
};

/// Two coils that share their field.
struct Coupling {
    std::size_t first = 0, second = 0;  ///< parts, both coils
    double k = 0;                       ///< −1 … 1
};

/// Any network of lossy parts, seen from one or two of its nodes against ground.
struct Network {
    int nodes = 1;  ///< with ground
    std::vector<NetworkPart> parts;
    std::vector<Coupling> couplings;
    int in = 0, out = 0;  ///< nodes of the ports; out 0: there is but one port

    bool twoPort() const { return out != 0; }
};

/// Nodal analysis with the currents of coupled coils beside it, at each frequency.
/// @param frequencies [Hz], positive @param source, load  port resistances [Ω], positive
/// @return a Problem where a node hangs in the air or a value is none
/// Source: any network text (modified nodal analysis); checked against a circuit simulator in the tests.
Result<std::vector<Scattering>> scatteringOf(const Network& network, const std::vector<double>& frequencies,
                                             double source, double load);

/// Insertion loss [dB] and standing wave ratio of a reflection.
double lossOf(std::complex<double> s21);
double swrOf(std::complex<double> reflection);

/// `points` frequencies from one to another, by equal steps, or equal ratios.
std::vector<double> frequenciesFrom(double low, double high, int points, bool byRatio = false);

}  // namespace ombrek
