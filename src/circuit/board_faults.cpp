#include <algorithm>
#include <cmath>
#include <limits>
#include <set>

#include "circuit/build_circuit.h"

namespace ombrek {
namespace {

constexpr double kNear = 1.2;  ///< between the outlines of two parts [mm]

double gap(const Place& a, const Place& b) {
    const double x = std::abs(a.x - b.x) - (a.width + b.width) / 2;
    const double y = std::abs(a.y - b.y) - (a.height + b.height) / 2;
    return std::max(x, y);
}

std::vector<NearLeads> nearLeads(const KitCircuit& circuit, const Kit& kit) {
    struct Placed {
        const Part* part;
        std::set<std::string> nodes;
    };
    std::vector<Placed> placed;
    for (const Part& part : kit.parts) {
        if (!part.place || part.place->width <= 0) continue;
        Placed p{&part, {}};
        for (const CircuitElement& e : circuit.netlist.elements) {
            if (designatorOf(e.name, &kit) == part.ref) p.nodes.insert(e.nodes.begin(), e.nodes.end());
        }
        if (!p.nodes.empty() && p.nodes.size() <= 3) placed.push_back(std::move(p));
    }
    std::vector<NearLeads> out;
    std::set<std::pair<std::string, std::string>> done;
    for (std::size_t i = 0; i < placed.size(); ++i) {
        for (std::size_t j = i + 1; j < placed.size(); ++j) {
            if (gap(*placed[i].part->place, *placed[j].part->place) > kNear) continue;
            for (const std::string& a : placed[i].nodes) {
                for (const std::string& b : placed[j].nodes) {
                    if (a != b && done.insert(std::minmax(a, b)).second)
                        out.push_back({a, b, placed[i].part->ref, placed[j].part->ref});
                }
            }
        }
    }
    return out;
}

/// A lead on the board.
struct PlacedLead {
    LeadOf lead;
    std::string ref;
    double x = 0, y = 0;
};

std::vector<PlacedLead> leadsAt(const KitCircuit& circuit, const Kit& kit, const std::string& node) {
    std::vector<PlacedLead> out;
    for (const CircuitElement& e : circuit.netlist.elements) {
        const Part* part = kit.part(designatorOf(e.name, &kit));
        if (part == nullptr || !part->place) continue;
        for (std::size_t lead = 0; lead < e.nodes.size(); ++lead) {
            if (e.nodes[lead] == node)
                out.push_back({{e.name, lead}, part->ref, part->place->x, part->place->y});
        }
    }
    return out;
}

/// Each lead joined to the nearest that is joined already (Prim 1957): as tracks mostly run. By index, the
/// lead before it; the first has none.
std::vector<std::size_t> shortestTracks(const std::vector<PlacedLead>& leads) {
    const std::size_t n = leads.size();
    std::vector<std::size_t> from(n, 0);
    std::vector<double> far(n, std::numeric_limits<double>::infinity());
    std::vector<bool> in(n, false);
    std::size_t now = 0;
    for (std::size_t count = 1; count < n; ++count) {
        in[now] = true;
        std::size_t next = n;
        for (std::size_t i = 0; i < n; ++i) {
            if (in[i]) continue;
            const double d = std::hypot(leads[i].x - leads[now].x, leads[i].y - leads[now].y);
            if (d < far[i]) far[i] = d, from[i] = now;
            if (next == n || far[i] < far[next]) next = i;
        }
        now = next;
    }
    return from;
}

/// What hangs on the track that ends at a lead.
std::vector<bool> behind(const std::vector<std::size_t>& from, std::size_t lead) {
    std::vector<bool> out(from.size(), false);
    for (std::size_t i = 0; i < from.size(); ++i) {
        for (std::size_t at = i;; at = from[at]) {
            if (at == lead) out[i] = true;
            if (at == lead || at == 0) break;
        }
    }
    return out;
}

std::vector<Crack> cracks(const KitCircuit& circuit, const Kit& kit) {
    std::vector<Crack> out;
    for (const std::string& node : circuit.netlist.nodes()) {
        const auto leads = leadsAt(circuit, kit, node);
        const auto from = shortestTracks(leads);
        for (std::size_t i = 1; i < leads.size(); ++i) {
            const auto away = behind(from, i);
            const auto count = std::size_t(std::count(away.begin(), away.end(), true));
            // One lead alone is a joint that is open, and another fault.
            if (count < 2 || leads.size() - count < 2 || leads[i].ref == leads[from[i]].ref) continue;
            Crack crack{node, leads[from[i]].ref, leads[i].ref, {}};
            for (std::size_t k = 0; k < leads.size(); ++k) {
                if (away[k]) crack.away.push_back(leads[k].lead);
            }
            out.push_back(std::move(crack));
        }
    }
    return out;
}

}  // namespace

BoardFaults boardFaults(const KitCircuit& circuit, const Kit& kit) {
    return {nearLeads(circuit, kit), cracks(circuit, kit)};
}

}  // namespace ombrek
