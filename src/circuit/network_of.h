#pragma once

#include <string>
#include <vector>

#include "circuit/netlist.h"
#include "core/circuit/network.h"

namespace ombrek {

/// A circuit of lossy parts as a network with its ports, and what was taken for them.
struct ReadNetwork {
    Network network;
    std::string in, out;              ///< nodes, as the circuit writes them; out empty: one port
    double source = NAN, load = NAN;  ///< resistances that the circuit itself names; NaN: none
    std::vector<std::string> notes;   ///< sentences: what was taken for a port, what was left out
};

/// R, L, C, couplings K and subcircuits of them; Rser= and Rpar= stand for losses.
///
/// The ports are the nodes that are asked for, else those called in and out (or input, p1, ant …), else where
/// sources with a portnum stand; a source with its resistor in series, and a load called RL or Rload, are the
/// measuring set-up: they are left out, and their resistances said. Failing all that, the first node and the
/// last. @param in, out  nodes wanted; empty: to be found; out "none": one port
/// @return a Problem for parts that are no network of resistors, coils and capacitors
Result<ReadNetwork> networkOf(const Netlist& netlist, const std::string& in = "",
                              const std::string& out = "");

}  // namespace ombrek
