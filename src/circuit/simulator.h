#pragma once

#include <map>
#include <string>

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

}  // namespace ombrek
