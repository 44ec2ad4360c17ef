#include "circuit/suspects.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

#include "circuit/simulator.h"
#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

using What = CircuitReading::Quantity;

constexpr double kTestCurrent = 1e-6;  ///< of the meter [A]
constexpr double kBeyond = 2e7;        ///< where a meter shows OL [Ω]
constexpr double kTolerance = 0.05;    ///< of a part whose tolerance is not said
constexpr double kSoundPrior = 2;      ///< that nothing is wrong, against one usual fault
constexpr double kLeastVolts = 0.02;   ///< what no model knows better
constexpr double kModel = 0.03;        ///< by which a model may be off, of the value

std::string lower(std::string text) {
    for (char& c : text) c = char(std::tolower(static_cast<unsigned char>(c)));
    return text;
}

/// With a source of 0 V in the first lead of each element whose current is read.
Netlist withSenses(const Netlist& circuit, const std::vector<CircuitReading>& asked) {
    Netlist out = circuit;
    for (std::size_t i = 0; i < asked.size(); ++i) {
        if (asked[i].quantity != What::current) continue;
        for (std::size_t at = 0; at < circuit.elements.size(); ++at) {
            if (lower(circuit.elements[at].name) != lower(asked[i].node) ||
                circuit.elements[at].nodes.empty())
                continue;
            const std::string lead = "ombrek_sense" + std::to_string(i);
            std::string& first = out.elements[at].nodes[0];
            CircuitElement sense{"V" + lead, {first, lead}, "0"};
            first = lead;
            out.elements.push_back(std::move(sense));
            break;
        }
    }
    return out;
}

/// The supplies taken out, and the ohmmeter across two nodes.
Netlist withoutPower(const Netlist& circuit, const std::string& node, const std::string& node2) {
    Netlist out = circuit;
    std::erase_if(out.elements, [](const CircuitElement& e) {
        return (e.kind() == 'v' || e.kind() == 'i') && sourceValue(e) != 0;
    });
    out.elements.push_back({"Iombrek_ohms", {node2, node}, "1e-6"});
    return out;
}

double resistance(const Netlist& circuit, const CircuitReading& r) {
    const auto point = operatingPoint(withoutPower(circuit, circuitNode(r.node), circuitNode(r.node2)));
    return point ? point->between(circuitNode(r.node), circuitNode(r.node2)) / kTestCurrent : NAN;
}

struct Solved {
    std::vector<double> reads, nodes;
};

/// What is read, and the voltages of the nodes, of one operating point; resistances want one each.
Solved solve(const Netlist& circuit, const std::vector<CircuitReading>& asked,
             const std::vector<std::string>& nodes) {
    Solved out{std::vector<double>(asked.size(), NAN), std::vector<double>(nodes.size(), NAN)};
    const bool live = !nodes.empty() || std::any_of(asked.begin(), asked.end(), [](const CircuitReading& r) {
        return r.quantity != What::resistance;
    });
    const auto point =
        live ? operatingPoint(withSenses(circuit, asked)) : Result<OperatingPoint>(OperatingPoint());
    for (std::size_t i = 0; i < asked.size(); ++i) {
        const CircuitReading& r = asked[i];
        if (r.quantity == What::resistance) {
            out.reads[i] = resistance(circuit, r);
        } else if (point && r.quantity == What::voltage) {
            out.reads[i] = point->between(circuitNode(r.node), circuitNode(r.node2));
        } else if (point) {
            const auto hit = point->currents.find("vombrek_sense" + std::to_string(i));
            if (hit != point->currents.end()) out.reads[i] = hit->second;
        }
    }
    for (std::size_t i = 0; point && i < nodes.size(); ++i) out.nodes[i] = point->between(nodes[i]);
    return out;
}

bool beyond(double ohms) { return !(std::abs(ohms) < kBeyond); }

