#include "circuit/suspects.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <limits>
#include <numeric>
#include <set>

#include "circuit/likelihood.h"
#include "circuit/reads.h"
#include "core/quantity/quantity.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

using What = CircuitReading::Quantity;

constexpr double kSoundPrior = 2;    ///< that nothing is wrong, against one usual fault
constexpr double kStep = 0.02;       ///< by which a part is moved to see what it does
constexpr double kOtherState = 0.6;  ///< to bring the rig into another state is more trouble
constexpr double kKeyDown = 0.7;     ///< and one with the key down more risk
constexpr double kMeterOhms = 10e6;

std::string ohmKey(const CircuitReading& r) { return circuitNode(r.node) + " " + circuitNode(r.node2); }

}  // namespace

CircuitReading NextReading::reading() const {
    return {node, node2, quantity == "resistance" ? What::resistance : What::voltage, 0, 0, state, 0};
}

FaultFinder::FaultFinder(KitCircuit circuit, CircuitBench bench, const Kit* kit, BoardFaults board,
                         FaultPriors priors)
    : circuit_(std::move(circuit)),
      bench_(std::move(bench)),
      kit_(kit),
      faults_(singleFaults(circuit_.netlist, kit, board, priors)),
      singles_(faults_.size()) {
    for (const Fault& fault : faults_) priors_.push_back(fault.prior);
}

void FaultFinder::weighBy(const std::map<std::string, double>& seen) {
    for (std::size_t i = 0; i < faults_.size(); ++i) faults_[i].prior = priors_[i];
    weighBySeen(faults_, seen);
}

void FaultFinder::keep(Sims& sims, std::size_t hypothesis, const Result<OperatingPoint>& point) const {
    sims.volts[hypothesis].assign(sims.nodes.size(), NAN);
    if (!point) return;
    for (std::size_t n = 0; n < sims.nodes.size(); ++n)
        sims.volts[hypothesis][n] = point->between(sims.nodes[n]);
    for (auto& [branch, amps] : sims.currents)
        amps[hypothesis] = liveRead(*point, sims.standing, {branch, "0", What::current, 0, 0, "", 0});
}

namespace {

/// Nodes that a meter's own 10 MΩ pulls away from where they stand: nothing holds them.
std::vector<bool> floating(const Netlist& circuit, const std::vector<std::string>& nodes,
                           const OperatingPoint& sound) {
    Netlist metered = circuit;
    for (const std::string& node : nodes)
        metered.elements.push_back({"Rombrek_m_" + node, {node, "0"}, plainNumber(kMeterOhms)});
    const auto point = operatingPoint(metered);
    std::vector<bool> out;
    for (const std::string& node : nodes) {
        const double moved = point ? std::abs(point->between(node) - sound.between(node)) : 0;
        out.push_back(!(moved <= 0.05 + 0.1 * std::abs(sound.between(node))));
    }
    return out;
}

}  // namespace

