#include "circuit/fault.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <set>

#include "core/quantity/quantity.h"
#include "formats/encoding.h"

namespace ombrek {
namespace {

using Kind = Fault::Kind;

constexpr double kGap = 1e12;           ///< [Ω]
constexpr std::size_t kTogether = 100;  ///< faults of one prepared circuit
constexpr double kLeak = 330;           ///< of an electrolytic that is turned round (common practice) [Ω]
constexpr double kPolarised = 1e-6;     ///< from here on capacitors are electrolytics, mostly [F]
constexpr double kWhole = 1e-4;         ///< of a lead that is not cut [Ω]
constexpr double kNothing = 1e13;       ///< between leads that are not bridged [Ω]

/// "r open" before "open" before what the caller thinks.
double priorOf(const FaultPriors& priors, char kind, const std::string& what, double usual) {
    for (const std::string& key : {std::string(1, kind) + " " + what, what}) {
        if (const auto hit = priors.find(key); hit != priors.end()) return hit->second;
    }
    return usual;
}

struct Lead {
    const char* name;
    std::size_t node;
};
constexpr Lead kBipolar[] = {{"collector", 0}, {"base", 1}, {"emitter", 2}};
constexpr Lead kField[] = {{"drain", 0}, {"gate", 1}, {"source", 2}};

struct ValueFault {
    const char* what;
    double factor, prior;
};
/// A gap and a bridge are values, too. Between the wrong values lie those that a bag may hold.
constexpr ValueFault kValues[] = {
    {"ten times its value", 10, 0.5},
    {"a tenth of its value", 0.1, 0.5},
    {"wrong value, about 2.2 times", 2.2, 0.12},
    {"wrong value, about 4.7 times", 4.7, 0.12},
    {"wrong value, about 0.47 times", 0.47, 0.12},
    {"wrong value, about 0.22 times", 0.22, 0.12},
};

class List {
 public:
    List(const Kit* kit, const FaultPriors& priors) : kit_(kit), priors_(priors) {}

    void add(const CircuitElement& e, const std::string& what, double usual, Fault fault) {
        fault.ref = designatorOf(e.name, kit_);
        fault.element = e.name;
        fault.what = what;
        // Without a kit the name stands as the circuit writes it.
        if (kit_ == nullptr) fault.ref = e.name;
        fault.prior = priorOf(priors_, e.kind(), what, usual);
        out.push_back(std::move(fault));
    }
    static Fault of(Kind kind, std::vector<std::size_t> leads = {}) {
        Fault out;
        out.kind = kind;
        out.leads = std::move(leads);
        return out;
    }
    static Fault joining(const CircuitElement& e, std::size_t a, std::size_t b) {
        Fault out = of(Kind::join);
        out.node = e.nodes[a];
        out.node2 = e.nodes[b];
        return out;
    }
    static Fault valued(double factor) {
        Fault out = of(Kind::value);
        out.factor = factor;
        return out;
    }

    std::vector<Fault> out;