/// The standard deviation of what a sound circuit of parts within their tolerances reads.
std::vector<double> spreadOf(const Netlist& circuit, const std::vector<CircuitReading>& asked,
                             const std::vector<double>& sound, const std::function<bool(double)>& goOn) {
    std::vector<double> variance(asked.size(), 0.0);
    const double step = 0.02;
    for (std::size_t at = 0; at < circuit.elements.size(); ++at) {
        const CircuitElement& e = circuit.elements[at];
        if (e.kind() != 'r' || !std::isfinite(spiceNumber(e.word()))) continue;
        if (goOn && !goOn(0.3 * double(at) / double(circuit.elements.size()))) break;
        Netlist other = circuit;
        other.elements[at].value = plainNumber(spiceNumber(e.word()) * (1 + step));
        const auto reads = solve(other, asked, {}).reads;
        for (std::size_t i = 0; i < asked.size(); ++i) {
            // A uniform tolerance has its standard deviation at its width over the root of three.
            const double slope = (reads[i] - sound[i]) / step * kTolerance / std::sqrt(3.0);
            if (std::isfinite(slope)) variance[i] += slope * slope;
        }
    }
    for (double& v : variance) v = std::sqrt(v);
    return variance;
}

/// How well a prediction stands to a reading: the logarithm of a likelihood with heavy tails, so that one odd
/// reading does not silence all others.
double agreement(double predicted, const CircuitReading& r, double spread) {
    if (r.quantity == What::resistance && (std::isinf(r.value) || beyond(predicted)))
        return std::isinf(r.value) == beyond(predicted) ? 0.0 : -6.0;
    if (std::isnan(predicted)) return -8.0;
    const double floor = r.quantity == What::voltage ? kLeastVolts : 0.0;
    const double error = r.error > 0 ? r.error : 0.005 * std::abs(r.value);
    const double sigma =
        std::sqrt(error * error + spread * spread + std::pow(kModel * predicted, 2) + floor * floor) + 1e-12;
    // Which way round the leads lie in a current's path is nobody's business.
    const bool current = r.quantity == What::current;
    const double z =
        current ? (std::abs(r.value) - std::abs(predicted)) / sigma : (r.value - predicted) / sigma;
    return -2.5 * std::log1p(z * z / 4) - std::log(sigma / (kLeastVolts + std::abs(r.value) + 1e-12));
}

struct Hypothesis {
    const Fault* fault = nullptr;  ///< nothing: the circuit is sound
    double prior = 1, log = 0;
    std::vector<double> reads;
    std::vector<double> nodes;  ///< voltages at every node
};

std::string named(const Hypothesis& h) {
    return h.fault ? h.fault->ref + " " + h.fault->what : "a sound circuit";
}

/// The node whose voltage would tell most of those that were not read.
/// Expected information of normal readings about classes, by the bound of pairwise distances (Kolchinsky and
/// Tracey 2017, from memory).
NextReading nextOf(const std::vector<Hypothesis>& all, const std::vector<double>& share,
                   const std::vector<std::string>& nodes, const std::vector<CircuitReading>& taken) {
    NextReading best;
    for (std::size_t n = 0; n < nodes.size(); ++n) {
        const bool known = std::any_of(taken.begin(), taken.end(), [&](const CircuitReading& r) {
            return r.quantity == What::voltage && circuitNode(r.node) == nodes[n] &&
                   circuitNode(r.node2) == "0";
        });
        if (known) continue;
        double gain = 0;
        for (std::size_t i = 0; i < all.size(); ++i) {
            double like = 0;
            for (std::size_t j = 0; j < all.size(); ++j) {
                const double a = all[i].nodes[n], b = all[j].nodes[n];
                const double sigma = 0.05 + 0.04 * std::abs(a);
                like += share[j] * (std::isfinite(a) && std::isfinite(b)
                                        ? std::exp(-std::pow((a - b) / sigma, 2) / 4)
                                        : 1.0);
            }
            gain -= share[i] * std::log(std::max(like, 1e-300));
        }
        if (gain > best.gain + 1e-9) {
            best.gain = gain;
            best.node = nodes[n];
        }
    }
    if (best.gain < 0.02) best.node.clear();
    return best;
}

