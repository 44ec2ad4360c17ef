#include "circuit/network_of.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>
#include <set>

#include "core/text/letters.h"

namespace ombrek {
namespace {

constexpr int kDeepestCall = 20;       ///< subcircuits within subcircuits
constexpr std::size_t kMost = 100000;  ///< parts

using Elements = std::vector<CircuitElement>;
using Values = std::map<std::string, double>;

/// A subcircuit of the circuit's own cards.
struct Inner {
    std::vector<std::string> pins;
    std::vector<std::string> lines;
};

/// What the cards define: subcircuits, and .param values that are plain numbers.
struct Cards {
    std::map<std::string, Inner> inner;
    Values params;
};

Cards cardsOf(const Netlist& netlist) {
    Cards out;
    Inner* open = nullptr;
    for (const std::string& card : netlist.cards) {
        const auto words = circuitWords(card, true);
        if (words.empty()) continue;
        if (words[0] == ".subckt" && words.size() > 1) {
            open = &out.inner[words[1]];
            for (std::size_t i = 2; i < words.size() && words[i].find('=') == std::string::npos; ++i)
                open->pins.push_back(circuitNode(words[i]));
        } else if (words[0] == ".ends") {
            open = nullptr;
        } else if (words[0] == ".param") {
            for (std::size_t i = 1; i < words.size(); ++i) {
                const auto equals = words[i].find('=');
                if (equals != std::string::npos)
                    out.params[words[i].substr(0, equals)] = spiceNumber(words[i].substr(equals + 1));
            }
        } else if (open != nullptr) {
            open->lines.push_back(card);
        }
    }
    return out;
}

/// Subcircuits put in the place of what calls them.
Result<Elements> flattened(const Elements& elements, const Cards& cards, int depth = 0) {
    Elements out;
    for (const CircuitElement& e : elements) {
        if (e.kind() != 'x') {
            out.push_back(e);
            continue;
        }
        const auto hit = cards.inner.find(lowered(e.word()));
        if (hit == cards.inner.end() || hit->second.pins.size() != e.nodes.size() || depth == kDeepestCall)
            return problem(e.name, "calls the subcircuit \"" + e.word() + "\", which does not fit it.");
        std::string text = "inside\n";
        for (const std::string& line : hit->second.lines) text += line + '\n';
        auto inside = readNetlist(text);
        if (!inside) return tl::make_unexpected(Problem{e.name, inside.error().sentence});
        for (CircuitElement& part : inside->elements) {
            part.name += '.' + e.name;
            for (std::string& node : part.nodes) {
                const auto pin = std::find(hit->second.pins.begin(), hit->second.pins.end(), node);
                if (pin != hit->second.pins.end())
                    node = e.nodes[std::size_t(pin - hit->second.pins.begin())];
                else if (node != "0")
                    node += '.' + lowered(e.name);
            }
        }
        const auto deeper = flattened(inside->elements, cards, depth + 1);
        if (!deeper) return deeper;
        out.insert(out.end(), deeper->begin(), deeper->end());
        if (out.size() > kMost) return problem(e.name, "makes more than 100,000 parts.");
    }
    return out;
}

/// "1u", "{l1}", "value=1u", "l1" of a .param.
double numberOf(std::string word, const Values& params) {
    if (word.starts_with("{") && word.ends_with("}")) word = word.substr(1, word.size() - 2);
    const auto hit = params.find(word);
    return hit == params.end() ? spiceNumber(word) : hit->second;
}

/// Parameters behind the nodes: "rser=0.1" by name; what stands without a name is under "".
Values figuresOf(const CircuitElement& e, const Values& params) {
    Values out;
    for (const std::string& word : circuitWords(e.value, true)) {
        const auto equals = word.find('=');
        const std::string name = equals == std::string::npos ? "" : word.substr(0, equals);
        out.try_emplace(name, numberOf(equals == std::string::npos ? word : word.substr(equals + 1), params));
    }
    for (const char* plain : {"r", "l", "c", "value"}) {
        const auto hit = out.find(plain);
        if (!out.contains("") && hit != out.end()) out[""] = hit->second;
    }
    return out;
}

double figure(const Values& figures, const char* name, double otherwise) {
    const auto hit = figures.find(name);
    return hit == figures.end() ? otherwise : hit->second;
}

/// What a source with its resistor, or a load, is: the measuring set-up around the network.
struct Port {
    std::string node;
    double ohms = NAN;
};

class NetworkReader {
 public:
    NetworkReader(const Netlist& netlist, Elements elements, Values params)
        : netlist_(netlist), elements_(std::move(elements)), params_(std::move(params)) {}

