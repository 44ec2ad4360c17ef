#include <algorithm>
#include <cmath>
#include <set>

#include "circuit/reads.h"
#include "circuit/suspects.h"
#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

constexpr double kAhead = 0.95;  ///< of the belief: one part is enough ahead

/// What an ohmmeter tells apart: a twentieth and half an ohm, or that one is beyond its range.
double ohmsAlike(double a, double b) {
    if (std::isnan(a) || std::isnan(b)) return 1;
    const bool noA = !(a < kBeyondRange), noB = !(b < kBeyondRange);
    if (noA || noB) return noA == noB ? 1 : 0;
    return std::exp(-std::pow((a - b) / (0.5 + 0.06 * std::abs(a)), 2) / 4);
}

/// Where a fault can be measured by itself: the leads that it is of.
std::vector<std::pair<std::string, std::string>> leadsOf(const Netlist& circuit, const Fault& f) {
    if (f.kind == Fault::Kind::join) return {{f.node, f.node2}};
    const CircuitElement* e = circuit.element(f.element);
    if (e == nullptr) return {};
    std::vector<std::pair<std::string, std::string>> out;
    for (std::size_t i = 0; i + 1 < std::min<std::size_t>(e->nodes.size(), 3); ++i)
        out.emplace_back(e->nodes[i], e->nodes[i + 1]);
    return out;
}

}  // namespace

NextReading FaultFinder::nextOhms(const std::vector<CircuitReading>& taken, const Suspicion& ranked) const {
    const Suspect& first = ranked.suspects.front();
    double ofFirst = 0;
    for (const Suspect& s : ranked.suspects) ofFirst += s.ref == first.ref ? s.odds : 0;
    if (first.ref.empty() || ofFirst >= kAhead) return {};
    std::vector<std::vector<double>> reads;
    std::vector<double> spreads;
    const auto share = shares(taken, reads, spreads);
    auto order = believed(share);
    constexpr std::size_t kMostFaults = 30, kMostPlaces = 10;
    if (order.size() > kMostFaults) order.resize(kMostFaults);
    // The whole rig without power, if the circuit has such a state.
    const auto off = std::find_if(circuit_.states.begin(), circuit_.states.end(),
                                  [](const CircuitState& s) { return s.powerOff && s.only.empty(); });
    NextReading best;
    best.state = off != circuit_.states.end() ? off->name : "";
    best.quantity = "resistance";
    const Netlist standing = inState(circuit_, circuit_.state(best.state), bench_, kit_);
    std::vector<Fault> few;
    std::set<std::pair<std::string, std::string>> places;
    for (const std::size_t h : order) {
        few.push_back(h == 0 ? Fault() : faults_[h - 1]);
        for (const auto& [a, b] : leadsOf(standing, few.back())) {
            if (a != b && places.size() < kMostPlaces)
                places.insert(a == "0" ? std::pair(b, a) : std::pair(a, b));
        }
    }
    std::vector<double> bestReads;
    for (const auto& [a, b] : places) {
        const CircuitReading asked{a, b, CircuitReading::Quantity::resistance, 0, 0, best.state, 0};
        if (std::any_of(taken.begin(), taken.end(), [&](const auto& r) { return sameProbe(r, asked); }))
            continue;
        std::vector<double> ohms(few.size(), NAN);
        const Netlist metered = withOhmmeter(standing, a, b);
        (void)eachFault(metered, few,
                        [&, &a = a, &b = b](std::size_t i, const Result<OperatingPoint>& point) {
                            if (point) ohms[i] = ohmsOf(*point, a, b);
                            return true;
                        });
        double gain = 0;
        for (std::size_t i = 0; i < few.size(); ++i) {
            double like = 0;
            for (std::size_t j = 0; j < few.size(); ++j)
                like += share[order[j]] * ohmsAlike(ohms[i], ohms[j]);
            gain -= share[order[i]] * std::log(std::max(like, 1e-300));
        }
        if (gain <= best.gain + 1e-9) continue;
        best.gain = gain;
        best.node = a;
        best.node2 = b;
        bestReads = std::move(ohms);
    }
    if (best.gain < kWorthTelling) return {};
    const auto ohmsText = [](double ohms) {
        return ohms < kBeyondRange ? formatQuantity(std::round(ohms * 10) / 10, Unit::ohm, 3)
                                   : std::string("beyond the range");
    };
    best.why = "Power off: " + named(order[0]) + " would read " + ohmsText(bestReads[0]) + " there";
    for (std::size_t i = 1; i < few.size(); ++i) {
        if (ohmsAlike(bestReads[0], bestReads[i]) > 0.5) continue;
        best.why += ", " + named(order[i]) + " " + ohmsText(bestReads[i]);
        break;
    }
    best.why += ".";
    best.node = circuit_.netlist.shown(best.node);
    best.node2 = best.node2 == "0" ? "0" : circuit_.netlist.shown(best.node2);
    return best;
}

}  // namespace ombrek
