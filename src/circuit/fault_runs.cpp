#include <algorithm>
#include <cmath>
#include <set>

#include "circuit/fault.h"
#include "core/quantity/quantity.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

using Kind = Fault::Kind;

constexpr std::size_t kTogether = 30;  ///< faults of one prepared circuit
constexpr double kWhole = 1e-4;        ///< of a lead that is not cut [Ω]
constexpr double kNothing = 1e13;      ///< between leads that are not bridged [Ω]

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
    out.elements.push_back({"Rombrek_" + side, {fault.node, side}, plainNumber(kFaultGap)});
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
            e.value = std::isfinite(ohms) ? plainNumber(ohms) + e.value.substr(e.word().size())
                                          : plainNumber(kFaultGap);
            break;
        }
        case Kind::cut: {
            const std::string lead = "ombrek_gap_" + lowered(mark);
            CircuitElement gap{
                "Rombrek_gap_" + mark, {e.nodes[fault.leads[0]], lead}, plainNumber(kFaultGap)};
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
        for (const std::size_t lead : cut) set.push_back({gap(element, lead), kFaultGap});
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
            set.push_back({gap(element, lead), kFaultGap});
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
            set.push_back({gap(element, away.lead), kFaultGap});
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