Result<void> FaultFinder::simulateState(const std::string& name, const std::vector<CircuitReading>& here,
                                        const std::function<bool(double)>& goOn) {
    Sims sims;
    sims.standing = inState(circuit_, circuit_.state(name), bench_, kit_);
    sims.nodes = sims.standing.nodes();
    sims.sensed = withSenses(sims.standing, here);
    const Netlist& sensed = sims.sensed;
    const auto sound = operatingPoint(sensed);
    if (!sound) return tl::make_unexpected(sound.error());
    sims.floats = floating(sensed, sims.nodes, *sound);
    sims.volts.assign(faults_.size() + 1, {});
    std::set<std::string> branches;
    for (const CircuitReading& r : here) {
        if (r.quantity == What::current) branches.insert(lowered(r.node));
    }
    for (const std::string& b : branches) sims.currents[b].assign(faults_.size() + 1, NAN);
    keep(sims, 0, sound);
    const auto places = scatterPlaces(circuit_, kit_, bench_);
    std::size_t done = 0;
    const double all = double(faults_.size() + places.size() + 1);
    const auto on = [&] { return !goOn || goOn(double(++done) / all); };
    bool stopped = false;
    const auto ran = eachFault(sensed, faults_, [&](std::size_t i, const Result<OperatingPoint>& point) {
        keep(sims, i + 1, point);
        stopped = stopped || !on();
        return !stopped;
    });
    if (!ran) return ran;
    // What parts within their tolerances do: resistors by altering them, the rest one by one.
    std::vector<std::vector<Alteration>> sets;
    std::vector<std::size_t> altered;
    sims.voltSteps.assign(places.size(), std::vector<double>(sims.nodes.size(), 0.0));
    for (const std::string& b : branches) sims.currentSteps[b].assign(places.size(), 0.0);
    const auto step = [&](std::size_t place, const Result<OperatingPoint>& point) {
        std::vector<double>& moved = sims.voltSteps[place];
        if (!point) return;
        const double by = places[place].percent / 100 / std::sqrt(3.0) / kStep;
        for (std::size_t n = 0; n < moved.size(); ++n)
            moved[n] = (point->between(sims.nodes[n]) - sound->between(sims.nodes[n])) * by;
        for (const std::string& b : branches) {
            const CircuitReading asked{b, "0", What::current, 0, 0, "", 0};
            const double d = (liveRead(*point, sims.standing, asked) - sims.currents[b][0]) * by;
            if (std::isfinite(d)) sims.currentSteps[b][place] = d;
        }
    };
    for (std::size_t p = 0; p < places.size(); ++p) {
        const ScatterPlace& place = places[p];
        const CircuitElement* e = place.resistor ? sensed.element(place.element) : nullptr;
        if (e != nullptr) {
            sets.push_back({{place.element, spiceNumber(e->word()) * (1 + kStep)}});
            altered.push_back(p);
        } else if (!place.resistor && !stopped) {
            Netlist moved = sensed;
            scatter(moved, place, 1 + kStep);
            step(p, operatingPoint(moved));
            stopped = stopped || !on();
        }
    }
    if (!stopped && !sets.empty()) {
        const auto moved =
            operatingPoints(sensed, sets, [&](std::size_t i, const Result<OperatingPoint>& point) {
                step(altered[i], point);
                stopped = stopped || !on();
                return !stopped;
            });
        if (!moved) return moved;
    }
    if (stopped) return problem("", "Stopped.");
    if (const auto before = sims_.find(name); before != sims_.end()) {
        sims.ohms = std::move(before->second.ohms);
        sims.ohmSpread = std::move(before->second.ohmSpread);
    }
    sims_[name] = std::move(sims);
    return {};
}

Result<void> FaultFinder::simulateOhms(Sims& sims, const CircuitReading& r,
                                       const std::function<bool(double)>& goOn) {
    const std::string node = circuitNode(r.node), node2 = circuitNode(r.node2);
    const Netlist metered = withOhmmeter(sims.standing, node, node2);
    std::vector<double> ohms(faults_.size() + 1, NAN);
    const auto sound = operatingPoint(metered);
    if (sound) ohms[0] = ohmsOf(*sound, node, node2);
    bool stopped = false;
    const auto ran = eachFault(metered, faults_, [&](std::size_t i, const Result<OperatingPoint>& point) {
        if (point) ohms[i + 1] = ohmsOf(*point, node, node2);
        stopped = goOn && !goOn(double(i) / double(faults_.size()));
        return !stopped;
    });
    if (!ran) return ran;
    if (stopped) return problem("", "Stopped.");
    sims.ohms[ohmKey(r)] = std::move(ohms);
    // Parts in parallel and in series of 5 % are together within 5 %; half of that is their deviation.
    sims.ohmSpread[ohmKey(r)] = sound ? 0.03 * std::abs(ohmsOf(*sound, node, node2)) : 0;
    return {};
}

