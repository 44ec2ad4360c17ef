#include "circuit/fault.h"

#include <algorithm>
#include <cmath>
#include <functional>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

constexpr const char* kOpen = "1e10";   ///< [Ω], a gap
constexpr const char* kShort = "0.05";  ///< [Ω], a bridge

/// The circuit with one element changed by `change`; elements that it adds come last.
Netlist with(const Netlist& circuit, std::size_t at,
             const std::function<void(CircuitElement&, Netlist&)>& change) {
    Netlist out = circuit;
    CircuitElement element = out.elements[at];
    change(element, out);
    out.elements[at] = std::move(element);
    return out;
}

/// The element is cut off at one of its nodes.
Netlist cut(const Netlist& circuit, std::size_t at, std::size_t node) {
    return with(circuit, at, [&](CircuitElement& e, Netlist& all) {
        const std::string lead = "ombrek_gap";
        all.elements.push_back({"Rombrek_gap", {e.nodes[node], lead}, kOpen});
        e.nodes[node] = lead;
    });
}

/// Two of its nodes are joined.
Netlist joined(const Netlist& circuit, std::size_t at, std::size_t a, std::size_t b) {
    return with(circuit, at, [&](CircuitElement& e, Netlist& all) {
        all.elements.push_back({"Rombrek_bridge", {e.nodes[a], e.nodes[b]}, kShort});
    });
}

Netlist swapped(const Netlist& circuit, std::size_t at, std::size_t a, std::size_t b) {
    return with(circuit, at, [&](CircuitElement& e, Netlist&) { std::swap(e.nodes[a], e.nodes[b]); });
}

Netlist scaled(const Netlist& circuit, std::size_t at, double by) {
    return with(circuit, at, [&](CircuitElement& e, Netlist&) {
        const std::string word = e.word();
        e.value = plainNumber(spiceNumber(word) * by) + e.value.substr(word.size());
    });
}

/// Nodes of a transistor by their names.
struct Leads {
    const char* name;
    std::size_t node;
};
constexpr Leads kBipolar[] = {{"collector", 0}, {"base", 1}, {"emitter", 2}};
constexpr Leads kField[] = {{"drain", 0}, {"gate", 1}, {"source", 2}};

void addTransistor(const Netlist& c, std::size_t at, const Leads (&leads)[3], std::vector<Fault>& out) {
    const std::string& ref = c.elements[at].name;
    for (const Leads& lead : leads)
        out.push_back({ref, std::string(lead.name) + " open", 0.7, cut(c, at, lead.node)});
    for (int i = 0; i < 3; ++i) {
        for (int j = i + 1; j < 3; ++j) {
            const std::string pair = std::string(leads[i].name) + " and " + leads[j].name;
            const std::size_t a = leads[i].node, b = leads[j].node;
            if (c.elements[at].nodes[a] == c.elements[at].nodes[b]) continue;
            out.push_back({ref, pair + " shorted", 0.5, joined(c, at, a, b)});
            out.push_back({ref, "turned round, " + pair + " swapped", 0.5, swapped(c, at, a, b)});
        }
    }
}

void addTwoLeads(const Netlist& c, std::size_t at, std::vector<Fault>& out) {
    const CircuitElement& e = c.elements[at];
    const char kind = e.kind();
    const bool plain = std::isfinite(spiceNumber(e.word()));
    if (kind != 'c') out.push_back({e.name, "open", kind == 'r' ? 1.2 : 0.8, cut(c, at, 0)});
    if (e.nodes[0] != e.nodes[1] && kind != 'l')
        out.push_back({e.name, "short", kind == 'c' ? 0.8 : kind == 'd' ? 0.6 : 0.3, joined(c, at, 0, 1)});
    if (kind == 'd') out.push_back({e.name, "turned round", 1.0, swapped(c, at, 0, 1)});
    if (kind == 'r' && plain) {
        out.push_back({e.name, "ten times its value", 0.8, scaled(c, at, 10)});
        out.push_back({e.name, "a tenth of its value", 0.8, scaled(c, at, 0.1)});
    }
}

}  // namespace

std::vector<Fault> singleFaults(const Netlist& c) {
    std::vector<Fault> out;
    for (std::size_t at = 0; at < c.elements.size(); ++at) {
        const CircuitElement& e = c.elements[at];
        switch (e.kind()) {
            case 'r':
            case 'c':
            case 'l':
            case 'd':
                addTwoLeads(c, at, out);
                break;
            case 'q':
                addTransistor(c, at, kBipolar, out);
                break;
            case 'j':
            case 'm':
                addTransistor(c, at, kField, out);
                break;
            case 'v':
                // A source that gives nothing; one of 0 V is a place where a current is read.
                if (sourceValue(e) != 0) out.push_back({e.name, "open", 0.4, cut(c, at, 0)});
                break;
            case 'x':
                for (std::size_t node = 0; node < e.nodes.size(); ++node) {
                    if (e.nodes[node] != "0")
                        out.push_back(
                            {e.name, "pin " + std::to_string(node + 1) + " open", 0.5, cut(c, at, node)});
                }
                break;
            default:
                break;
        }
    }
    return out;
}

}  // namespace ombrek
