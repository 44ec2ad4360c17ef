#include "circuit/expected_reading.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "circuit/reads.h"

namespace ombrek {
namespace {

constexpr double kStep = 0.02;  ///< by which a place is moved to see what it does

/// Variances of what is read in one state, by the circuit's sensitivities.
bool addSpread(const KitCircuit& circuit, const Kit* kit, const CircuitBench& bench,
               const CircuitState* state, const std::vector<CircuitReading>& asked,
               const std::vector<double>& sound, std::vector<double>& variance,
               const std::function<bool(double)>& goOn) {
    const Netlist standing = inState(circuit, state, bench, kit);
    const auto places = scatterPlaces(circuit, kit, bench);
    for (std::size_t p = 0; p < places.size(); ++p) {
        if (goOn && !goOn(double(p) / double(places.size()))) return false;
        Netlist moved = standing;
        scatter(moved, places[p], 1 + kStep);
        const auto reads = readingsOf(moved, asked);
        for (std::size_t i = 0; i < asked.size(); ++i) {
            const double slope = (reads[i] - sound[i]) / kStep * places[p].percent / 100 / std::sqrt(3.0);
            if (std::isfinite(slope)) variance[i] += slope * slope;
        }
    }
    return true;
}

}  // namespace

Result<std::vector<ExpectedReading>> expectedReadings(const KitCircuit& circuit, const Kit* kit,
                                                      const CircuitBench& bench,
                                                      const std::vector<CircuitReading>& asked,
                                                      const CircuitMeter& meter,
                                                      const std::function<bool(double)>& goOn) {
    if (!simulatorThere()) return tl::make_unexpected(operatingPoint(circuit.netlist).error());
    std::vector<ExpectedReading> out(asked.size());
    std::set<std::string> states;
    for (const CircuitReading& r : asked) states.insert(r.state);
    std::size_t stateNumber = 0;
    for (const std::string& name : states) {
        std::vector<CircuitReading> here;
        std::vector<std::size_t> places;
        for (std::size_t i = 0; i < asked.size(); ++i) {
            if (asked[i].state != name) continue;
            here.push_back(asked[i]);
            places.push_back(i);
        }
        const CircuitState* state = circuit.state(name);
        const Netlist standing = inState(circuit, state, bench, kit);
        const auto sound = readingsOf(standing, here), loaded = readingsOf(standing, here, meter.ohms);
        std::vector<double> variance(here.size(), 0.0);
        const double begun = double(stateNumber++) / double(states.size());
        const auto share = [&](double part) { return !goOn || goOn(begun + part / double(states.size())); };
        if (!addSpread(circuit, kit, bench, state, here, sound, variance, share))
            return problem("", "Stopped.");
        for (std::size_t i = 0; i < here.size(); ++i) {
            ExpectedReading& e = out[places[i]];
            e.unloaded = sound[i];
            e.value = loaded[i];
            const double error = (meter.percent / 100 * std::abs(e.value) +
                                  (here[i].quantity == CircuitReading::Quantity::voltage ? meter.floor : 0)) /
                                 std::sqrt(3.0);
            const double wide = 2 * std::sqrt(variance[i] + error * error);
            e.low = std::isinf(e.value) ? kBeyondRange : e.value - wide;
            e.high = e.value + wide;
        }
    }
    return out;
}

}  // namespace ombrek