 private:
    const Kit* kit_;
    const FaultPriors& priors_;
};

void addTransistor(const CircuitElement& e, const Lead (&leads)[3], List& list) {
    for (const Lead& lead : leads)
        list.add(e, std::string(lead.name) + " open", 0.6, List::of(Kind::cut, {lead.node}));
    for (int i = 0; i < 3; ++i) {
        for (int j = i + 1; j < 3; ++j) {
            const std::string pair = std::string(leads[i].name) + " and " + leads[j].name;
            const std::size_t a = leads[i].node, b = leads[j].node;
            if (e.nodes[a] == e.nodes[b]) continue;
            list.add(e, pair + " shorted", 0.4, List::joining(e, a, b));
            // The outer leads exchanged: it was put in the wrong way round.
            list.add(e, "turned round, " + pair + " exchanged", j - i == 2 ? 0.8 : 0.3,
                     List::of(Kind::exchange, {a, b}));
        }
    }
    list.add(e, "missing", 0.3, List::of(Kind::out));
}

void addResistor(const CircuitElement& e, List& list) {
    const double ohms = spiceNumber(e.word());
    // A gap that the circuit itself has, a key or an insulator, can only be closed.
    const bool gap = ohms >= 1e8;
    if (!gap) list.add(e, "open", 1.2, List::valued(std::isfinite(ohms) ? kGap / ohms : NAN));
    if (e.nodes[0] != e.nodes[1]) list.add(e, "short", 0.25, List::joining(e, 0, 1));
    if (gap || !(ohms > 0.5)) return;
    for (const ValueFault& v : kValues) list.add(e, v.what, v.prior, List::valued(v.factor));
}

/// What stands in for a transistor of the other polarity: an ordinary one (from memory of data sheets).
struct Polarity {
    const char *is, *model, *card;
};
constexpr Polarity kOther[] = {
    {"npn", "ombrek_pnp", ".model ombrek_pnp PNP(IS=10f BF=150 BR=4)"},
    {"pnp", "ombrek_npn", ".model ombrek_npn NPN(IS=10f BF=150 BR=4)"},
    {"njf", "ombrek_pjf", ".model ombrek_pjf PJF(VTO=-1.2 BETA=1.1m RD=20 RS=20)"},
    {"pjf", "ombrek_njf", ".model ombrek_njf NJF(VTO=-1.2 BETA=1.1m RD=20 RS=20)"},
    {"nmos", "ombrek_pmos", ".model ombrek_pmos PMOS(LEVEL=1 VTO=-2.1 KP=0.15 RD=0.5 RS=0.5)"},
    {"pmos", "ombrek_nmos", ".model ombrek_nmos NMOS(LEVEL=1 VTO=2.1 KP=0.3 RD=0.5 RS=0.5)"}};

/// "npn", of the card that defines an element's model; empty for a subcircuit.
std::string polarityOf(const Netlist& circuit, const CircuitElement& e) {
    const std::string model = lowered(e.word());
    for (const std::string& card : circuit.cards) {
        const auto words = circuitWords(card, true);
        if (words.size() > 2 && words[0] == ".model" && words[1] == model)
            return words[2].substr(0, words[2].find('('));
    }
    return "";
}

void addOtherPolarity(const Netlist& circuit, const CircuitElement& e, List& list) {
    const std::string is = polarityOf(circuit, e);
    for (const Polarity& other : kOther) {
        if (is != other.is) continue;
        Fault fault = List::of(Kind::model);
        fault.model = other.model;
        fault.card = other.card;
        list.add(e, "of the other polarity", 0.1, std::move(fault));
    }
}

void addTwoLeads(const CircuitElement& e, List& list) {
    const char kind = e.kind();
    const bool two = e.nodes[0] != e.nodes[1];
    if (kind != 'c') list.add(e, "open", kind == 'l' ? 1.5 : 0.7, List::of(Kind::cut, {0}));
    if (two && kind != 'l') list.add(e, "short", kind == 'c' ? 0.6 : 0.5, List::joining(e, 0, 1));
    if (kind == 'd') list.add(e, "turned round", 1.0, List::of(Kind::exchange, {0, 1}));
    if (kind == 'c' && two && spiceNumber(e.word()) >= kPolarised) {
        Fault leak = List::joining(e, 0, 1);
        leak.ohms = kLeak;
        list.add(e, "turned round, and leaking", 0.5, std::move(leak));
    }
}

void addPackage(const CircuitElement& e, List& list) {
    const std::size_t pins = e.nodes.size();
    for (std::size_t pin = 0; pin < pins; ++pin) {
        const std::string number = std::to_string(pin + 1);
        list.add(e, "pin " + number + " open", 0.5, List::of(Kind::cut, {pin}));
        // Neighbours on one side of the package.
        if (pin + 1 < pins && (pins < 6 || pin + 1 != pins / 2) && e.nodes[pin] != e.nodes[pin + 1])
            list.add(e, "pins " + number + " and " + std::to_string(pin + 2) + " bridged", 0.3,
                     List::joining(e, pin, pin + 1));
    }
    std::vector<std::size_t> round;
    if (pins == 3) round = {0, 2};
    for (std::size_t pin = 0; pins >= 6 && pins % 2 == 0 && pin < pins / 2; ++pin) {
        round.push_back(pin);
        round.push_back(pin + pins / 2);
    }
    if (!round.empty()) list.add(e, "turned round", 0.7, List::of(Kind::exchange, round));
    list.add(e, "missing", 0.3, List::of(Kind::out));
}

/// A circuit in which a group of faults can be made by altering resistors.
struct Prepared {
    Netlist circuit;
    std::vector<std::size_t> numbers;
    std::vector<std::vector<Alteration>> sets;
};

Result<void> run(const Prepared& p,
                 const std::function<bool(std::size_t, const Result<OperatingPoint>&)>& take, bool& goOn) {
    if (p.sets.empty() || !goOn) return {};
    return operatingPoints(p.circuit, p.sets, [&](std::size_t i, const Result<OperatingPoint>& point) {
        goOn = take(p.numbers[i], point);
        return goOn;
    });
}

std::size_t indexOf(const Netlist& circuit, const std::string& element) {
    for (std::size_t i = 0; i < circuit.elements.size(); ++i) {
        if (circuit.elements[i].name == element) return i;
    }
    return circuit.elements.size();
}

bool nodeThere(const Netlist& circuit, const std::string& node) {
    return node == "0" || std::any_of(circuit.elements.begin(), circuit.elements.end(), [&](const auto& e) {
               return std::find(e.nodes.begin(), e.nodes.end(), node) != e.nodes.end();
           });
}

}  // namespace

std::vector<Fault> singleFaults(const Netlist& c, const Kit* kit, const BoardFaults& board,
                                const FaultPriors& priors) {
    List list(kit, priors);
    for (const CircuitElement& e : c.elements) {
        switch (e.kind()) {
            case 'r':
                addResistor(e, list);
                break;
            case 'c':
            case 'l':
            case 'd':
                addTwoLeads(e, list);
                break;
            case 'q':
                addTransistor(e, kBipolar, list);
                addOtherPolarity(c, e, list);
                break;
            case 'j':
            case 'm':
                addTransistor(e, kField, list);
                addOtherPolarity(c, e, list);
                break;
            case 'v':
                // A source that gives nothing; one of 0 V is a place where a current is read.
                if (sourceValue(e) != 0) list.add(e, "open", 0.3, List::of(Kind::cut, {0}));
                break;
            case 'x':
                addPackage(e, list);
                break;
            default:
                break;
        }
    }
    for (const NearLeads& n : board.near) {
        if (n.node == n.node2) continue;
        Fault fault;
        fault.kind = Kind::join;
        fault.ref = n.ref;
        fault.near = n.ref2;
        fault.what = "bridged to " + n.ref2;
        fault.node = n.node;
        fault.node2 = n.node2;
        fault.prior = priorOf(priors, 'b', "bridged", 0.3);
        list.out.push_back(std::move(fault));
    }
    for (const Crack& crack : board.cracks) {
        Fault fault = List::of(Kind::crack);
        fault.ref = crack.ref;
        fault.near = crack.ref2;
        fault.what = "track to " + crack.ref2 + " cracked";
        fault.node = crack.node;
        fault.away = crack.away;
        fault.prior = priorOf(priors, 't', "cracked", 0.1);
        list.out.push_back(std::move(fault));
    }
    return std::move(list.out);
}

void weighBySeen(std::vector<Fault>& faults, const std::map<std::string, double>& seen) {
    const auto times = [&](const std::string& key) {
        const auto hit = seen.find(key);
        return hit == seen.end() ? 1.0 : hit->second;
    };
    for (Fault& f : faults) {
        f.prior *= times(f.ref);
        if (!f.near.empty()) f.prior *= times(f.near);
        if (f.kind == Fault::Kind::value && std::isfinite(f.factor) && f.factor < 1000)
            f.prior *= times(f.ref + " value");
        if (f.what.starts_with("turned round")) f.prior *= times(f.ref + " turned");
    }
}

Fault bothOf(const Fault& first, const Fault& second) {
    Fault out = first;
    out.also = {second};
    return out;
}

namespace {

/// Leads that stay together and have left their node.
Netlist withCrack(const Netlist& circuit, const Fault& fault) {
    Netlist out = circuit;
    const std::string side = fault.node + "_ombrek_side";
    for (const LeadOf& away : fault.away) {
        const std::size_t at = indexOf(circuit, away.element);
        if (at < out.elements.size() && away.lead < out.elements[at].nodes.size())
            out.elements[at].nodes[away.lead] = side;
    }
    out.elements.push_back({"Rombrek_" + side, {fault.node, side}, plainNumber(kGap)});
    return out;
}

Netlist withOne(const Netlist& circuit, const Fault& fault) {
    Netlist out = circuit;
    const std::string mark = fault.element + fault.node + fault.node2;
    if (fault.kind == Kind::crack) return nodeThere(circuit, fault.node) ? withCrack(circuit, fault) : out;
    if (fault.kind == Kind::join) {
        if (nodeThere(circuit, fault.node) && nodeThere(circuit, fault.node2))
            out.elements.push_back(
                {"Rombrek_bridge_" + mark, {fault.node, fault.node2}, plainNumber(fault.ohms)});
        return out;
    }
    const std::size_t at = indexOf(circuit, fault.element);
    if (at == circuit.elements.size()) return out;
    CircuitElement& e = out.elements[at];
    switch (fault.kind) {
        case Kind::value: {
            const double ohms = spiceNumber(e.word()) * fault.factor;
            e.value =
                std::isfinite(ohms) ? plainNumber(ohms) + e.value.substr(e.word().size()) : plainNumber(kGap);
            break;
        }
        case Kind::cut: {
            const std::string lead = "ombrek_gap_" + lowered(mark);
            CircuitElement gap{"Rombrek_gap_" + mark, {e.nodes[fault.leads[0]], lead}, plainNumber(kGap)};
            e.nodes[fault.leads[0]] = lead;
            out.elements.push_back(std::move(gap));
            break;
        }
        case Kind::exchange:
            for (std::size_t i = 0; i + 1 < fault.leads.size(); i += 2)
                std::swap(e.nodes[fault.leads[i]], e.nodes[fault.leads[i + 1]]);
            break;
        case Kind::out:
            out.elements.erase(out.elements.begin() + std::ptrdiff_t(at));
            break;
        case Kind::model:
            e.value = fault.model + e.value.substr(e.word().size());
            if (std::find(out.cards.begin(), out.cards.end(), fault.card) == out.cards.end())
                out.cards.push_back(fault.card);
            break;
        case Kind::join:
        case Kind::crack:
            break;
    }
    return out;
}

}  // namespace

Netlist withFault(const Netlist& circuit, const Fault& fault) {
    Netlist out = withOne(circuit, fault);
    for (const Fault& second : fault.also) out = withOne(out, second);
    return out;
}

namespace {

/// A circuit whose leads can be cut and exchanged by altering resistors.
class LeadsApart {
 public:
    explicit LeadsApart(const Netlist& circuit) : whole_(circuit) { prepared.circuit = circuit; }

