#include "practice/practice_circuit.h"

#include <algorithm>
#include <cmath>

#include "circuit/build_circuit.h"
#include "circuit/models.h"
#include "circuit/reads.h"
#include "circuit/simulator.h"
#include "core/quantity/quantity.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

constexpr double kMeterOhms = 10e6;

std::string keyOf(const CircuitReading& r) {
    return std::to_string(int(r.quantity)) + r.node + "," + r.node2 + " " + r.state;
}

}  // namespace

PracticeCircuit::PracticeCircuit(Kit kit, std::function<double(const std::string&)> scatter)
    : kit_(std::move(kit)), scatter_(std::move(scatter)) {
    if (kit_.circuit.empty()) return;
    auto read = readKitCircuit(kit_.circuit, shippedModels());
    if (read && simulatorThere()) circuit_ = std::move(*read);
}

std::vector<Fault> PracticeCircuit::faults() const {
    return circuit_ ? singleFaults(circuit_->netlist, &kit_, boardFaults(*circuit_, kit_), shippedPriors())
                    : std::vector<Fault>();
}

bool PracticeCircuit::seed(const std::string& words) {
    for (Fault& fault : faults()) {
        if (lowered(fault.ref + " " + fault.what) != lowered(trimmed(words))) continue;
        faults_.push_back(std::move(fault));
        points_.clear();
        return true;
    }
    return false;
}

void PracticeCircuit::setPart(const std::string& ref, double value) {
    if (!(value > 0)) return;
    bench_.measured[ref] = value;
    points_.clear();
}

void PracticeCircuit::setWiper(const std::string& ref, double position) {
    // Trimmer capacitors have no wiper, and carry no direct current.
    if (!circuit_ || circuit_->netlist.element(ref + "_a") == nullptr) return;
    const auto was = wipers_.find(ref);
    if (was != wipers_.end() && was->second == position) return;
    wipers_[ref] = position;
    points_.clear();
}

Netlist PracticeCircuit::standing(const std::string& name, bool sound) const {
    const CircuitState* known = circuit_->state(name);
    CircuitState state = known == nullptr ? CircuitState() : *known;
    for (const auto& [ref, position] : wipers_) state.values.emplace_back(ref, plainNumber(position));
    if (sound) return inState(*circuit_, &state, {}, &kit_);
    Netlist out = inState(*circuit_, &state, bench_, &kit_);
    for (const ScatterPlace& place : scatterPlaces(*circuit_, &kit_, bench_)) {
        // Half of the tolerance: a bag is better than its list.
        const double u = scatter_("circuit:" + place.element + place.model + place.parameter);
        scatter(out, place, 1 + 0.5 * u * place.percent / 100);
    }
    for (const Fault& fault : faults_) out = withFault(out, fault);
    return out;
}

/// With all that the circuit names in the same state: they are asked for together, as a rule.
std::optional<double> PracticeCircuit::read(const CircuitReading& r) {
    if (!points_.contains(keyOf(r))) {
        std::vector<CircuitReading> asked{r};
        for (const auto& [id, probe] : circuit_->probes) {
            if (probe.state == r.state && !sameProbe(probe, r)) asked.push_back(probe);
        }
        for (const auto& [name, stages] : circuit_->paths) {
            for (const CircuitReading& stage : stages) {
                if (stage.state == r.state && !sameProbe(stage, r)) asked.push_back(stage);
            }
        }
        const auto reads = readingsOf(standing(r.state, false), asked, kMeterOhms);
        for (std::size_t i = 0; i < asked.size(); ++i) points_.insert_or_assign(keyOf(asked[i]), reads[i]);
    }
    const double value = points_.at(keyOf(r));
    return std::isnan(value) ? std::nullopt : std::optional(value);
}

std::optional<double> PracticeCircuit::check(const std::string& id) {
    const Check* check = kit_.check(id);
    if (!circuit_ || check == nullptr) return std::nullopt;
    const auto probe = probeOf(*circuit_, kit_, *check);
    return probe ? read(*probe) : std::nullopt;
}

std::optional<double> PracticeCircuit::node(const std::string& id) {
    if (!circuit_) return std::nullopt;
    const auto probe = probeAt(id);
    return probe ? read(*probe) : std::nullopt;
}

std::optional<double> PracticeCircuit::currentBy(const std::string& wiper, double position,
                                                 const std::string& state) {
    const auto supply = circuit_ ? supplyName(circuit_->netlist) : std::nullopt;
    if (!supply || circuit_->state(state) == nullptr || circuit_->netlist.element(wiper + "_a") == nullptr)
        return std::nullopt;
    const CircuitReading asked{*supply, "0", CircuitReading::Quantity::current, 0, 0, state, 0};
    setWiper(wiper, 0);
    const auto without = read(asked);
    setWiper(wiper, position);
    const auto with = read(asked);
    return without && with ? std::optional(*with - *without) : std::nullopt;
}

double PracticeCircuit::works(const std::string& path) {
    const auto hit = circuit_ ? circuit_->paths.find(path) : decltype(circuit_->paths.find(path))();
    if (!circuit_ || hit == circuit_->paths.end()) return 1;
    auto& should = sound_[path];
    if (should.empty()) should = readingsOf(standing(hit->second.front().state, true), hit->second);
    std::vector<double> is;
    for (const CircuitReading& r : hit->second) is.push_back(read(r).value_or(NAN));
    return worksOf(is, should);
}

}  // namespace ombrek
