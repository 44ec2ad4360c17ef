#pragma once

#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "circuit/fault.h"
#include "circuit/kit_circuit.h"

namespace ombrek {

/// The practice rig at rest: its kit's circuit, with the scatter of its parts and the faults that are seeded.
class PracticeCircuit {
 public:
    /// @param scatter  −1 … 1, always the same for a name
    PracticeCircuit(Kit kit, std::function<double(const std::string&)> scatter);

    /// Whether the kit has a circuit that can be reckoned on this machine.
    bool there() const { return circuit_.has_value(); }

    /// Seed a fault by its words, "R62 open", "Q3 base open". @return false when the circuit knows none such
    bool seed(const std::string& words);
    /// Every fault that can be seeded.
    std::vector<Fault> faults() const;
    void mend() { faults_.clear(), points_.clear(); }

    /// True values of parts and positions of wipers 0 … 1, by designator.
    void setPart(const std::string& ref, double value);
    void setWiper(const std::string& ref, double position);

    /// What a meter of 10 MΩ reads at a check; nothing when the circuit does not tell. Infinite: beyond.
    std::optional<double> check(const std::string& id);
    /// The same at "node" or "node in state"; "a,b in state" between two.
    std::optional<double> node(const std::string& id);
    /// Current that the supply gives over what it gives with a wiper at its end, in a state.
    std::optional<double> currentBy(const std::string& wiper, double position, const std::string& state);
    /// How much of a path's stages works: 1 all of it, 0 nothing. 1 for a path that the circuit does not
    /// name.
    double works(const std::string& path);

 private:
    Netlist standing(const std::string& state, bool sound) const;
    std::optional<double> read(const CircuitReading& r);

    Kit kit_;
    std::function<double(const std::string&)> scatter_;
    std::optional<KitCircuit> circuit_;
    std::vector<Fault> faults_;
    CircuitBench bench_;
    std::map<std::string, double> wipers_;
    std::map<std::string, double> points_;              ///< what was read since anything changed
    std::map<std::string, std::vector<double>> sound_;  ///< by path: what a sound rig reads there
};

}  // namespace ombrek
