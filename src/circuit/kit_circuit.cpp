#include "circuit/kit_circuit.h"

#include <algorithm>
#include <cctype>
#include <cmath>

#include "circuit/deck.h"
#include "core/quantity/quantity.h"
#include "core/text/letters.h"
#include "kit/designator.h"

namespace ombrek {
namespace {

using What = CircuitReading::Quantity;

constexpr double kUsualTolerance = 5;  ///< of a resistor whose tolerance nobody says [%]
constexpr double kWiperEnd = 0.01;     ///< what is left of a track with its wiper at the end [Ω]

std::string stripped(const std::string& text) { return std::string(trimmed(text)); }

std::string key(const std::string& name) {
    std::string out;
    for (const char c : lowered(name)) {
        if (std::isalnum(static_cast<unsigned char>(c))) out += c;
    }
    return out;
}

std::vector<std::string> split(const std::string& text, char at) {
    std::vector<std::string> out;
    std::size_t from = 0;
    for (std::size_t i = 0; i <= text.size(); ++i) {
        if (i < text.size() && text[i] != at) continue;
        out.push_back(stripped(text.substr(from, i - from)));
        from = i + 1;
    }
    return out;
}

/// "name: only A B, without C, J4=0.05, power off"
Result<CircuitState> readState(const std::string& text) {
    const auto colon = text.find(':');
    if (colon == std::string::npos) return problem(stripped(text), "A state wants a colon behind its name.");
    CircuitState out;
    out.name = stripped(text.substr(0, colon));
    for (const std::string& change : split(text.substr(colon + 1), ',')) {
        const auto words = circuitWords(change);
        if (words.empty()) continue;
        const auto equals = change.find('=');
        if (lowered(change) == "power off") {
            out.powerOff = true;
        } else if (words[0] == "only") {
            out.only.assign(words.begin() + 1, words.end());
        } else if (words[0] == "without") {
            out.without.assign(words.begin() + 1, words.end());
        } else if (equals != std::string::npos) {
            out.values.emplace_back(stripped(change.substr(0, equals)), stripped(change.substr(equals + 1)));
        } else {
            return problem("state " + out.name, "\"" + change.substr(0, 40) + "\" is not understood.");
        }
    }
    return out;
}

tl::unexpected<Problem> noProbe(const std::string& text) {
    return problem(text.substr(0, 60), "This wants the form \"name: v(node) in state\".");
}

/// "name: v(node) v(a,b) i(element) r(a) in state": a name and what is read.
Result<std::pair<std::string, std::vector<CircuitReading>>> readProbes(const std::string& text) {
    const auto colon = text.find(':');
    std::vector<CircuitReading> out;
    std::size_t at = colon + 1;
    for (;;) {
        const auto open = text.find('(', at), close = text.find(')', at);
        if (open == std::string::npos || close == std::string::npos || close < open) break;
        const std::string what = lowered(stripped(text.substr(at, open - at)));
        const auto between = split(text.substr(open + 1, close - open - 1), ',');
        if (what.size() != 1 || std::string_view("vir").find(what[0]) == std::string_view::npos ||
            between[0].empty() || between.size() > 2)
            return noProbe(text);
        CircuitReading r;
        r.quantity = what == "v" ? What::voltage : what == "i" ? What::current : What::resistance;
        r.node = lowered(between[0]);
        if (between.size() == 2) r.node2 = lowered(between[1]);
        out.push_back(std::move(r));
        at = close + 1;
    }
    const std::string behind = stripped(text.substr(at));
    if (out.empty() || (!behind.empty() && !lowered(behind).starts_with("in "))) return noProbe(text);
    for (CircuitReading& r : out) r.state = behind.empty() ? "" : stripped(behind.substr(3));
    return std::pair(stripped(text.substr(0, colon)), out);
}

Result<void> takeRemark(const std::string& remark, KitCircuit& out) {
    const auto words = circuitWords(remark, true);
    if (words.size() < 2) return {};
    const std::string rest = stripped(stripped(remark).substr(words[0].size()));
    if (words[0] == "state" && rest.find(':') != std::string::npos) {
        auto state = readState(rest);
        if (!state) return tl::make_unexpected(state.error());
        out.states.push_back(std::move(*state));
    } else if ((words[0] == "check" || words[0] == "path") && rest.find(':') != std::string::npos) {
        auto probes = readProbes(rest);
        if (!probes) return tl::make_unexpected(probes.error());
        if (words[0] == "check") {
            out.probes.insert({probes->first, probes->second.front()});
        } else {
            out.paths.insert(std::move(*probes));
        }
    } else if (words[0] == "spread" && words.size() == 4) {
        const double percent = spiceNumber(words[3]);
        if (percent > 0 && percent < 100) out.spreads.push_back({words[1], words[2], percent});
    }
    return {};
}

bool hasNode(const Netlist& netlist, const std::string& node) {
    const std::string wanted = circuitNode(node);
    if (wanted == "0") return true;
    return std::any_of(netlist.elements.begin(), netlist.elements.end(), [&](const CircuitElement& e) {
        return std::find(e.nodes.begin(), e.nodes.end(), wanted) != e.nodes.end();
    });
}

bool named(const std::vector<std::string>& refs, const std::string& element, const Kit* kit) {
    if (refs.empty()) return false;
    const std::string ref = designatorOf(element, kit);
    return std::any_of(refs.begin(), refs.end(), [&](const std::string& r) {
        if (sameLetters(r, element) || sameLetters(r, ref)) return true;
        // Without a kit: the designator may stand behind SPICE's letter.
        return kit == nullptr && ref.size() > 1 && sameLetters(r, std::string_view(ref).substr(1));
    });
}

/// Where the value of "name=value" stands in a line: begin and length; npos when there is none.
std::pair<std::size_t, std::size_t> parameterPlace(const std::string& line, const std::string& name) {
    const std::string all = lowered(line), wanted = lowered(name);
    for (std::size_t at = all.find(wanted); at != std::string::npos && !wanted.empty();
         at = all.find(wanted, at + 1)) {
        if (at > 0 && std::string_view(" \t(").find(all[at - 1]) == std::string_view::npos) continue;
        std::size_t value = all.find_first_not_of(" \t", at + wanted.size());
        if (value == std::string::npos || all[value] != '=') continue;
        value = all.find_first_not_of(" \t", value + 1);
        if (value == std::string::npos) break;
        const std::size_t end = std::min(all.find_first_of(" \t)", value), all.size());
        return {value, end - value};
    }
    return {std::string::npos, 0};
}

void setParameter(std::string& line, const std::string& name, const std::string& value) {
    const auto [at, length] = parameterPlace(line, name);
    if (at != std::string::npos) line.replace(at, length, value);
}

double parameterOf(const std::string& line, const std::string& name) {
    const auto [at, length] = parameterPlace(line, name);
    return at == std::string::npos ? NAN : spiceNumber(line.substr(at, length));
}

std::string modelNameOf(const std::string& card) {
    const auto words = circuitWords(card, true);
    return words.size() > 1 && (words[0] == ".model" || words[0] == ".subckt") ? words[1] : "";
}

/// The wiper of a pair NAME_a, NAME_b at a share of the whole from b's end.
bool setWiper(Netlist& netlist, const std::string& name, double share) {
    CircuitElement* halves[2] = {nullptr, nullptr};
    for (CircuitElement& e : netlist.elements) {
        const std::string n = lowered(e.name), wanted = lowered(name);
        if (n == wanted + "_a") halves[0] = &e;
        if (n == wanted + "_b") halves[1] = &e;
    }
    if (halves[0] == nullptr || halves[1] == nullptr || !std::isfinite(share)) return false;
    const double whole = spiceNumber(halves[0]->word()) + spiceNumber(halves[1]->word());
    if (!(whole > 0)) return false;
    const double at = std::clamp(share, 0.0, 1.0);
    halves[0]->value = plainNumber(std::max(kWiperEnd, whole * (1 - at)));
    halves[1]->value = plainNumber(std::max(kWiperEnd, whole * at));
    return true;
}

void setValue(Netlist& netlist, const std::string& name, const std::string& value, const Kit* kit) {
    if (setWiper(netlist, name, spiceNumber(value))) return;
    for (CircuitElement& e : netlist.elements) {
        if (!named({name}, e.name, kit)) continue;
        e.value = value + e.value.substr(e.word().size());
        return;
    }
    for (std::string& card : netlist.cards) {
        if (circuitWords(card, true)[0] == ".param") setParameter(card, name, value);
    }
}

struct LeadWord {
    const char* word;
    const char* kinds;  ///< of elements that have it
    std::size_t node;
};
constexpr LeadWord kLeads[] = {{"collector", "q", 0}, {"base", "q", 1},   {"emitter", "q", 2},
                               {"drain", "jm", 0},    {"gate", "jm", 1},  {"source", "jm", 2},
                               {"anode", "d", 0},     {"cathode", "d", 1}};

Result<void> isThere(const KitCircuit& circuit, const std::string& name, const CircuitReading& probe) {
    if (!probe.state.empty() && circuit.state(probe.state) == nullptr)
        return problem(name, "There is no state \"" + probe.state + "\" in this circuit.");
    const bool there = probe.quantity == What::current
                           ? circuit.netlist.element(probe.node) != nullptr
                           : hasNode(circuit.netlist, probe.node) && hasNode(circuit.netlist, probe.node2);
    if (!there) return problem(name, "The circuit has no " + probe.node + ".");
    return {};
}

/// "U3 pin 8" → 8; 0 when no pin is named.
std::size_t pinIn(const std::string& at) {
    const auto pin = at.find("pin ");
    std::size_t out = 0;
    for (std::size_t i = pin == std::string::npos ? at.size() : pin + 4;
         i < at.size() && std::isdigit(static_cast<unsigned char>(at[i])) && out < 1000; ++i)
        out = out * 10 + std::size_t(at[i] - '0');
    return out;
}

}  // namespace

const CircuitState* KitCircuit::state(const std::string& name) const {
    const auto hit = std::find_if(states.begin(), states.end(),
                                  [&](const CircuitState& s) { return key(s.name) == key(name); });
    return hit == states.end() ? nullptr : &*hit;
}

Result<KitCircuit> readKitCircuit(const std::string& text, const std::string& models) {
    auto netlist = readNetlist(text, models);
    if (!netlist) return tl::make_unexpected(netlist.error());
    KitCircuit out;
    out.netlist = std::move(*netlist);
    for (const std::string& remark : out.netlist.remarks) {
        if (const auto taken = takeRemark(remark, out); !taken) return tl::make_unexpected(taken.error());
    }
    // What the simulator will be given is written once here, so that a fault has its line.
    if (const auto deck = deckOf(out.netlist); !deck) return tl::make_unexpected(deck.error());
    for (const auto& [id, probe] : out.probes) {
        if (const auto there = isThere(out, id, probe); !there) return tl::make_unexpected(there.error());
    }
    for (const auto& [name, probes] : out.paths) {
        for (const CircuitReading& probe : probes) {
            if (const auto there = isThere(out, name, probe); !there)
                return tl::make_unexpected(there.error());
        }
    }
    return out;
}

std::string designatorOf(const std::string& element, const Kit* kit) {
    const std::string_view whole = element, name = whole.substr(0, whole.find('_'));
    if (kit == nullptr || name.size() < 2) return std::string(name);
    for (const std::string_view candidate : {whole, name, whole.substr(1), name.substr(1)}) {
        for (const Part& part : kit->parts) {
            if (sameLetters(part.ref, candidate)) return part.ref;
        }
    }
    return std::string(name);
}

std::optional<CircuitReading> probeOf(const KitCircuit& circuit, const Kit& kit, const Check& check) {
    if (const auto hit = circuit.probes.find(check.id); hit != circuit.probes.end()) return hit->second;
    if (check.unit != Unit::volt || check.diode || check.yesNo() || !check.to.empty()) return std::nullopt;
    const std::string at = lowered(check.at);
    const std::size_t pin = pinIn(at);
    for (const CircuitElement& e : circuit.netlist.elements) {
        if (!namesPart(check.at, designatorOf(e.name, &kit))) continue;
        CircuitReading out;
        out.state = circuit.state(check.condition) != nullptr ? check.condition : "";
        if (!check.condition.empty() && out.state.empty() && !circuit.states.empty()) return std::nullopt;
        if (pin > 0 && e.kind() == 'x') {
            if (pin > e.nodes.size()) return std::nullopt;
            out.node = e.nodes[pin - 1];
            return out;
        }
        for (const LeadWord& lead : kLeads) {
            if (std::string_view(lead.kinds).find(e.kind()) == std::string_view::npos ||
                at.find(lead.word) == std::string::npos)
                continue;
            out.node = e.nodes[lead.node];
            return out;
        }
    }
    return std::nullopt;
}

namespace {
constexpr std::string_view kOhmsOf = "ohms ";
}  // namespace

std::optional<CircuitReading> probeAt(const std::string& words) {
    const bool ohms = words.starts_with(kOhmsOf);
    const std::string rest = ohms ? words.substr(kOhmsOf.size()) : words;
    const auto in = rest.find(" in ");
    const auto nodes = split(rest.substr(0, in), ',');
    if (nodes.size() > 2 || nodes[0].empty()) return std::nullopt;
    CircuitReading out;
    if (ohms) out.quantity = CircuitReading::Quantity::resistance;
    out.node = lowered(nodes[0]);
    if (nodes.size() == 2) out.node2 = lowered(nodes[1]);
    if (in != std::string::npos) out.state = stripped(rest.substr(in + 4));
    return out;
}

std::string probeWords(const CircuitReading& r) {
    return std::string(r.quantity == CircuitReading::Quantity::resistance ? kOhmsOf : "") + r.node +
           (r.node2 == "0" ? "" : "," + r.node2) + (r.state.empty() ? "" : " in " + r.state);
}

std::optional<std::string> supplyName(const Netlist& netlist) {
    const CircuitElement* best = nullptr;
    for (const CircuitElement& e : netlist.elements) {
        if (e.kind() != 'v' || e.nodes.size() != 2 || (e.nodes[0] != "0" && e.nodes[1] != "0")) continue;
        const double volts = std::abs(sourceValue(e));
        if (volts > 0 && (best == nullptr || volts > std::abs(sourceValue(*best)))) best = &e;
    }
    return best == nullptr ? std::nullopt : std::optional(best->name);
}

Netlist inState(const KitCircuit& circuit, const CircuitState* state, const CircuitBench& bench,
                const Kit* kit) {
    Netlist out = circuit.netlist;
    for (CircuitElement& e : out.elements) {
        if (bench.measured.empty()) break;
        if (e.kind() != 'r' || e.name.find('_') != std::string::npos || !std::isfinite(spiceNumber(e.word())))
            continue;
        const std::string mine = designatorOf(e.name, kit);
        for (const auto& [ref, value] : bench.measured) {
            if (value > 0 && sameLetters(mine, ref))
                e.value = plainNumber(value) + e.value.substr(e.word().size());
        }
    }
    const auto supply = std::isfinite(bench.supply) ? supplyName(out) : std::nullopt;
    for (CircuitElement& e : out.elements) {
        if (supply && e.name == *supply)
            e.value = plainNumber(sourceValue(e) < 0 ? -bench.supply : bench.supply);
    }
    if (state == nullptr) return out;
    std::erase_if(out.elements, [&](const CircuitElement& e) {
        if (!state->only.empty() && !named(state->only, e.name, kit)) return true;
        if (named(state->without, e.name, kit)) return true;
        return state->powerOff && (e.kind() == 'v' || e.kind() == 'i') && sourceValue(e) != 0;
    });
    for (const auto& [name, value] : state->values) setValue(out, name, value, kit);
    return out;
}

std::vector<ScatterPlace> scatterPlaces(const KitCircuit& circuit, const Kit* kit,
                                        const CircuitBench& bench) {
    std::vector<ScatterPlace> out;
    for (const CircuitElement& e : circuit.netlist.elements) {
        if (e.kind() == 'r') {
            const double ohms = spiceNumber(e.word());
            // A wire, a gap and a measured part are what they are.
            if (!(ohms > 0.5 && ohms < 1e8)) continue;
            const std::string ref = designatorOf(e.name, kit);
            if (bench.measured.contains(ref)) continue;
            const Part* part = kit == nullptr ? nullptr : kit->part(ref);
            out.push_back({e.name, "", "",
                           part != nullptr && part->tolerance > 0 ? part->tolerance : kUsualTolerance, true});
        }
        if (e.kind() != 'x') continue;
        for (const CircuitSpread& s : circuit.spreads) {
            if (s.model == lowered(e.word())) out.push_back({e.name, s.model, s.parameter, s.percent, false});
        }
    }
    for (const CircuitSpread& s : circuit.spreads) {
        for (const std::string& card : circuit.netlist.cards) {
            if (circuitWords(card, true)[0] == ".model" && modelNameOf(card) == s.model)
                out.push_back({"", s.model, s.parameter, s.percent, false});
        }
    }
    return out;
}

void scatter(Netlist& netlist, const ScatterPlace& place, double factor) {
    if (place.element.empty()) {
        for (std::string& card : netlist.cards) {
            if (modelNameOf(card) != place.model) continue;
            const double value = parameterOf(card, place.parameter);
            if (std::isfinite(value)) setParameter(card, place.parameter, plainNumber(value * factor));
        }
        return;
    }
    for (CircuitElement& e : netlist.elements) {
        if (e.name != place.element) continue;
        if (place.resistor) {
            e.value = plainNumber(spiceNumber(e.word()) * factor) + e.value.substr(e.word().size());
            return;
        }
        double value = parameterOf(e.value, place.parameter);
        if (std::isfinite(value)) {
            setParameter(e.value, place.parameter, plainNumber(value * factor));
            return;
        }
        for (const std::string& card : netlist.cards) {
            if (modelNameOf(card) == place.model) value = parameterOf(card, place.parameter);
        }
        if (std::isfinite(value)) e.value += " " + place.parameter + "=" + plainNumber(value * factor);
        return;
    }
}

}  // namespace ombrek
