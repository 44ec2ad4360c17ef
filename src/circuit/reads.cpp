#include "circuit/reads.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <set>

#include "core/quantity/quantity.h"
#include "formats/encoding.h"

namespace ombrek {
namespace {

using What = CircuitReading::Quantity;

constexpr double kOhmmeterVolts = 0.5, kOhmmeterOhms = 1000;

}  // namespace

Netlist withSenses(const Netlist& circuit, const std::vector<CircuitReading>& asked) {
    Netlist out = circuit;
    std::set<std::string> done;
    for (const CircuitReading& r : asked) {
        if (r.quantity != What::current || !done.insert(lowered(r.node)).second) continue;
        for (std::size_t at = 0; at < circuit.elements.size(); ++at) {
            CircuitElement& e = out.elements[at];
            if (lowered(e.name) != lowered(r.node) || e.nodes.empty() || e.kind() == 'v') continue;
            const std::string lead = "ombrek_sense_" + lowered(e.name);
            CircuitElement sense{"V" + lead, {e.nodes[0], lead}, "0"};
            e.nodes[0] = lead;
            out.elements.push_back(std::move(sense));
            break;
        }
    }
    return out;
}

std::string currentName(const Netlist& circuit, const std::string& element) {
    const CircuitElement* e = circuit.element(element);
    return e != nullptr && e->kind() == 'v' ? lowered(element) : "vombrek_sense_" + lowered(element);
}

Netlist withOhmmeter(const Netlist& circuit, const std::string& node, const std::string& node2) {
    Netlist out = circuit;
    std::erase_if(out.elements, [](const CircuitElement& e) {
        return (e.kind() == 'v' || e.kind() == 'i') && sourceValue(e) != 0;
    });
    out.elements.push_back({"Vombrek_ohms", {"ombrek_ohms", node2}, plainNumber(kOhmmeterVolts)});
    out.elements.push_back({"Rombrek_ohms", {"ombrek_ohms", node}, plainNumber(kOhmmeterOhms)});
    return out;
}

double ohmsOf(const OperatingPoint& point, const std::string& node, const std::string& node2) {
    const double volts = point.between(node, node2);
    const double amps = (kOhmmeterVolts - volts) / kOhmmeterOhms;
    if (std::isnan(volts)) return NAN;
    if (!(amps > kOhmmeterVolts / kBeyondRange)) return INFINITY;
    return std::max(0.0, volts / amps);
}

double liveRead(const OperatingPoint& point, const Netlist& circuit, const CircuitReading& r) {
    if (r.quantity == What::voltage) return point.between(circuitNode(r.node), circuitNode(r.node2));
    const auto hit = point.currents.find(currentName(circuit, r.node));
    return hit == point.currents.end() ? NAN : std::abs(hit->second);
}

std::vector<double> readingsOf(const Netlist& circuit, const std::vector<CircuitReading>& asked,
                               double meterOhms) {
    std::vector<double> out(asked.size(), NAN);
    const auto isLive = [&](const CircuitReading& r) {
        return r.quantity == What::current || (r.quantity == What::voltage && !(meterOhms > 0));
    };
    const Netlist sensed = withSenses(circuit, asked);
    if (std::any_of(asked.begin(), asked.end(), isLive)) {
        if (const auto point = operatingPoint(sensed)) {
            for (std::size_t i = 0; i < asked.size(); ++i) {
                if (isLive(asked[i])) out[i] = liveRead(*point, circuit, asked[i]);
            }
        }
    }
    for (std::size_t i = 0; i < asked.size(); ++i) {
        const std::string node = circuitNode(asked[i].node), node2 = circuitNode(asked[i].node2);
        if (asked[i].quantity == What::resistance) {
            const auto point = operatingPoint(withOhmmeter(circuit, node, node2));
            if (point) out[i] = ohmsOf(*point, node, node2);
        } else if (!isLive(asked[i])) {
            Netlist loaded = circuit;
            loaded.elements.push_back({"Rombrek_meter", {node, node2}, plainNumber(meterOhms)});
            if (const auto point = operatingPoint(loaded)) out[i] = point->between(node, node2);
        }
    }
    return out;
}

}  // namespace ombrek