    void add(std::size_t number, std::size_t element, const Fault& f) {
        std::vector<Alteration> set;
        if (f.kind == Kind::exchange) {
            for (std::size_t i = 0; i + 1 < f.leads.size(); i += 2) {
                cross(element, f.leads[i], f.leads[i + 1], set);
                cross(element, f.leads[i + 1], f.leads[i], set);
            }
        }
        std::vector<std::size_t> cut = f.leads;
        for (std::size_t lead = 0; f.kind == Kind::out && lead < whole_.elements[element].nodes.size();
             ++lead)
            cut.push_back(lead);
        for (const std::size_t lead : cut) set.push_back({gap(element, lead), kGap});
        prepared.sets.push_back(std::move(set));
        prepared.numbers.push_back(number);
    }

    /// Another model: the part goes out, and one of that model stands ready beside it.
    void addModel(std::size_t number, std::size_t element, const Fault& f) {
        const CircuitElement& e = whole_.elements[element];
        std::vector<Alteration> set;
        CircuitElement twin{e.name.substr(0, 1) + "ombrek_m" + std::to_string(number),
                            {},
                            f.model + e.value.substr(e.word().size())};
        for (std::size_t lead = 0; lead < e.nodes.size(); ++lead) {
            const std::string own = "ombrek_m" + std::to_string(number) + "_" + std::to_string(lead);
            twin.nodes.push_back(own);
            prepared.circuit.elements.push_back({"R" + own, {own, e.nodes[lead]}, plainNumber(kNothing)});
            set.push_back({gap(element, lead), kGap});
            set.push_back({"R" + own, kWhole});
        }
        auto& cards = prepared.circuit.cards;
        if (std::find(cards.begin(), cards.end(), f.card) == cards.end()) cards.push_back(f.card);
        prepared.circuit.elements.push_back(std::move(twin));
        prepared.sets.push_back(std::move(set));
        prepared.numbers.push_back(number);
    }