    Result<ReadNetwork> read(const std::string& in, const std::string& out) {
        std::vector<Port> ports = sources();
        const bool setUp = !ports.empty();
        if (!in.empty()) {
            ports.resize(std::max<std::size_t>(ports.size(), 1));
            ports[0] = {circuitNode(in), NAN};
        }
        if (ports.empty()) ports.push_back({called(kIn), NAN});
        if (ports.size() < 2)
            ports.push_back(outPort(out, setUp));
        else if (!out.empty())
            ports[1] = {circuitNode(out), NAN};
        if (lowered(out) == "none") ports.resize(1);
        if (ports.size() > 2) return problem("", "This circuit has more than two ports: say which two.");
        guess(ports);
        return build(ports);
    }

 private:
    static const std::vector<std::string> kIn, kOut;

    bool left(std::size_t i) const { return out_.contains(i); }

    std::vector<std::size_t> at(const std::string& node) const {
        std::vector<std::size_t> out;
        for (std::size_t i = 0; i < elements_.size(); ++i) {
            const auto& nodes = elements_[i].nodes;
            if (!left(i) && std::find(nodes.begin(), nodes.end(), node) != nodes.end()) out.push_back(i);
        }
        return out;
    }

    std::string called(const std::vector<std::string>& names) const {
        const auto nodes = nodesNow();
        for (const std::string& name : names) {
            if (std::find(nodes.begin(), nodes.end(), name) != nodes.end()) return name;
        }
        return {};
    }

    std::vector<std::string> nodesNow() const {
        std::vector<std::string> out;
        for (std::size_t i = 0; i < elements_.size(); ++i) {
            if (left(i)) continue;
            for (const std::string& node : elements_[i].nodes) {
                if (node != "0" && std::find(out.begin(), out.end(), node) == out.end()) out.push_back(node);
            }
        }
        return out;
    }

    static std::string otherEnd(const CircuitElement& e, const std::string& node) {
        return e.nodes[0] == node ? e.nodes[1] : e.nodes[0];
    }

    /// Ports where the circuit's own sources stand, in the order of their portnum, else as they come. A
    /// source that gives no signal stands for a short and is refused later.
    std::vector<Port> sources() {
        std::map<double, Port> out;
        for (std::size_t i = 0; i < elements_.size(); ++i) {
            const CircuitElement& e = elements_[i];
            if ((e.kind() != 'v' && e.kind() != 'i') || e.nodes.size() < 2) continue;
            const std::string node = e.nodes[0] == "0" ? e.nodes[1] : e.nodes[0];
            if (e.nodes[0] != "0" && e.nodes[1] != "0") continue;
            const auto words = circuitWords(e.value, true);
            Port port{node, NAN};
            double number = 1000 + double(i);
            for (std::size_t w = 0; w + 1 < words.size(); ++w) {
                if (words[w] == "portnum") number = spiceNumber(words[w + 1]);
                if (words[w] == "z0") port.ohms = spiceNumber(words[w + 1]);
            }
            out_.insert(i);
            if (number >= 1000) behindSource(port, e.kind() == 'v');
            out[number] = port;
        }
        std::vector<Port> ports;
        for (auto& [number, port] : out) ports.push_back(port);
        return ports;
    }

    /// The resistor between a voltage source and the network is the source's own, and so is the one across a
    /// current source.
    void behindSource(Port& port, bool voltage) {
        const auto here = at(port.node);
        for (const std::size_t i : here) {
            const CircuitElement& e = elements_[i];
            if (e.kind() != 'r') continue;
            const bool across = otherEnd(e, port.node) == "0";
            if (voltage ? across || here.size() != 1 : !across) continue;
            out_.insert(i);
            port.ohms = figure(figuresOf(e, params_), "", NAN);
            if (voltage) port.node = otherEnd(e, port.node);
            notes_.push_back(e.name + " is taken for the source's own resistance.");
            return;
        }
    }

