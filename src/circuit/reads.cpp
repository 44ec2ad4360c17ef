#include "circuit/reads.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <set>

#include "core/quantity/quantity.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

using What = CircuitReading::Quantity;

constexpr double kOhmmeterVolts = 0.5, kOhmmeterOhms = 1000;

}  // namespace

Netlist withSenses(const Netlist& circuit, const std::vector<CircuitReading>& asked) {
    Netlist out = circuit;
    std::set<std::string> done;
    for (const CircuitReading& r : asked) {
        if (r.quantity != What::current || !done.insert(lowered(r.node)).second) continue;
        for (std::size_t at = 0; at < circuit.elements.size(); ++at) {
            CircuitElement& e = out.elements[at];
            if (lowered(e.name) != lowered(r.node) || e.nodes.empty() || e.kind() == 'v') continue;
            const std::string lead = "ombrek_sense_" + lowered(e.name);
            CircuitElement sense{"V" + lead, {e.nodes[0], lead}, "0"};
            e.nodes[0] = lead;
            out.elements.push_back(std::move(sense));
            break;
        }
    }
    return out;
}

std::string currentName(const Netlist& circuit, const std::string& element) {
    const CircuitElement* e = circuit.element(element);
    return e != nullptr && e->kind() == 'v' ? lowered(element) : "vombrek_sense_" + lowered(element);
}

Netlist withOhmmeter(const Netlist& circuit, const std::string& node, const std::string& node2) {
    Netlist out = circuit;
    std::erase_if(out.elements, [](const CircuitElement& e) {
        return (e.kind() == 'v' || e.kind() == 'i') && sourceValue(e) != 0;
    });
    out.elements.push_back({"Vombrek_ohms", {"ombrek_ohms", node2}, plainNumber(kOhmmeterVolts)});
    out.elements.push_back({"Rombrek_ohms", {"ombrek_ohms", node}, plainNumber(kOhmmeterOhms)});
    return out;
}

double ohmsOf(const OperatingPoint& point, const std::string& node, const std::string& node2) {
    const double volts = point.between(node, node2);
    const double amps = (kOhmmeterVolts - volts) / kOhmmeterOhms;
    if (std::isnan(volts)) return NAN;
    if (!(amps > kOhmmeterVolts / kBeyondRange)) return INFINITY;
    return std::max(0.0, volts / amps);
}

double liveRead(const OperatingPoint& point, const Netlist& circuit, const CircuitReading& r) {
    if (r.quantity == What::voltage) return point.between(circuitNode(r.node), circuitNode(r.node2));
    const auto hit = point.currents.find(currentName(circuit, r.node));
    return hit == point.currents.end() ? NAN : std::abs(hit->second);
}

double worksOf(const std::vector<double>& reads, const std::vector<double>& should) {
    double out = 1;
    for (std::size_t i = 0; i < reads.size(); ++i) {
        const double ratio = std::abs(reads[i] / should[i]);
        const double share = std::isfinite(ratio) ? std::min(ratio, 1 / std::max(ratio, 1e-6)) : 0;
        out *= share > 0.75 ? 1.0 : share * share;
    }
    return out;
}

namespace {

/// Rows of readings, the live ones by one circuit and each resistance by one of its own.
class ReadingsReader {
 public:
    ReadingsReader(const Netlist& circuit, const std::vector<CircuitReading>& asked)
        : circuit_(circuit), asked_(asked) {}

    std::vector<std::vector<double>> read(const std::vector<std::vector<Alteration>>& sets,
                                          const std::function<bool()>& goOn) {
        out_.assign(sets.size(), std::vector<double>(asked_.size(), NAN));
        live(withSenses(circuit_, asked_), sets, goOn);
        for (std::size_t i = 0; i < asked_.size(); ++i) {
            if (asked_[i].quantity == What::resistance) ohms(i, sets, goOn);
        }
        return std::move(out_);
    }

    /// Each voltage with the meter's own resistance across it, and no other.
    std::vector<double> loaded(double meterOhms) {
        Netlist metered = withSenses(circuit_, asked_);
        std::vector<std::vector<Alteration>> sets{{}};
        std::vector<std::size_t> of{asked_.size()};
        for (std::size_t i = 0; i < asked_.size(); ++i) {
            if (asked_[i].quantity != What::voltage) continue;
            const std::string name = "Rombrek_meter" + std::to_string(i);
            metered.elements.push_back(
                {name, {circuitNode(asked_[i].node), circuitNode(asked_[i].node2)}, plainNumber(kNoMeter)});
            sets.push_back({{name, meterOhms}});
            of.push_back(i);
        }
        out_.assign(1, std::vector<double>(asked_.size(), NAN));
        std::vector<double>& row = out_[0];
        (void)operatingPoints(metered, sets, [&](std::size_t k, const Result<OperatingPoint>& point) {
            for (std::size_t i = 0; point && i < asked_.size(); ++i) {
                const bool now = asked_[i].quantity == What::voltage ? of[k] == i : k == 0;
                if (now && asked_[i].quantity != What::resistance)
                    row[i] = liveRead(*point, circuit_, asked_[i]);
            }
            return true;
        });
        for (std::size_t i = 0; i < asked_.size(); ++i) {
            if (asked_[i].quantity == What::resistance) ohms(i, {{}}, {});
        }
        return std::move(row);
    }

 private:
    void live(const Netlist& sensed, const std::vector<std::vector<Alteration>>& sets,
              const std::function<bool()>& goOn) {
        const bool any = std::any_of(asked_.begin(), asked_.end(), [](const CircuitReading& r) {
            return r.quantity == What::voltage || r.quantity == What::current;
        });
        if (!any) return;
        (void)operatingPoints(sensed, sets, [&](std::size_t k, const Result<OperatingPoint>& point) {
            for (std::size_t i = 0; point && i < asked_.size(); ++i) {
                if (asked_[i].quantity == What::voltage || asked_[i].quantity == What::current)
                    out_[k][i] = liveRead(*point, circuit_, asked_[i]);
            }
            return !goOn || goOn();
        });
    }

    void ohms(std::size_t i, const std::vector<std::vector<Alteration>>& sets,
              const std::function<bool()>& goOn) {
        const std::string node = circuitNode(asked_[i].node), node2 = circuitNode(asked_[i].node2);
        (void)operatingPoints(withOhmmeter(circuit_, node, node2), sets,
                              [&](std::size_t k, const Result<OperatingPoint>& point) {
                                  if (point) out_[k][i] = ohmsOf(*point, node, node2);
                                  return !goOn || goOn();
                              });
    }

    static constexpr double kNoMeter = 1e13;
    const Netlist& circuit_;
    const std::vector<CircuitReading>& asked_;
    std::vector<std::vector<double>> out_;
};

}  // namespace

std::vector<double> readingsOf(const Netlist& circuit, const std::vector<CircuitReading>& asked,
                               double meterOhms) {
    ReadingsReader reader(circuit, asked);
    return meterOhms > 0 ? reader.loaded(meterOhms) : reader.read({{}}, {})[0];
}

std::vector<std::vector<double>> readingsWith(const Netlist& circuit,
                                              const std::vector<CircuitReading>& asked,
                                              const std::vector<std::vector<Alteration>>& sets,
                                              const std::function<bool()>& goOn) {
    return ReadingsReader(circuit, asked).read(sets, goOn);
}

}  // namespace ombrek
