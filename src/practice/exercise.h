#pragma once

#include <memory>
#include <string>
#include <vector>

#include "circuit/kit_circuit.h"
#include "practice/practice_circuit.h"

namespace ombrek {

/// "Find the fault": a rig with one hidden fault, the same for everybody who types the same number.
class Exercise {
 public:
    /// @param grade  1: parts with two leads, open, short or turned; 2: transistors and ICs among them;
    ///               3: wrong values, too
    Exercise(Kit kit, std::uint32_t seed, int grade);

    /// Whether the kit has a circuit that can be reckoned here, and a fault was found that somebody notices.
    bool there() const { return !truth_.ref.empty(); }
    std::uint32_t seed() const { return seed_; }
    int grade() const { return grade_; }

    /// What the rig's owner says: a check that does not pass, or a function that fails.
    const std::string& complaint() const { return complaint_; }
    /// The same as a reading for a fault finder.
    const CircuitReading& symptom() const { return symptom_; }

    /// The states in which it may be read.
    std::vector<std::string> states() const;
    /// What its meter reads there. @return NaN where there is nothing
    double read(const CircuitReading& probe);
    /// A part is swapped for a good one. @return whether it was the one
    bool swap(const std::string& ref);
    int swaps() const { return swaps_; }
    /// "R25 open"; said when it is over.
    std::string answer() const { return truth_.ref + " " + truth_.what; }
    const KitCircuit& circuit() const { return circuit_; }
    const Kit& kit() const { return kit_; }

 private:
    bool noticed(PracticeCircuit& rig);

    Kit kit_;
    KitCircuit circuit_;
    std::uint32_t seed_;
    int grade_;
    std::unique_ptr<PracticeCircuit> rig_;
    Fault truth_;
    std::string complaint_;
    CircuitReading symptom_;
    int swaps_ = 0;
};

}  // namespace ombrek
