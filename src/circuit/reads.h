#pragma once

#include <functional>
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

/// How much of a function works of what its stages read and should read, 1 all of it. Too much is as bad as
/// too little; what parts within their tolerances do is nothing to hear of.
double worksOf(const std::vector<double>& reads, const std::vector<double>& should);

/// What a circuit reads there. NaN: there is no such node, or the simulator finds no operating point.
/// @param meterOhms  across each voltage that is read, one at a time; 0: none
std::vector<double> readingsOf(const Netlist& circuit, const std::vector<CircuitReading>& asked,
                               double meterOhms = 0);

/// The same for many alterations of the circuit's resistors, each by itself, without a meter's load.
/// @param goOn  asked before each; false stops, and what was not read is NaN
/// @return one row for each set
std::vector<std::vector<double>> readingsWith(const Netlist& circuit,
                                              const std::vector<CircuitReading>& asked,
                                              const std::vector<std::vector<Alteration>>& sets,
                                              const std::function<bool()>& goOn = {});

}  // namespace ombrek
