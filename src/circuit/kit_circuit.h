#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "circuit/netlist.h"
#include "circuit/reading.h"
#include "kit/kit.h"

namespace ombrek {

/// What is in, and how it stands, while the rig does something: "key down: J4=0.05, imax=1.5".
struct CircuitState {
    std::string name;
    std::vector<std::string> only;                            ///< designators; empty: all
    std::vector<std::string> without;                         ///< designators
    std::vector<std::pair<std::string, std::string>> values;  ///< of an element, a wiper (0 … 1), a .param
    bool powerOff = false;
};

/// How far a model's parameter lies about its typical value from part to part.
struct CircuitSpread {
    std::string model, parameter;  ///< in small letters
    double percent = 0;
};

/// A circuit with what its comments say beside it; see docs/formats/circuit.md.
struct KitCircuit {
    Netlist netlist;
    std::vector<CircuitState> states;
    std::map<std::string, CircuitReading> probes;  ///< by the check's id
    std::vector<CircuitSpread> spreads;
    /// "transmit": what must read as it should for it to work.
    std::map<std::string, std::vector<CircuitReading>> paths;

    /// By name; case, hyphens and spaces do not matter.
    const CircuitState* state(const std::string& name) const;
};

/// @param models  shipped models, for what the circuit does not define
/// @return a Problem as of readNetlist, or for a remark that names a state or node which is not there
Result<KitCircuit> readKitCircuit(const std::string& text, const std::string& models);

/// The designator that an element's name stands for: "XU1" is U1 of a kit that has a U1, "R70_a" is R70.
/// Without a kit's parts: the name up to "_".
std::string designatorOf(const std::string& element, const Kit* kit);

/// Where a check is read: what the circuit says, else what the check's own words name, "Q1 drain",
/// "U3 pin 8", "D1 cathode", "5V rail" where a node is called so. Nothing when neither is so.
std::optional<CircuitReading> probeOf(const KitCircuit& circuit, const Kit& kit, const Check& check);

/// "q1_d in receive", "a,b in key down", "v5": a voltage of the circuit by name; "ohms a,b in power off": a
/// resistance. Nothing when it is no such.
std::optional<CircuitReading> probeAt(const std::string& words);
/// The same the other way, of a voltage or a resistance.
std::string probeWords(const CircuitReading& reading);

/// What is known of this one rig on this one bench.
struct CircuitBench {
    double supply = NAN;                     ///< [V]; NaN: as the circuit says
    std::map<std::string, double> measured;  ///< parts by designator [SI]
};

/// The source that is the rig's supply: the largest against ground.
std::optional<std::string> supplyName(const Netlist& netlist);

/// The circuit as it stands in a state. @param state  null: as it is written
Netlist inState(const KitCircuit& circuit, const CircuitState* state, const CircuitBench& bench,
                const Kit* kit = nullptr);

/// One thing that scatters: a resistor's value, a subcircuit's or a model's parameter.
struct ScatterPlace {
    std::string element;  ///< empty: of the model
    std::string model, parameter;
    double percent = 0;  ///< to either side
    bool resistor = false;
};
/// All of a circuit. @param kit  says resistors' tolerances, 5 % without it; measured parts do not scatter
std::vector<ScatterPlace> scatterPlaces(const KitCircuit& circuit, const Kit* kit, const CircuitBench& bench);
/// The circuit with one place moved by a factor.
void scatter(Netlist& netlist, const ScatterPlace& place, double factor);

}  // namespace ombrek
