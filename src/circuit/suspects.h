#pragma once

#include <functional>
#include <map>
#include <set>
#include <string>
#include <vector>

#include "circuit/fault.h"
#include "circuit/kit_circuit.h"
#include "circuit/likelihood.h"

namespace ombrek {

/// A hypothesis with its share of the belief.
struct Suspect {
    std::string ref;            ///< empty: nothing is wrong
    std::string what;           ///< "open"; empty with an empty ref
    double odds = 0;            ///< 0 … 1; all suspects together 1
    std::vector<double> reads;  ///< what it would read, one for each reading
    std::string near;           ///< of a bridge: the other part
    std::string ref2, what2;    ///< of two faults at once: the second
};

/// The reading that would tell most next.
struct NextReading {
    std::string node, node2 = "0", quantity = "voltage", state, why;
    double gain = 0;  ///< expected information [nat]
    /// What is to be read there, without a value yet.
    CircuitReading reading() const;
};

struct Suspicion {
    std::vector<Suspect> suspects;  ///< the likeliest first
    NextReading next;               ///< an empty node: nothing would tell more
    bool unexplained = false;       ///< no fault, no pair and no sound circuit gives these readings
    bool sound = false;             ///< there are readings, and none speaks against a sound rig
    std::vector<double> spreads;    ///< of the readings, from parts within their tolerances [their unit]
};

/// Deviations from which on a reading speaks against something.
inline constexpr double kAgainst = 3;
/// Least information that a next reading is worth [nat].
inline constexpr double kWorthTelling = 0.02;

/// Hypotheses that are still believed, the likeliest first. @param share  of each
std::vector<std::size_t> believed(const std::vector<double>& share);

/// Hypotheses about one rig, each simulated once and kept: a new reading ranks them again at once.
class FaultFinder {
 public:
    /// @param kit  for designators and tolerances; may be null, else it must live as long as this
    FaultFinder(KitCircuit circuit, CircuitBench bench = {}, const Kit* kit = nullptr, BoardFaults board = {},
                FaultPriors priors = {});

    /// Simulate what these readings ask for and is not there yet: the long part. When no single fault
    /// explains them, the likeliest pairs are simulated, too.
    /// @param goOn  told how far it is, 0 … 1; false stops
    /// @return a Problem when a reading names what the circuit lacks, the circuit cannot be solved, or it was
    /// stopped
    Result<void> simulateFor(const std::vector<CircuitReading>& readings,
                             const std::function<bool(double)>& goOn = {});

    /// All hypotheses held against these readings, which were simulated for.
    /// @param states  in which the next reading may be taken; empty: any that was simulated
    Suspicion rank(const std::vector<CircuitReading>& readings,
                   const std::set<std::string>& states = {}) const;

    /// A resistance with the power off that would tell more, where no voltage does: across the leads of those
    /// that are believed most. An empty node: none would, or one suspect is enough ahead.
    /// @param ranked  of the same readings
    NextReading nextOhms(const std::vector<CircuitReading>& taken, const Suspicion& ranked) const;

    /// What a voltage would tell, given what was read: expected information [nat].
    double worth(const std::vector<CircuitReading>& taken, const CircuitReading& voltage) const;

    const KitCircuit& circuit() const { return circuit_; }
    const std::vector<Fault>& faults() const { return faults_; }
    /// Weigh the faults by what was seen of their parts, as weighBySeen does; what was simulated stays.
    void weighBy(const std::map<std::string, double>& seen);

 private:
    /// One state of the rig, simulated. The sound circuit is the first of all, then each fault.
    struct Sims {
        Netlist standing, sensed;
        std::vector<std::string> nodes;
        std::vector<bool> floats;                             ///< [node]: a meter there would read itself
        std::vector<std::vector<double>> volts;               ///< [hypothesis][node]
        std::map<std::string, std::vector<double>> currents;  ///< by element: [hypothesis]
        std::map<std::string, std::vector<double>> ohms;      ///< by "a b": [hypothesis]
        std::vector<std::vector<double>> voltSteps;           ///< [scatter place][node], of one deviation
        std::map<std::string, std::vector<double>> currentSteps;
        std::map<std::string, double> ohmSpread;
    };
    void keep(Sims& sims, std::size_t hypothesis, const Result<OperatingPoint>& point) const;
    Result<void> simulatePairs(const std::vector<CircuitReading>& readings,
                               const std::function<bool(double)>& goOn);
    std::vector<Fault> likelyPairs(const std::vector<CircuitReading>& readings) const;
    void forgetPairs();
    Result<void> simulateState(const std::string& state, const std::vector<CircuitReading>& here,
                               const std::function<bool(double)>& goOn);
    Result<void> simulateOhms(Sims& sims, const CircuitReading& r, const std::function<bool(double)>& goOn);
    double predicted(std::size_t hypothesis, const CircuitReading& r) const;
    /// What each part that scatters does to a reading, of one deviation.
    std::vector<double> steps(const CircuitReading& r) const;
    ReadingModel modelOf(const std::vector<CircuitReading>& readings, std::vector<double>& spreads) const;
    std::vector<double> shares(const std::vector<CircuitReading>& readings,
                               std::vector<std::vector<double>>& reads, std::vector<double>& spreads) const;
    double gain(const Sims& sims, std::size_t node, const std::vector<double>& share,
                const std::vector<std::size_t>& order) const;
    NextReading next(const std::vector<double>& share, const std::vector<CircuitReading>& taken,
                     const std::set<std::string>& states) const;
    std::string named(std::size_t hypothesis) const;
    std::string why(const NextReading& next, const std::vector<double>& share) const;

    KitCircuit circuit_;
    CircuitBench bench_;
    const Kit* kit_;
    std::vector<Fault> faults_;  ///< single ones, then pairs
    std::size_t singles_;
    std::vector<double> priors_;        ///< as they were before anything was seen
    std::map<std::string, Sims> sims_;  ///< by state, as the readings name it
};

/// All of it in one go, for a script.
Result<Suspicion> suspectsOf(const KitCircuit& circuit, const std::vector<CircuitReading>& readings,
                             const std::function<bool(double)>& goOn = {});

}  // namespace ombrek