/// "R3 open would read 8.2 V there, Q1 base open 0.4 V."
std::string whyOf(const NextReading& next, const std::vector<Hypothesis>& all,
                  const std::vector<double>& share, const std::vector<std::string>& nodes) {
    const std::size_t n = std::size_t(std::find(nodes.begin(), nodes.end(), next.node) - nodes.begin());
    std::vector<std::size_t> order(all.size());
    std::iota(order.begin(), order.end(), std::size_t(0));
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return share[a] > share[b]; });
    std::string out;
    double first = NAN;
    for (const std::size_t i : order) {
        const double v = all[i].nodes[n];
        if (!std::isfinite(v) || (std::isfinite(first) && std::abs(v - first) < 0.1 + 0.05 * std::abs(first)))
            continue;
        const std::string volts = formatQuantity(std::round(v * 1000) / 1000, Unit::volt, 3);
        if (std::isfinite(first)) return out + ", " + named(all[i]) + " " + volts + ".";
        out = named(all[i]) + " would read " + volts + " there";
        first = v;
    }
    return out.empty() ? out : out + ".";
}

}  // namespace

std::vector<double> readingsOf(const Netlist& circuit, const std::vector<CircuitReading>& asked) {
    return solve(circuit, asked, {}).reads;
}

Result<Suspicion> suspectsOf(const Netlist& circuit, const std::vector<CircuitReading>& readings,
                             const std::function<bool(double)>& goOn) {
    const auto nodes = circuit.nodes();
    for (const CircuitReading& r : readings) {
        const auto known = [&](const std::string& node) {
            return circuitNode(node) == "0" ||
                   std::find(nodes.begin(), nodes.end(), circuitNode(node)) != nodes.end();
        };
        const bool there = r.quantity == What::current ? circuit.element(r.node) != nullptr
                                                       : known(r.node) && known(r.node2);
        if (!there)
            return problem(
                r.line > 0 ? "line " + std::to_string(r.line) : "",
                "The circuit has no " + (r.quantity == What::current ? std::string("part ") : "node ") +
                    r.node.substr(0, 40) + (r.node2 == "0" ? "" : ", or no " + r.node2.substr(0, 40)) + ".");
    }
    if (const auto point = operatingPoint(circuit); !point) return tl::make_unexpected(point.error());
    const auto faults = singleFaults(circuit);
    Solved sound = solve(circuit, readings, nodes);
    std::vector<Hypothesis> all{{nullptr, kSoundPrior, 0, std::move(sound.reads), std::move(sound.nodes)}};
    const auto spread = spreadOf(circuit, readings, all.front().reads, goOn);
    for (std::size_t i = 0; i < faults.size(); ++i) {
        if (goOn && !goOn(0.3 + 0.7 * double(i) / double(faults.size()))) return problem("", "Stopped.");
        Solved solved = solve(faults[i].circuit, readings, nodes);
        all.push_back({&faults[i], faults[i].prior, 0, std::move(solved.reads), std::move(solved.nodes)});
    }
    double best = -std::numeric_limits<double>::infinity();
    for (Hypothesis& h : all) {
        h.log = std::log(h.prior);
        for (std::size_t i = 0; i < readings.size(); ++i)
            h.log += agreement(h.reads[i], readings[i], spread[i]);
        best = std::max(best, h.log);
    }
    std::vector<double> share;
    for (const Hypothesis& h : all) share.push_back(std::exp(h.log - best));
    const double sum = std::accumulate(share.begin(), share.end(), 0.0);
    for (double& s : share) s /= sum;
    Suspicion out;
    for (std::size_t i = 0; i < all.size(); ++i)
        out.suspects.push_back({all[i].fault ? all[i].fault->ref : "", all[i].fault ? all[i].fault->what : "",
                                share[i], all[i].reads});
    std::stable_sort(out.suspects.begin(), out.suspects.end(),
                     [](const Suspect& a, const Suspect& b) { return a.odds > b.odds; });
    out.next = nextOf(all, share, nodes, readings);
    if (!out.next.node.empty()) out.next.why = whyOf(out.next, all, share, nodes);
    out.next.node = circuit.shown(out.next.node);
    // The best must itself agree: a reading four deviations off is explained by nobody.
    for (std::size_t i = 0; i < readings.size(); ++i) {
        const double p = out.suspects.front().reads[i];
        const double sigma = std::max({readings[i].error, spread[i], kModel * std::abs(p), kLeastVolts});
        if (std::isfinite(p) && std::isfinite(readings[i].value) && readings[i].quantity == What::voltage &&
            std::abs(p - readings[i].value) > 5 * sigma + 0.1)
            out.unexplained = true;
    }
    return out;
}

}  // namespace ombrek