Result<void> FaultFinder::simulateFor(const std::vector<CircuitReading>& readings,
                                      const std::function<bool(double)>& goOn) {
    const auto nodes = circuit_.netlist.nodes();
    const auto known = [&](const std::string& node) {
        return circuitNode(node) == "0" ||
               std::find(nodes.begin(), nodes.end(), circuitNode(node)) != nodes.end();
    };
    for (const CircuitReading& r : readings) {
        if (r.quantity == What::works) {
            const auto path = circuit_.paths.find(r.node);
            if (path == circuit_.paths.end() || path->second.front().state != r.state)
                return problem("",
                               "The circuit names no function " + r.node.substr(0, 40) + " in this state.");
            continue;
        }
        const bool there = r.quantity == What::current ? circuit_.netlist.element(r.node) != nullptr
                                                       : known(r.node) && known(r.node2);
        if (!there)
            return problem(
                r.line > 0 ? "line " + std::to_string(r.line) : "",
                "The circuit has no " + (r.quantity == What::current ? std::string("part ") : "node ") +
                    r.node.substr(0, 40) + (r.node2 == "0" ? "" : ", or no " + r.node2.substr(0, 40)) + ".");
    }
    for (const CircuitReading& r : readings) {
        const auto hit = sims_.find(r.state);
        const bool current = r.quantity == What::current;
        if (hit == sims_.end() || (current && !hit->second.currents.contains(lowered(r.node)))) {
            std::vector<CircuitReading> here;
            for (const CircuitReading& other : readings) {
                if (other.state == r.state) here.push_back(other);
            }
            for (const auto& [id, probe] : circuit_.probes) {
                if (probe.state == r.state) here.push_back(probe);
            }
            for (const auto& [name, probes] : circuit_.paths) {
                if (probes.front().state == r.state) here.insert(here.end(), probes.begin(), probes.end());
            }
            if (const auto done = simulateState(r.state, here, goOn); !done) return done;
        }
        Sims& sims = sims_.at(r.state);
        if (r.quantity == What::resistance && !sims.ohms.contains(ohmKey(r))) {
            if (const auto done = simulateOhms(sims, r, goOn); !done) return done;
        }
    }
    return rank(readings).unexplained ? simulatePairs(readings, goOn) : Result<void>();
}

double FaultFinder::predicted(std::size_t hypothesis, const CircuitReading& r) const {
    const Sims& sims = sims_.at(r.state);
    if (r.quantity == What::resistance) return sims.ohms.at(ohmKey(r))[hypothesis];
    if (r.quantity == What::current) return sims.currents.at(lowered(r.node))[hypothesis];
    if (r.quantity == What::works) {
        std::vector<double> is, should;
        for (const CircuitReading& stage : circuit_.paths.at(r.node)) {
            is.push_back(predicted(hypothesis, stage));
            should.push_back(predicted(0, stage));
        }
        return worksOf(is, should);
    }
    const auto at = [&](const std::string& name) {
        const std::string node = circuitNode(name);
        if (node == "0") return 0.0;
        const auto hit = std::find(sims.nodes.begin(), sims.nodes.end(), node);
        const auto& volts = sims.volts[hypothesis];
        return hit == sims.nodes.end() || volts.empty() ? NAN : volts[std::size_t(hit - sims.nodes.begin())];
    };
    return at(r.node) - at(r.node2);
}

std::vector<double> FaultFinder::steps(const CircuitReading& r) const {
    const Sims& sims = sims_.at(r.state);
    if (r.quantity == What::current) return sims.currentSteps.at(lowered(r.node));
    if (r.quantity == What::resistance || r.quantity == What::works) return {};
    const auto place = [&](const std::string& name) {
        return std::size_t(std::find(sims.nodes.begin(), sims.nodes.end(), circuitNode(name)) -
                           sims.nodes.begin());
    };
    const std::size_t a = place(r.node), b = place(r.node2);
    std::vector<double> out;
    for (const auto& step : sims.voltSteps) {
        const double d = (a < step.size() ? step[a] : 0) - (b < step.size() ? step[b] : 0);
        out.push_back(std::isfinite(d) ? d : 0);
    }
    return out;
}

std::string FaultFinder::named(std::size_t hypothesis) const {
    if (hypothesis == 0) return "a sound circuit";
    const Fault& f = faults_[hypothesis - 1];
    std::string out = f.ref + " " + f.what;
    for (const Fault& second : f.also) out += " and " + second.ref + " " + second.what;
    return out;
}