    void addCrack(std::size_t number, const Fault& f) {
        std::vector<Alteration> set;
        const std::string side = "ombrek_t" + std::to_string(number);
        for (const LeadOf& away : f.away) {
            const std::size_t element = indexOf(whole_, away.element);
            if (element == whole_.elements.size()) continue;
            set.push_back({gap(element, away.lead), kGap});
            const std::string own = "R" + side + "_" + name(element, away.lead);
            prepared.circuit.elements.push_back(
                {own, {"ombrek_g" + name(element, away.lead), side}, plainNumber(kNothing)});
            set.push_back({own, kWhole});
        }
        prepared.sets.push_back(std::move(set));
        prepared.numbers.push_back(number);
    }

    Prepared prepared;

 private:
    static std::string name(std::size_t element, std::size_t lead) {
        return std::to_string(element) + "_" + std::to_string(lead);
    }
    /// The gap in a lead, closed; made when it is first asked for.
    std::string gap(std::size_t element, std::size_t lead) {
        const std::string own = name(element, lead);
        if (made_.insert(own).second) {
            CircuitElement closed{"Rombrek_g" + own,
                                  {whole_.elements[element].nodes[lead], "ombrek_g" + own},
                                  plainNumber(kWhole)};
            prepared.circuit.elements[element].nodes[lead] = "ombrek_g" + own;
            prepared.circuit.elements.push_back(std::move(closed));
        }
        return "Rombrek_g" + own;
    }
    /// A lead on the board's node of another lead.
    void cross(std::size_t element, std::size_t lead, std::size_t other, std::vector<Alteration>& set) {
        gap(element, lead);
        const std::string own = "Rombrek_x" + name(element, lead) + "_" + std::to_string(other);
        if (made_.insert(own).second)
            prepared.circuit.elements.push_back(
                {own,
                 {"ombrek_g" + name(element, lead), whole_.elements[element].nodes[other]},
                 plainNumber(kNothing)});
        set.push_back({own, kWhole});
    }

