#include "circuit/fault.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <set>

#include "core/quantity/quantity.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

using Kind = Fault::Kind;

constexpr double kLeak = 330;        ///< of an electrolytic that is turned round (common practice) [Ω]
constexpr double kPolarised = 1e-6;  ///< from here on capacitors are electrolytics, mostly [F]

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
    if (!gap) list.add(e, "open", 1.2, List::valued(std::isfinite(ohms) ? kFaultGap / ohms : NAN));
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

}  // namespace ombrek
