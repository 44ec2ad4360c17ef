#pragma once

#include <vector>

#include "circuit/reading.h"
#include "circuit/simulator.h"

namespace ombrek {

/// With a source of 0 V in the first lead of each element whose current is asked for and which is no source
/// itself; its current has the name that `currentName` says.
Netlist withSenses(const Netlist& circuit, const std::vector<CircuitReading>& asked);
std::string currentName(const Netlist& circuit, const std::string& element);

/// The supplies out, and an ohmmeter of 0.5 V behind 1 kΩ on two nodes: junctions stay off, or nearly so.
Netlist withOhmmeter(const Netlist& circuit, const std::string& node, const std::string& node2);
/// What that ohmmeter shows: infinite when beyond its range.
double ohmsOf(const OperatingPoint& point, const std::string& node, const std::string& node2);

/// A voltage or a current that was asked for, of an operating point of a circuit with senses.
double liveRead(const OperatingPoint& point, const Netlist& circuit, const CircuitReading& r);

/// What a circuit reads there. NaN: there is no such node, or the simulator finds no operating point.
/// @param meterOhms  across each voltage that is read; 0: none
std::vector<double> readingsOf(const Netlist& circuit, const std::vector<CircuitReading>& asked,
                               double meterOhms = 0);

}  // namespace ombrek
