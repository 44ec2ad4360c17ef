#pragma once

#include <functional>
#include <map>
#include <string>
#include <vector>

#include "circuit/kit_circuit.h"
#include "circuit/simulator.h"

namespace ombrek {

/// What is open [Ω].
inline constexpr double kFaultGap = 1e12;

/// A lead of an element.
struct LeadOf {
    std::string element;
    std::size_t lead = 0;
};

/// One thing that may be wrong with a circuit.
struct Fault {
    /// What it does: another value, two of its nodes joined, a lead cut, leads exchanged, all leads cut,
    /// leads that part from their node together, another model.
    enum class Kind { value, join, cut, exchange, out, crack, model };
    std::string ref;   ///< designator
    std::string what;  ///< "open", "short", "ten times its value", "turned round" …
    double prior = 1;  ///< how usual it is against the others
    Kind kind = Kind::value;
    std::string element;             ///< its name
    double factor = 1;               ///< of a value
    std::vector<std::size_t> leads;  ///< cut: one; exchange: pairs, one after the other
    std::string node, node2;         ///< joined; of a crack the node alone
    double ohms = 0.05;              ///< of what joins them
    std::string near;                ///< of a bridge or a crack: the other part
    std::vector<LeadOf> away;        ///< of a crack: what parts from the node
    std::string model, card;         ///< another model, and the line that defines it
    std::vector<Fault> also;         ///< a second fault at the same time, or none
};

/// How usual a kind of fault is, by the words of `Fault::what` or a part's kind in front of them ("r open");
/// see data/models/faults.csv.
using FaultPriors = std::map<std::string, double>;

/// Two leads of different parts that lie so near to each other that solder may bridge them.
struct NearLeads {
    std::string node, node2, ref, ref2;
};

/// A track that may crack: the leads on its far side stay together and part from the node.
struct Crack {
    std::string node, ref, ref2;  ///< between these two parts
    std::vector<LeadOf> away;
};

/// What a board's layout lets go wrong; empty when nobody knows it.
struct BoardFaults {
    std::vector<NearLeads> near;
    std::vector<Crack> cracks;
};

/// Every single fault of a circuit that its readings at rest may tell.
std::vector<Fault> singleFaults(const Netlist& circuit, const Kit* kit = nullptr,
                                const BoardFaults& board = {}, const FaultPriors& priors = {});

/// Two faults at once.
Fault bothOf(const Fault& first, const Fault& second);

/// Put factors into the priors, of what eyes and meter have seen: by "R3", "R3 value", "R3 turned".
void weighBySeen(std::vector<Fault>& faults, const std::map<std::string, double>& seen);

/// The circuit with the fault in it; as it was when the part is not in it.
Netlist withFault(const Netlist& circuit, const Fault& fault);

/// Operating points of a circuit with each fault in turn, in as few readings of the circuit as possible.
/// @param take  told the fault's number and what came of it; false stops
Result<void> eachFault(const Netlist& circuit, const std::vector<Fault>& faults,
                       const std::function<bool(std::size_t, const Result<OperatingPoint>&)>& take);

}  // namespace ombrek
