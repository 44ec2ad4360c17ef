#pragma once

#include <functional>
#include <map>
#include <string>
#include <vector>

#include "circuit/netlist.h"

namespace ombrek {

/// The voltages and currents of a circuit at rest.
struct OperatingPoint {
    std::map<std::string, double> volts;     ///< by node [V]
    std::map<std::string, double> currents;  ///< through voltage sources, by name in small letters [A]
    /// Of a node against another; NaN for a node that is not there.
    double between(const std::string& node, const std::string& other = "0") const;
};

/// Solve for the operating point with libngspice, which is loaded when it is first asked for. One circuit at
/// a time in a program: callers of several threads wait for each other.
/// @return a Problem when the library is not installed, or the circuit has no operating point that it finds
Result<OperatingPoint> operatingPoint(const Netlist& netlist);

/// A resistor of a circuit at another value [Ω].
struct Alteration {
    std::string resistor;
    double ohms = 0;
};

/// The same for many alterations of one circuit, which is read once; each is taken back before the next.
/// @param take  told the number of the set and its operating point (or the Problem); false stops
Result<void> operatingPoints(const Netlist& netlist, const std::vector<std::vector<Alteration>>& sets,
                             const std::function<bool(std::size_t, const Result<OperatingPoint>&)>& take);

/// Whether the simulator can be had on this machine.
bool simulatorThere();

}  // namespace ombrek
