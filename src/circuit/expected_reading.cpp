#include "circuit/expected_reading.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "circuit/reads.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

constexpr double kStep = 0.02;  ///< by which a place is moved to see what it does

/// Whether a place has anything to do with what stands in a state.
bool matters(const ScatterPlace& place, const Netlist& standing) {
    if (!place.element.empty()) return standing.element(place.element) != nullptr;
    return std::any_of(standing.elements.begin(), standing.elements.end(),
                       [&](const CircuitElement& e) { return lowered(e.word()) == place.model; });
}

/// Variances of what is read in one state, by the circuit's sensitivities.
bool addSpread(const Netlist& standing, const std::vector<ScatterPlace>& places,
               const std::vector<CircuitReading>& asked, const std::vector<double>& sound,
               std::vector<double>& variance, const std::function<bool(double)>& goOn) {
    std::size_t done = 0;
    bool stopped = false;
    const auto on = [&] {
        stopped = stopped || (goOn && !goOn(double(++done) / double(places.size() + 1)));
        return !stopped;
    };
    const auto add = [&](const std::vector<double>& reads, double percent) {
        for (std::size_t i = 0; i < asked.size(); ++i) {
            const double slope = (reads[i] - sound[i]) / kStep * percent / 100 / std::sqrt(3.0);
            if (std::isfinite(slope)) variance[i] += slope * slope;
        }
    };
    std::vector<std::vector<Alteration>> sets;
    std::vector<double> percents;
    for (const ScatterPlace& place : places) {
        if (!matters(place, standing)) continue;
        if (place.resistor) {
            const double ohms = spiceNumber(standing.element(place.element)->word());
            sets.push_back({{place.element, ohms * (1 + kStep)}});
            percents.push_back(place.percent);
            continue;
        }
        if (!on()) return false;
        Netlist moved = standing;
        scatter(moved, place, 1 + kStep);
        add(readingsOf(moved, asked), place.percent);
    }
    const auto rows = readingsWith(standing, asked, sets, on);
    for (std::size_t i = 0; i < rows.size(); ++i) add(rows[i], percents[i]);
    return !stopped;
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
    const auto places = scatterPlaces(circuit, kit, bench);
    std::size_t stateNumber = 0;
    for (const std::string& name : states) {
        std::vector<CircuitReading> here;
        std::vector<std::size_t> at;
        for (std::size_t i = 0; i < asked.size(); ++i) {
            if (asked[i].state != name) continue;
            here.push_back(asked[i]);
            at.push_back(i);
        }
        const CircuitState* state = circuit.state(name);
        const Netlist standing = inState(circuit, state, bench, kit);
        const auto sound = readingsOf(standing, here), loaded = readingsOf(standing, here, meter.ohms);
        std::vector<double> variance(here.size(), 0.0);
        const double begun = double(stateNumber++) / double(states.size());
        const auto share = [&](double part) { return !goOn || goOn(begun + part / double(states.size())); };
        if (!addSpread(standing, places, here, sound, variance, share)) return problem("", "Stopped.");
        for (std::size_t i = 0; i < here.size(); ++i) {
            ExpectedReading& e = out[at[i]];
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
