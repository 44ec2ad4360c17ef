#include "circuit/simulator.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <map>
#include <mutex>

#include "circuit/deck.h"
#include "circuit/simulator_process.h"
#include "core/quantity/quantity.h"
#include "core/text/letters.h"

namespace ombrek {

double OperatingPoint::between(const std::string& node, const std::string& other) const {
    const auto at = [&](const std::string& name) {
        if (name == "0") return 0.0;
        const auto hit = volts.find(name);
        return hit == volts.end() ? NAN : hit->second;
    };
    return at(node) - at(other);
}

namespace {

SimulatorProcess& process() {
    static SimulatorProcess one;
    return one;
}

std::mutex& turn() {
    static std::mutex one;
    return one;
}

/// What the simulator said, with the circuit's own names.
std::string inOwnWords(const std::string& said, const Deck& deck) {
    std::string out, word;
    const auto end = [&] {
        const auto node = deck.nodes.find(lowered(word));
        out += node == deck.nodes.end() ? word : node->second;
        word.clear();
    };
    for (const char c : said) {
        if (std::isalnum(static_cast<unsigned char>(c))) {
            word += c;
        } else {
            end();
            out += c;
        }
    }
    end();
    return out;
}

tl::unexpected<Problem> failed(const std::string& said, const Deck& deck) {
    return problem("", said.empty() || said == "there is none"
                           ? "This circuit has no operating point that the simulator finds."
                           : "The simulator finds no operating point: " + inOwnWords(said, deck));
}

/// Nodes that a fault was made with are nobody's to read.
bool own(const std::string& node) { return node.starts_with("ombrek_"); }

OperatingPoint pointOf(const std::vector<std::pair<std::string, double>>& values, const Deck& deck) {
    OperatingPoint out;
    for (const auto& [name, value] : values) {
        if (const auto branch = name.find("#branch"); branch != std::string::npos) {
            if (const auto hit = deck.branches.find(name.substr(0, branch)); hit != deck.branches.end())
                out.currents[hit->second] = value;
        } else if (const auto hit = deck.nodes.find(name); hit != deck.nodes.end() && !own(hit->second)) {
            out.volts[hit->second] = value;
        }
    }
    return out;
}

/// The request for one set: each resistor with its value now and after.
std::string request(const std::vector<Alteration>& set, const Deck& deck,
                    const std::map<std::string, double>& stands) {
    std::string rows;
    std::size_t count = 0;
    for (const Alteration& a : set) {
        const std::string name = lowered(a.resistor);
        const auto alias = deck.resistors.find(name);
        const auto stood = stands.find(name);
        if (alias == deck.resistors.end() || stood == stands.end() || !std::isfinite(a.ohms)) continue;
        rows += alias->second + ' ' + plainNumber(a.ohms) + ' ' + plainNumber(stood->second) + '\n';
        ++count;
    }
    return "S " + std::to_string(count) + '\n' + rows;
}

Result<void> readBy(SimulatorProcess& spice, const Deck& deck) {
    if (const auto started = spice.start(); !started) return started;
    std::string text = "C " + std::to_string(deck.lines.size()) + '\n';
    for (const std::string& line : deck.lines) text += line + '\n';
    const auto answer = spice.ask(text);
    if (!answer) return tl::make_unexpected(answer.error());
    if (*answer != "ok") return failed(answer->substr(std::min<std::size_t>(3, answer->size())), deck);
    return {};
}

Result<OperatingPoint> solvedBy(SimulatorProcess& spice, const Deck& deck, const std::string& request) {
    const auto answer = spice.ask(request);
    if (!answer) return tl::make_unexpected(answer.error());
    if (!answer->starts_with("p "))
        return failed(answer->substr(std::min<std::size_t>(3, answer->size())), deck);
    const auto values = spice.values(answer->substr(2));
    if (!values) return tl::make_unexpected(values.error());
    return pointOf(*values, deck);
}

}  // namespace

Result<OperatingPoint> operatingPoint(const Netlist& netlist) {
    Result<OperatingPoint> out;
    const auto read = operatingPoints(netlist, {{}}, [&](std::size_t, const Result<OperatingPoint>& point) {
        out = point;
        return true;
    });
    if (!read) return tl::make_unexpected(read.error());
    return out;
}

Result<void> operatingPoints(const Netlist& netlist, const std::vector<std::vector<Alteration>>& sets,
                             const std::function<bool(std::size_t, const Result<OperatingPoint>&)>& take) {
    const std::lock_guard guard(turn());
    const auto deck = deckOf(netlist);
    if (!deck) return tl::make_unexpected(deck.error());
    SimulatorProcess& spice = process();
    if (const auto read = readBy(spice, *deck); !read) return read;
    std::map<std::string, double> stands;
    for (const CircuitElement& e : netlist.elements) {
        if (e.kind() == 'r') stands.emplace(lowered(e.name), spiceNumber(e.word()));
    }
    for (std::size_t i = 0; i < sets.size(); ++i) {
        if (!spice.running()) {
            // One of them made the simulator give up: the next begin anew.
            if (const auto read = readBy(spice, *deck); !read) return read;
        }
        if (!take(i, solvedBy(spice, *deck, request(sets[i], *deck, stands)))) break;
    }
    return {};
}

bool simulatorThere() {
    const std::lock_guard guard(turn());
    return process().start().has_value();
}

}  // namespace ombrek