    const Netlist& whole_;
    std::set<std::string> made_;
};

}  // namespace

Result<void> eachFault(const Netlist& circuit, const std::vector<Fault>& faults,
                       const std::function<bool(std::size_t, const Result<OperatingPoint>&)>& take) {
    // Each circuit that is prepared for many faults grows with them: it is begun anew before it is slow.
    Prepared values{circuit, {}, {}};
    std::vector<Prepared> joined;
    std::vector<LeadsApart> apart;
    const auto joins = [&]() -> Prepared& {
        if (joined.empty() || joined.back().sets.size() == kTogether) joined.push_back({circuit, {}, {}});
        return joined.back();
    };
    const auto leads = [&]() -> LeadsApart& {
        if (apart.empty() || apart.back().prepared.sets.size() == kTogether) apart.emplace_back(circuit);
        return apart.back();
    };
    std::vector<std::size_t> others, nothing;
    for (std::size_t i = 0; i < faults.size(); ++i) {
        const Fault& f = faults[i];
        const std::size_t at = indexOf(circuit, f.element);
        const bool in = f.kind == Kind::join    ? nodeThere(circuit, f.node) && nodeThere(circuit, f.node2)
                        : f.kind == Kind::crack ? nodeThere(circuit, f.node)
                                                : at < circuit.elements.size();
        const std::string number = std::to_string(i);
        if (!f.also.empty()) {
            others.push_back(i);
        } else if (!in) {
            nothing.push_back(i);
        } else if (f.kind == Kind::crack) {
            leads().addCrack(i, f);
        } else if (f.kind == Kind::model) {
            leads().addModel(i, at, f);
        } else if (f.kind == Kind::join) {
            Prepared& group = joins();
            group.circuit.elements.push_back(
                {"Rombrek_j" + number, {f.node, f.node2}, plainNumber(kNothing)});
            group.sets.push_back({{"Rombrek_j" + number, f.ohms}});
            group.numbers.push_back(i);
        } else if (f.kind != Kind::value) {
            leads().add(i, at, f);
        } else if (std::isfinite(f.factor) && std::isfinite(spiceNumber(circuit.elements[at].word()))) {
            values.sets.push_back({{f.element, spiceNumber(circuit.elements[at].word()) * f.factor}});
            values.numbers.push_back(i);
        } else {
            others.push_back(i);  // a value that is an expression
        }
    }
    bool goOn = true;
    std::vector<const Prepared*> groups{&values};
    for (const Prepared& group : joined) groups.push_back(&group);
    for (const LeadsApart& group : apart) groups.push_back(&group.prepared);
    for (const Prepared* group : groups) {
        if (const auto done = run(*group, take, goOn); !done) return done;
    }
    for (std::size_t k = 0; k < others.size() && goOn; ++k)
        goOn = take(others[k], operatingPoint(withFault(circuit, faults[others[k]])));
    if (nothing.empty() || !goOn) return {};
    const auto sound = operatingPoint(circuit);
    for (std::size_t k = 0; k < nothing.size() && goOn; ++k) goOn = take(nothing[k], sound);
    return {};
}

}  // namespace ombrek