    Port outPort(const std::string& wanted, bool setUp) {
        Port port{wanted.empty() ? called(kOut) : circuitNode(wanted), NAN};
        if (!setUp) return port;
        if (takeLoad(port, true)) return port;
        // No name tells it: of a measuring set-up the resistor at the far end is the load.
        if (port.node.empty()) port.node = lastNode();
        takeLoad(port, false);
        return port;
    }

    std::string lastNode() const {
        const auto nodes = nodesNow();
        return nodes.empty() ? std::string() : nodes.back();
    }

    /// The load's resistor to ground, left out and its value taken. @param named  only one that is called so
    bool takeLoad(Port& port, bool named) {
        for (std::size_t i = 0; i < elements_.size(); ++i) {
            const CircuitElement& e = elements_[i];
            if (left(i) || e.kind() != 'r' || e.nodes.size() < 2) continue;
            const std::string name = lowered(e.name);
            const bool load = name.starts_with("rl") || name.starts_with("rout") ||
                              name.starts_with("rterm") || name.starts_with("r_l");
            const bool grounded = e.nodes[0] == "0" || e.nodes[1] == "0";
            const std::string node = e.nodes[0] == "0" ? e.nodes[1] : e.nodes[0];
            if ((named && !load) || !grounded || (!port.node.empty() && port.node != node)) continue;
            out_.insert(i);
            port = {node, figure(figuresOf(e, params_), "", NAN)};
            notes_.push_back(e.name + " is taken for the load.");
            return true;
        }
        return false;
    }

    void guess(std::vector<Port>& ports) {
        const auto nodes = nodesNow();
        if (nodes.empty()) return;
        if (ports[0].node.empty()) {
            ports[0].node = nodes.front();
            notes_.push_back("No node is called in: " + netlist_.shown(nodes.front()) + " is taken for it.");
        }
        if (ports.size() > 1 && ports[1].node.empty()) {
            std::string last;
            for (const std::string& node : nodes) last = node != ports[0].node ? node : last;
            if (last.empty()) {
                ports.resize(1);
                return;
            }
            ports[1].node = last;
            notes_.push_back("No node is called out: " + netlist_.shown(last) + " is taken for it.");
        }
    }

    Result<ReadNetwork> build(const std::vector<Port>& ports) {
        ReadNetwork out;
        std::map<std::string, int> number{{"0", 0}};
        const auto nodeOf = [&](const std::string& node) {
            return number.try_emplace(node, int(number.size())).first->second;
        };
        std::map<std::string, std::size_t> coils;
        for (std::size_t i = 0; i < elements_.size(); ++i) {
            const CircuitElement& e = elements_[i];
            if (left(i) || e.kind() == 'k') continue;
            auto part = partOf(e);
            if (!part) return tl::make_unexpected(part.error());
            const std::string& far = e.nodes[part->kind == NetworkPart::Kind::line ? 2 : 1];
            if (e.nodes[0] == far) continue;
            part->a = nodeOf(e.nodes[0]);
            part->b = nodeOf(far);
            coils[lowered(e.name)] = out.network.parts.size();
            out.network.parts.push_back(*part);
        }
        for (const CircuitElement& e : elements_) {
            if (e.kind() != 'k') continue;
            if (const auto fault = couple(e, coils, out.network)) return tl::make_unexpected(*fault);
        }
        for (const Port& port : ports) {
            if (!number.contains(port.node))
                return problem("", "No part leads to the node \"" + port.node.substr(0, 40) + "\".");
        }
        out.network.nodes = int(number.size());
        out.network.in = number[ports[0].node];
        out.in = netlist_.shown(ports[0].node);
        out.source = ports[0].ohms;
        if (ports.size() > 1) {
            out.network.out = number[ports[1].node];
            out.out = netlist_.shown(ports[1].node);
            out.load = ports[1].ohms;
        }
        out.notes = notes_;
        return out;
    }

