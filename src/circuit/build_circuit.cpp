#include "circuit/build_circuit.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "judged/judged.h"
#include "station/rests_on.h"

namespace ombrek {
namespace {

using What = CircuitReading::Quantity;

constexpr double kSeenWell = 0.15;  ///< what was seen or measured to be right is seldom wrong
constexpr double kFound = 6;        ///< what the loupe has found is likely so

struct LeadWord {
    const char* kinds;
    const char* words[3];
};
constexpr LeadWord kLeadWords[] = {{"q", {"collector", "base", "emitter"}},
                                   {"jm", {"drain", "gate", "source"}},
                                   {"d", {"anode", "cathode", nullptr}}};

/// The last reading that was taken before the last repair, by id; −1: nothing was repaired.
std::int64_t lastRepair(const Build& build) {
    std::int64_t out = -1;
    for (const Change& change : build.changes) {
        if (change.how == "repaired") out = std::max(out, change.after);
    }
    return out;
}

bool fits(const CircuitReading& probe, Unit unit) {
    return (probe.quantity == What::voltage && unit == Unit::volt) ||
           (probe.quantity == What::current && unit == Unit::ampere) ||
           (probe.quantity == What::resistance && unit == Unit::ohm);
}

void put(std::vector<TakenReading>& out, TakenReading taken) {
    std::erase_if(out, [&](const TakenReading& t) { return sameProbe(t.reading, taken.reading); });
    out.push_back(std::move(taken));
}

std::optional<CircuitReading> probeOfSubject(const KitCircuit& circuit, const Kit& kit, const Subject& s) {
    if (s.is(Subject::Kind::node)) {
        auto probe = probeAt(s.id);
        if (!probe || (!probe->state.empty() && circuit.state(probe->state) == nullptr)) return std::nullopt;
        const auto nodes = circuit.netlist.nodes();
        for (const std::string& node : {probe->node, probe->node2}) {
            const std::string name = circuitNode(node);
            if (name != "0" && std::find(nodes.begin(), nodes.end(), name) == nodes.end())
                return std::nullopt;
        }
        return probe;
    }
    const Check* check = s.is(Subject::Kind::check) ? kit.check(s.id) : nullptr;
    return check == nullptr ? std::nullopt : probeOf(circuit, kit, *check);
}

}  // namespace

std::vector<TakenReading> takenReadings(const KitCircuit& circuit, const Kit& kit, const Build& build) {
    std::vector<TakenReading> out;
    const std::int64_t since = lastRepair(build);
    for (const Reading& r : build.readings) {
        if (r.id <= since || std::isnan(r.value)) continue;
        auto probe = probeOfSubject(circuit, kit, r.subject);
        if (!probe || !fits(*probe, r.unit)) continue;
        const auto now = lastStanding(kit, build, r.subject);
        if (r.subject.is(Subject::Kind::check) && (!now || now->id != r.id)) continue;
        probe->value = r.beyond ? INFINITY : r.value;
        probe->error = std::max(r.uncertainty / 2, 0.001 * std::abs(r.value));
        const Check* check = kit.check(r.subject.id);
        put(out,
            {*probe, r.subject,
             r.subject.is(Subject::Kind::check) && check != nullptr ? check->title
                                                                    : touchAt(circuit, kit, probe->node)});
    }
    return out;
}

CircuitBench benchOf(const KitCircuit& circuit, const Kit& kit, const Build& build) {
    CircuitBench out;
    for (const Part& part : kit.parts) {
        if (part.unit != Unit::ohm) continue;
        const auto reading = lastStanding(kit, build, Subject::part(part.ref));
        if (reading && reading->unit == Unit::ohm && !reading->beyond && reading->value > 0)
            out.measured[part.ref] = reading->value;
    }
    const auto supply = supplyName(circuit.netlist);
    if (!supply) return out;
    const CircuitElement& source = *circuit.netlist.element(*supply);
    const std::string plus = source.nodes[0] == "0" ? source.nodes[1] : source.nodes[0];
    for (const TakenReading& taken : takenReadings(circuit, kit, build)) {
        const bool atSupply = taken.reading.quantity == What::voltage &&
                              circuitNode(taken.reading.node) == plus &&
                              circuitNode(taken.reading.node2) == "0";
        if (atSupply && taken.reading.value > 0) out.supply = taken.reading.value;
    }
    return out;
}

std::vector<std::string> partsAt(const KitCircuit& circuit, const Kit& kit, const std::string& node) {
    std::vector<std::string> out;
    for (const CircuitElement& e : circuit.netlist.elements) {
        if (std::find(e.nodes.begin(), e.nodes.end(), circuitNode(node)) == e.nodes.end()) continue;
        const std::string ref = designatorOf(e.name, &kit);
        if (kit.part(ref) != nullptr && std::find(out.begin(), out.end(), ref) == out.end())
            out.push_back(ref);
    }
    return out;
}

std::string touchAt(const KitCircuit& circuit, const Kit& kit, const std::string& node) {
    const std::string wanted = circuitNode(node);
    std::vector<std::string> leads, pins, others;
    for (const CircuitElement& e : circuit.netlist.elements) {
        const auto hit = std::find(e.nodes.begin(), e.nodes.end(), wanted);
        const std::string ref = designatorOf(e.name, &kit);
        if (hit == e.nodes.end() || kit.part(ref) == nullptr) continue;
        const std::size_t at = std::size_t(hit - e.nodes.begin());
        const LeadWord* words = nullptr;
        for (const LeadWord& w : kLeadWords) {
            if (std::string_view(w.kinds).find(e.kind()) != std::string_view::npos) words = &w;
        }
        if (words != nullptr && at < 3 && words->words[at] != nullptr) {
            leads.push_back(ref + " " + words->words[at]);
        } else if (e.kind() == 'x' && e.nodes.size() > 3) {
            pins.push_back(ref + " pin " + std::to_string(at + 1));
        } else if (std::find(others.begin(), others.end(), ref) == others.end()) {
            others.push_back(ref);
        }
    }
    leads.insert(leads.end(), pins.begin(), pins.end());
    leads.insert(leads.end(), others.begin(), others.end());
    constexpr std::size_t kMost = 2;
    std::string out;
    for (std::size_t i = 0; i < std::min(kMost, leads.size()); ++i) out += (i > 0 ? ", " : "") + leads[i];
    return out.empty() ? node : out;
}

std::map<std::string, double> seenBefore(const Kit& kit, const Build& build) {
    std::map<std::string, double> out;
    const Judged judged(kit, build, LimitProfile());
    for (const Part& part : kit.parts) {
        if (part.measurable() && judged.part(part).state == VerdictState::pass)
            out[part.ref + " value"] = kSeenWell;
        if (build.senses.contains(part.ref)) out[part.ref + " turned"] = kSeenWell;
        if (build.joints.contains(part.ref)) out[part.ref] = 0.5;
    }
    for (const Finding& finding : build.findings) {
        if (finding.closed == 0) out[finding.ref] = kFound;
    }
    return out;
}

}  // namespace ombrek
