#pragma once

#include <functional>
#include <string>
#include <vector>

#include "circuit/fault.h"

namespace ombrek {

/// What was read on a circuit.
struct CircuitReading {
    enum class Quantity { voltage, current, resistance };
    std::string node, node2 = "0";  ///< of a current: the element that it goes through
    Quantity quantity = Quantity::voltage;
    double value = 0;  ///< SI; infinite: beyond the range (resistance)
    double error = 0;  ///< the meter's own, a standard deviation [same unit]; 0: not said
    std::string state;
    std::size_t line = 0;
};

/// Readings as CSV with the columns node, node2, quantity, value, error, state (any order; node2, error and
/// state may be missing). Values as people write them; OL and open are beyond the range.
Result<std::vector<CircuitReading>> readCircuitReadings(const std::string& bytes);

/// What a circuit reads there. NaN: there is no such node, or the simulator finds no operating point.
/// A resistance is read without power: supplies out, a microampere through the meter's leads.
std::vector<double> readingsOf(const Netlist& circuit, const std::vector<CircuitReading>& asked);

/// A hypothesis with its share of the belief.
struct Suspect {
    std::string ref;            ///< empty: nothing is wrong
    std::string what;           ///< "open"; empty with an empty ref
    double odds = 0;            ///< 0 … 1; all suspects together 1
    std::vector<double> reads;  ///< what it would read, one for each reading
};

/// The reading that would tell most next.
struct NextReading {
    std::string node, node2 = "0", quantity = "voltage", why;
    double gain = 0;  ///< expected information [nat]
};

struct Suspicion {
    std::vector<Suspect> suspects;  ///< the likeliest first
    NextReading next;               ///< an empty node: nothing would tell more
    bool unexplained = false;       ///< no single fault, and no sound circuit, gives these readings
};

/// Rank what may be wrong from all readings together: each single fault is simulated, and its readings are
/// held against those that were taken, with the meter's error and the spread that parts within their
/// tolerance give.
/// @param goOn  told how far it is, 0 … 1; false stops
/// @return a Problem when a reading names what the circuit lacks, or the circuit cannot be solved, or it was
/// stopped
Result<Suspicion> suspectsOf(const Netlist& circuit, const std::vector<CircuitReading>& readings,
                             const std::function<bool(double)>& goOn = {});

}  // namespace ombrek
