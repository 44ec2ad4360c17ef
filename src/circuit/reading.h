#pragma once

#include <cmath>
#include <string>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// What was read on a circuit, or may be.
struct CircuitReading {
    /// The last is how much of a function works, 0 … 1: what is heard and seen.
    enum class Quantity { voltage, current, resistance, works };
    /// Of a current: the element that it goes through; of a function: the path's name.
    std::string node, node2 = "0";
    Quantity quantity = Quantity::voltage;
    double value = 0;  ///< SI; infinite: beyond the range (resistance)
    double error = 0;  ///< the meter's own, a standard deviation [same unit]; 0: not said
    std::string state;
    std::size_t line = 0;
};

/// Whether two readings are of the same thing in the same state.
bool sameProbe(const CircuitReading& a, const CircuitReading& b);

/// Where an ohmmeter shows OL [Ω].
inline constexpr double kBeyondRange = 2e7;

/// Readings as CSV with the columns node, node2, quantity, value, error, state (any order; node2, error and
/// state may be missing). Values as people write them; OL and open are beyond the range.
Result<std::vector<CircuitReading>> readCircuitReadings(const std::string& bytes);

}  // namespace ombrek