std::vector<std::size_t> believed(const std::vector<double>& share) {
    std::vector<std::size_t> order(share.size());
    std::iota(order.begin(), order.end(), std::size_t(0));
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return share[a] > share[b]; });
    constexpr std::size_t kMost = 150;
    if (order.size() > kMost) order.resize(kMost);
    while (order.size() > 2 && share[order.back()] < 1e-4) order.pop_back();
    return order;
}

/// Expected information of normal readings about classes, by the bound of pairwise distances (Kolchinsky and
/// Tracey 2017, from memory).
double FaultFinder::gain(const Sims& sims, std::size_t node, const std::vector<double>& share,
                         const std::vector<std::size_t>& order) const {
    double out = 0;
    for (const std::size_t i : order) {
        double like = 0;
        for (const std::size_t j : order) {
            const double a = sims.volts[i].empty() ? NAN : sims.volts[i][node];
            const double b = sims.volts[j].empty() ? NAN : sims.volts[j][node];
            const double sigma = 0.05 + 0.04 * std::abs(a);
            like +=
                share[j] *
                (std::isfinite(a) && std::isfinite(b) ? std::exp(-std::pow((a - b) / sigma, 2) / 4) : 1.0);
        }
        out -= share[i] * std::log(std::max(like, 1e-300));
    }
    return out;
}

double FaultFinder::worth(const std::vector<CircuitReading>& taken, const CircuitReading& r) const {
    const auto sims = sims_.find(r.state);
    if (sims == sims_.end() || r.quantity != What::voltage) return 0;
    const auto hit = std::find(sims->second.nodes.begin(), sims->second.nodes.end(), circuitNode(r.node));
    if (hit == sims->second.nodes.end()) return 0;
    std::vector<std::vector<double>> reads;
    std::vector<double> spreads;
    const auto share = shares(taken, reads, spreads);
    return gain(sims->second, std::size_t(hit - sims->second.nodes.begin()), share, believed(share));
}

/// The point that would tell most, its effort and risk counted.
NextReading FaultFinder::next(const std::vector<double>& share, const std::vector<CircuitReading>& taken,
                              const std::set<std::string>& states) const {
    const auto order = believed(share);
    NextReading best;
    for (const auto& [state, sims] : sims_) {
        const CircuitState* known = circuit_.state(state);
        if (known != nullptr && known->powerOff) continue;
        if (!states.empty() && !states.contains(state)) continue;
        // Back to another state is work: ICs out of their sockets again.
        const double ease = (taken.empty() || taken.back().state == state ? 1.0 : kOtherState) *
                            (lowered(state).find("key") != std::string::npos ? kKeyDown : 1.0);
        for (std::size_t n = 0; n < sims.nodes.size(); ++n) {
            const bool read = std::any_of(
                taken.begin(), taken.end(), [&, &state = state, &sims = sims](const CircuitReading& r) {
                    return r.quantity == What::voltage && r.state == state &&
                           circuitNode(r.node) == sims.nodes[n] && circuitNode(r.node2) == "0";
                });
            const double worth = read || sims.floats[n] ? 0 : gain(sims, n, share, order) * ease;
            if (worth > best.gain + 1e-9) {
                best.gain = worth;
                best.node = sims.nodes[n];
                best.state = state;
            }
        }
    }
    if (best.gain < kWorthTelling) best.node.clear();
    return best;
}

/// "R3 open would read 8.2 V there, Q1 base open 0.4 V."
std::string FaultFinder::why(const NextReading& next, const std::vector<double>& share) const {
    const CircuitReading there{next.node, "0", What::voltage, 0, 0, next.state, 0};
    std::vector<std::size_t> order(share.size());
    std::iota(order.begin(), order.end(), std::size_t(0));
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return share[a] > share[b]; });
    std::string out;
    double first = NAN;
    for (const std::size_t i : order) {
        const double v = predicted(i, there);
        if (!std::isfinite(v) || (std::isfinite(first) && std::abs(v - first) < 0.1 + 0.05 * std::abs(first)))
            continue;
        const std::string volts = formatQuantity(std::round(v * 1000) / 1000, Unit::volt, 3);
        if (std::isfinite(first)) return out + ", " + named(i) + " " + volts + ".";
        out = named(i) + " would read " + volts + " there";
        first = v;
    }
    return out.empty() ? out : out + ".";
}

