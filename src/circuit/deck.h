#pragma once

#include <map>
#include <string>
#include <vector>

#include "circuit/netlist.h"

namespace ombrek {

/// A circuit as the simulator is given it: flat, with names of our own and plain numbers. No text of the
/// netlist stands in it, so none can be taken for a command.
struct Deck {
    std::vector<std::string> lines;                ///< title, elements, models, options, ".end"
    std::map<std::string, std::string> nodes;      ///< "n3" → the circuit's node, of its top level
    std::map<std::string, std::string> branches;   ///< "v2" → the element, in small letters
    std::map<std::string, std::string> resistors;  ///< the element in small letters → "r5"
};

/// Write a circuit anew: subcircuits put in their places, parameters reckoned, sources as they are at rest.
///
///     R4 vcc base {ra*2}   →   r3 n1 n2 47000
///
/// @return a Problem with its line for what is not of a known kind: an element, a model or its parameter, a
/// function, a number that is none, a subcircuit that calls itself, a coupling of what is no coil
Result<Deck> deckOf(const Netlist& netlist);

}  // namespace ombrek
