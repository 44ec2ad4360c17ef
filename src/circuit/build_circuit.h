#pragma once

#include <map>
#include <string>
#include <vector>

#include "circuit/fault.h"
#include "circuit/kit_circuit.h"
#include "kit/build.h"

namespace ombrek {

/// A reading of a build that its circuit can speak to.
struct TakenReading {
    CircuitReading reading;
    Subject subject;
    std::string title;  ///< "VFO drain", "Q2 base"
};

/// What was read on the rig as it is now, oldest first: checks and points of the circuit, the last of each.
/// What was read before the last repair is of another rig, and is not among them.
std::vector<TakenReading> takenReadings(const KitCircuit& circuit, const Kit& kit, const Build& build);

/// Supply and parts as they were measured.
CircuitBench benchOf(const KitCircuit& circuit, const Kit& kit, const Build& build);

/// Where a builder finds a node: "Q2 emitter, R26", by its transistors' leads and pins before anything else.
std::string touchAt(const KitCircuit& circuit, const Kit& kit, const std::string& node);
/// Designators of what a reading touches.
std::vector<std::string> partsAt(const KitCircuit& circuit, const Kit& kit, const std::string& node);

/// What the board's layout lets go wrong: leads of different parts with two or three leads that lie so near
/// that solder may bridge them, and tracks between the parts of a node, each of which may crack.
BoardFaults boardFaults(const KitCircuit& circuit, const Kit& kit);

/// What eyes and meter have seen already, as a factor on what may be wrong with each part: a value that was
/// measured, a sense and a joint that were looked at, an open finding of the loupe. Keys: "R3", "R3 value",
/// "R3 turned".
std::map<std::string, double> seenBefore(const Kit& kit, const Build& build);

}  // namespace ombrek
