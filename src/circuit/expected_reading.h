#pragma once

#include <functional>

#include "circuit/kit_circuit.h"

namespace ombrek {

/// What a sound circuit of parts within their tolerances reads at a check.
struct ExpectedReading {
    double value = NAN;            ///< [V, A, Ω]; NaN: the simulator finds none; infinite: beyond the range
    double low = NAN, high = NAN;  ///< between these with about 95 % confidence, the meter's error among it
    double unloaded = NAN;         ///< without the meter's own resistance across it
};

/// A usual hand multimeter: 10 MΩ across what it reads, 0.5 % of the reading and a few digits (common
/// practice).
struct CircuitMeter {
    double ohms = 10e6, percent = 0.5, floor = 2e-3;
};

/// One for each of `asked`, NaN where there is none. Tolerances are carried by the circuit's sensitivities,
/// as rectangular distributions that add in quadrature (JCGM 100).
/// @param goOn  told how far it is, 0 … 1; false stops
/// @return a Problem when the simulator is not installed, or it was stopped
Result<std::vector<ExpectedReading>> expectedReadings(const KitCircuit& circuit, const Kit* kit,
                                                      const CircuitBench& bench,
                                                      const std::vector<CircuitReading>& asked,
                                                      const CircuitMeter& meter = {},
                                                      const std::function<bool(double)>& goOn = {});

}  // namespace ombrek
