#include <cmath>
#include <random>

#include "circuit/models.h"
#include "circuit/suspects.h"
#include "timing.h"

// The fourth station under load: every single fault of a 200-part board, against as many bare operating
// points of the same board in the same process; and a ranking drawn again after a new reading.

using namespace ombrek;

namespace {

/// Stages as every handbook has them, one after another: 200 parts.
std::string board() {
    std::string out = "two hundred parts\nV1 vcc 0 12\n";
    const int stages = 25;
    for (int i = 0; i < stages; ++i) {
        const std::string n = std::to_string(i);
        out += "RA" + n + " vcc b" + n + " 47k\nRB" + n + " b" + n + " 0 10k\nRC" + n + " vcc c" + n +
               " 2.2k\nRE" + n + " e" + n + " 0 470\nQ" + n + " c" + n + " b" + n + " e" + n +
               " NPN_SMALL\nCE" + n + " e" + n + " 0 10u\nCC" + n + " c" + n + " b" +
               std::to_string((i + 1) % stages) + " 100n\nRD" + n + " c" + n + " e" +
               std::to_string((i + 1) % stages) + " 100k\n";
    }
    return out + ".end\n";
}

}  // namespace

int main() {
    const auto circuit = readKitCircuit(board(), shippedModels());
    if (!circuit) return 1;
    FaultFinder finder(*circuit, {}, nullptr, {}, shippedPriors());
    const std::size_t faults = finder.faults().size();
    const double bare = milliseconds(
        [&] {
            const std::vector<std::vector<Alteration>> sets(faults);
            (void)operatingPoints(circuit->netlist, sets,
                                  [](std::size_t, const Result<OperatingPoint>&) { return true; });
        },
        1);
    const double all = milliseconds(
        [&] {
            (void)eachFault(circuit->netlist, finder.faults(),
                            [](std::size_t, const Result<OperatingPoint>&) { return true; });
        },
        1);
    std::printf(
        "%zu parts, %zu single faults: %.0f ms; as many bare operating points %.0f ms; ratio %.2f of 1.2 "
        "wanted\n",
        circuit->netlist.elements.size(), faults, all, bare, all / bare);
    std::vector<CircuitReading> readings;
    for (int i = 0; i < 12; ++i)
        readings.push_back(
            {"c" + std::to_string(i), "0", CircuitReading::Quantity::voltage, 7.0 + 0.1 * i, 0.05, "", 0});
    if (!finder.simulateFor(readings)) return 1;
    const double few = milliseconds([&] { (void)finder.rank({readings[0]}); });
    const double many = milliseconds([&] { (void)finder.rank(readings); });
    tell("ranking after a reading, of 1 and of 12", few, many, 100);
    return 0;
}
