#pragma once

#include <functional>
#include <map>
#include <string>
#include <vector>

#include "circuit/kit_circuit.h"
#include "circuit/simulator.h"

namespace ombrek {

/// One thing that may be wrong with a circuit.
struct Fault {
    /// What it does: another value, two of its nodes joined, a lead cut, leads exchanged, all leads cut.
    enum class Kind { value, join, cut, exchange, out };
    std::string ref;   ///< designator
    std::string what;  ///< "open", "short", "ten times its value", "turned round" …
    double prior = 1;  ///< how usual it is against the others
    Kind kind = Kind::value;
    std::string element;             ///< its name
    double factor = 1;               ///< of a value
    std::vector<std::size_t> leads;  ///< cut: one; exchange: pairs, one after the other
    std::string node, node2;         ///< joined
    std::string near;                ///< of a bridge: the other part
};

/// How usual a kind of fault is, by the words of `Fault::what` or a part's kind in front of them ("r open");
/// see data/models/faults.csv.
using FaultPriors = std::map<std::string, double>;

/// Two leads of different parts that lie so near to each other that solder may bridge them.
struct NearLeads {
    std::string node, node2, ref, ref2;
};

/// Every single fault of a circuit that its readings at rest may tell.
/// @param near  what lies near on the board; empty when nobody knows
std::vector<Fault> singleFaults(const Netlist& circuit, const Kit* kit = nullptr,
                                const std::vector<NearLeads>& near = {}, const FaultPriors& priors = {});

/// Put factors into the priors, of what eyes and meter have seen: by "R3", "R3 value", "R3 turned".
void weighBySeen(std::vector<Fault>& faults, const std::map<std::string, double>& seen);

/// The circuit with the fault in it; as it was when the part is not in it.
Netlist withFault(const Netlist& circuit, const Fault& fault);

/// Operating points of a circuit with each fault in turn, in as few readings of the circuit as possible.
/// @param take  told the fault's number and what came of it; false stops
Result<void> eachFault(const Netlist& circuit, const std::vector<Fault>& faults,
                       const std::function<bool(std::size_t, const Result<OperatingPoint>&)>& take);

}  // namespace ombrek