ReadingModel FaultFinder::modelOf(const std::vector<CircuitReading>& readings,
                                  std::vector<double>& spreads) const {
    std::vector<std::vector<double>> moved;
    spreads.clear();
    for (const CircuitReading& r : readings) {
        moved.push_back(steps(r));
        double spread = r.quantity == What::resistance ? sims_.at(r.state).ohmSpread.at(ohmKey(r)) : 0;
        for (const double step : moved.back()) spread = std::hypot(spread, step);
        spreads.push_back(spread);
    }
    return ReadingModel(readings, moved, spreads);
}

/// What each hypothesis is believed, all together 1.
std::vector<double> FaultFinder::shares(const std::vector<CircuitReading>& readings,
                                        std::vector<std::vector<double>>& reads,
                                        std::vector<double>& spreads) const {
    const ReadingModel model = modelOf(readings, spreads);
    std::vector<double> out;
    for (std::size_t h = 0; h <= faults_.size(); ++h) {
        reads.emplace_back();
        for (const CircuitReading& r : readings) reads.back().push_back(predicted(h, r));
        const double prior = h == 0 ? kSoundPrior : faults_[h - 1].prior;
        out.push_back(std::log(std::max(prior, 1e-6)) + model.logLikelihood(reads.back()));
    }
    const double best = *std::max_element(out.begin(), out.end());
    for (double& share : out) share = std::exp(share - best);
    const double sum = std::accumulate(out.begin(), out.end(), 0.0);
    for (double& share : out) share /= sum;
    return out;
}

Suspicion FaultFinder::rank(const std::vector<CircuitReading>& readings,
                            const std::set<std::string>& states) const {
    Suspicion out;
    std::vector<std::vector<double>> reads;
    const auto share = shares(readings, reads, out.spreads);
    for (std::size_t h = 0; h <= faults_.size(); ++h) {
        const Fault* fault = h == 0 ? nullptr : &faults_[h - 1];
        out.suspects.push_back({fault ? fault->ref : "", fault ? fault->what : "", share[h], reads[h],
                                fault ? fault->near : "", "", ""});
        if (fault != nullptr && !fault->also.empty()) {
            out.suspects.back().ref2 = fault->also.front().ref;
            out.suspects.back().what2 = fault->also.front().what;
        }
    }
    out.sound = !readings.empty();
    for (std::size_t i = 0; i < readings.size(); ++i)
        out.sound = out.sound && std::abs(deviations(readings[i], reads[0][i], out.spreads[i])) <= kAgainst;
    std::stable_sort(out.suspects.begin(), out.suspects.end(),
                     [](const Suspect& a, const Suspect& b) { return a.odds > b.odds; });
    out.next = next(share, readings, states);
    if (!out.next.node.empty()) out.next.why = why(out.next, share);
    out.next.node = circuit_.netlist.shown(out.next.node);
    // The best must itself agree: a reading that is far off is explained by nobody.
    for (std::size_t i = 0; i < readings.size(); ++i) {
        const double z = deviations(readings[i], out.suspects.front().reads[i], out.spreads[i]);
        if (std::isfinite(z) && std::abs(z) > 5) out.unexplained = true;
    }
    return out;
}

Result<Suspicion> suspectsOf(const KitCircuit& circuit, const std::vector<CircuitReading>& readings,
                             const std::function<bool(double)>& goOn) {
    FaultFinder finder(circuit);
    if (const auto done = finder.simulateFor(readings, goOn); !done) return tl::make_unexpected(done.error());
    Suspicion out = finder.rank(readings);
    if (out.next.node.empty()) out.next = finder.nextOhms(readings, out);
    return out;
}

}  // namespace ombrek
