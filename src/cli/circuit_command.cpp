#include "circuit/simulator.h"
#include "circuit/suspects.h"
#include "cli/commands.h"
#include "cli/print.h"
#include "formats/files.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::uintmax_t kLargest = 4000000;  ///< of a circuit or its readings [bytes]
constexpr std::size_t kShown = 20;            ///< suspects that are listed

Json suspectJson(const Suspect& s) {
    Json reads = Json::array();
    for (const double value : s.reads) reads.push_back(std::isfinite(value) ? Json(value) : Json(nullptr));
    return {{"ref", s.ref}, {"fault", s.ref.empty() ? "none" : s.what}, {"odds", s.odds}, {"reads", reads}};
}

}  // namespace

int suspectsCommand(const std::string& circuitFile, const std::string& readingsFile, bool json) {
    const auto text = readFile(circuitFile, kLargest);
    if (!text) return refuse(text.error(), json);
    const auto circuit = readNetlist(*text);
    if (!circuit) return refuse(circuit.error(), json);
    const auto bytes = readFile(readingsFile, kLargest);
    if (!bytes) return refuse(bytes.error(), json);
    const auto readings = readCircuitReadings(*bytes);
    if (!readings) return refuse(readings.error(), json);
    const auto suspicion = suspectsOf(*circuit, *readings);
    if (!suspicion) return refuse(suspicion.error(), json);
    const std::size_t most = std::min(kShown, suspicion->suspects.size());
    if (json) {
        Json suspects = Json::array();
        for (std::size_t i = 0; i < most; ++i) suspects.push_back(suspectJson(suspicion->suspects[i]));
        const NextReading& n = suspicion->next;
        Json next = nullptr;
        if (!n.node.empty())
            next = {{"node", n.node}, {"node2", n.node2}, {"quantity", n.quantity}, {"why", n.why}};
        printJson({{"suspects", suspects}, {"next", next}, {"unexplained", suspicion->unexplained}});
        return 0;
    }
    for (std::size_t i = 0; i < std::min<std::size_t>(most, 8); ++i) {
        const Suspect& s = suspicion->suspects[i];
        std::printf("%5.1f %%  %s %s\n", s.odds * 100, s.ref.empty() ? "nothing" : s.ref.c_str(),
                    s.ref.empty() ? "is wrong" : s.what.c_str());
    }
    if (suspicion->unexplained) std::printf("No single fault explains these readings: measure again.\n");
    if (!suspicion->next.node.empty())
        std::printf("Next: the voltage at %s. %s\n", suspicion->next.node.c_str(),
                    suspicion->next.why.c_str());
    return 0;
}

}  // namespace ombrek