    Result<NetworkPart> partOf(const CircuitElement& e) const {
        NetworkPart part;
        part.name = e.name;
        switch (e.kind()) {
            case 'r':
                part.kind = NetworkPart::Kind::resistor;
                break;
            case 'l':
                part.kind = NetworkPart::Kind::inductor;
                break;
            case 'c':
                part.kind = NetworkPart::Kind::capacitor;
                break;
            case 't':
                return lineOf(e);
            default:
                return problem(e.name,
                               "is no resistor, coil, capacitor or line: a network is made of these.");
        }
        const Values figures = figuresOf(e, params_);
        part.value = figure(figures, "", NAN);
        part.ohms = figure(figures, "rser", 0);
        part.parallel = figure(figures, "rpar", 0);
        static const std::set<std::string> known{"",     "r", "l",  "c",   "value", "rser",
                                                 "rpar", "m", "ic", "tc1", "tc2",   "noisy"};
        for (const auto& [name, value] : figures) {
            if (!known.contains(name))
                return problem(
                    e.name, "has \"" + name.substr(0, 30) + "=\", which is not reckoned here: leave it out.");
        }
        // So many of them side by side.
        const double times = figure(figures, "m", 1);
        if (!(times > 0) || !std::isfinite(times)) return problem(e.name, "needs an m= above nothing.");
        part.value = e.kind() == 'c' ? part.value * times : part.value / times;
        part.ohms /= times;
        part.parallel /= times;
        if (!(part.value > 0) || !std::isfinite(part.value) || !(part.ohms >= 0) || !(part.parallel >= 0))
            return problem(e.name, "needs a value above nothing, not \"" + e.value.substr(0, 40) + "\".");
        return part;
    }

    /// "T1 in 0 out 0 Z0=50 TD=5n", or F=7M NL=0.25: without loss, both ends against ground.
    Result<NetworkPart> lineOf(const CircuitElement& e) const {
        const Values figures = figuresOf(e, params_);
        NetworkPart part;
        part.name = e.name;
        part.kind = NetworkPart::Kind::line;
        part.value = figure(figures, "z0", NAN);
        part.delay = figure(figures, "td", figure(figures, "nl", 0.25) / figure(figures, "f", NAN));
        if (e.nodes[1] != "0" || e.nodes[3] != "0")
            return problem(e.name, "has an end that is not against ground: that is not reckoned here.");
        if (!(part.value > 0) || !(part.delay > 0)) return problem(e.name, "needs Z0 and TD, or F and NL.");
        return part;
    }

    static std::optional<Problem> couple(const CircuitElement& e,
                                         const std::map<std::string, std::size_t>& coils, Network& network) {
        const auto words = circuitWords(e.value, true);
        const double k = words.empty() ? NAN : spiceNumber(words.back());
        std::vector<std::size_t> parts;
        for (std::size_t i = 0; i + 1 < words.size(); ++i) {
            // Of a subcircuit the coils have its name behind theirs.
            const auto dot = e.name.find('.');
            const auto hit =
                coils.find(words[i] + (dot == std::string::npos ? "" : lowered(e.name.substr(dot))));
            if (hit == coils.end() || network.parts[hit->second].kind != NetworkPart::Kind::inductor)
                return Problem{e.name, "couples \"" + words[i].substr(0, 30) + "\", which is no coil."};
            parts.push_back(hit->second);
        }
        if (parts.size() < 2 || !(std::abs(k) <= 1))
            return Problem{e.name, "names two coils and a coupling from -1 to 1."};
        for (std::size_t i = 0; i < parts.size(); ++i) {
            for (std::size_t j = i + 1; j < parts.size(); ++j)
                network.couplings.push_back({parts[i], parts[j], k});
        }
        return std::nullopt;
    }

    const Netlist& netlist_;
    Elements elements_;
    Values params_;
    std::set<std::size_t> out_;  ///< elements of the measuring set-up
    std::vector<std::string> notes_;
};

const std::vector<std::string> NetworkReader::kIn{"in",   "input", "p1",     "port1",
                                                  "rfin", "vin",   "source", "src"};
const std::vector<std::string> NetworkReader::kOut{"out",   "output", "p2",   "port2",
                                                   "rfout", "vout",   "load", "ant"};

}  // namespace

Result<ReadNetwork> networkOf(const Netlist& netlist, const std::string& in, const std::string& out) {
    Cards cards = cardsOf(netlist);
    auto elements = flattened(netlist.elements, cards);
    if (!elements) return tl::make_unexpected(elements.error());
    return NetworkReader(netlist, std::move(*elements), std::move(cards.params)).read(in, out);
}

}  // namespace ombrek
