#pragma once

#include <string>
#include <vector>

#include "circuit/netlist.h"

namespace ombrek {

/// One thing that may be wrong with a circuit, and the circuit with it.
struct Fault {
    std::string ref;   ///< designator
    std::string what;  ///< "open", "short", "ten times its value", "turned round" …
    double prior = 1;  ///< how usual it is against the others (common practice)
    Netlist circuit;
};

/// Every single fault of a circuit that its readings at rest may tell: parts open, shorted, of a value ten
/// times too large or too small, diodes and transistors turned round, junctions dead, a supply or a
/// subcircuit without output. What hangs between the same nodes with the same effect is told apart by its
/// designator alone.
std::vector<Fault> singleFaults(const Netlist& circuit);

}  // namespace ombrek
