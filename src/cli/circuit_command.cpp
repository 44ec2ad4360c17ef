#include "circuit/expected_reading.h"
#include "circuit/models.h"
#include "circuit/rig_on_bench.h"
#include "circuit/simulator.h"
#include "cli/commands.h"
#include "cli/held.h"
#include "cli/print.h"
#include "core/quantity/shown.h"
#include "formats/files.h"
#include "formats/kit_json.h"
#include "formats/tables.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::uintmax_t kLargestCircuit = 4000000;  ///< of a circuit or its readings [bytes]
constexpr std::size_t kShown = 20;                   ///< suspects that are listed

Json suspectJson(const Suspect& s) {
    Json reads = Json::array();
    for (const double value : s.reads) reads.push_back(std::isfinite(value) ? Json(value) : Json(nullptr));
    Json out{{"ref", s.ref}, {"fault", s.ref.empty() ? "none" : s.what}, {"odds", s.odds}, {"reads", reads}};
    if (!s.ref2.empty()) out["also"] = {{"ref", s.ref2}, {"fault", s.what2}};
    return out;
}

}  // namespace

namespace {

Result<std::vector<CircuitReading>> readingsOf(const std::string& file) {
    if (file.empty()) return std::vector<CircuitReading>();
    const auto bytes = readFile(file, kLargestCircuit);
    if (!bytes) return tl::make_unexpected(bytes.error());
    return readCircuitReadings(*bytes);
}

/// Kit and build that the question is about. @return a Problem where they cannot be read
Result<std::pair<Kit, Build>> rigAsked(const SuspectsQuestion& q) {
    if (!q.book.empty()) {
        auto held = heldIn(q.book);
        if (!held) return tl::make_unexpected(held.error());
        return std::pair(std::move(held->kit), std::move(held->build));
    }
    const auto tables = readTables(dataFolder());
    if (!tables) return tl::make_unexpected(tables.error());
    auto file = readKitFile(q.kit, tables->cores);
    if (!file) return tl::make_unexpected(file.error());
    return std::pair(std::move(file->kit), Build());
}

/// As the window's page judges it: by the kit, of a book also by what was read and seen.
Result<Suspicion> suspectsOfRig(const SuspectsQuestion& q, const std::string& circuit,
                                const std::vector<CircuitReading>& readings) {
    auto asked = rigAsked(q);
    if (!asked) return tl::make_unexpected(asked.error());
    auto& [kit, build] = *asked;
    if (!circuit.empty()) kit.circuit = circuit;
    if (kit.circuit.empty())
        return tl::make_unexpected(
            Problem{q.kit + q.book, "The kit comes without a circuit: give one with --circuit."});
    const auto rig = rigOf(kit, build, shippedModels(), shippedPriors());
    if (!rig) return tl::make_unexpected(rig.error());
    auto taken = takenReadings((*rig)->circuit, kit, build);
    for (const CircuitReading& r : readings) taken.push_back({r, {}, {}});
    const auto judged = judgeRig(*rig, std::move(taken), build, {});
    if (!judged) return tl::make_unexpected(judged.error());
    return (*judged)->suspicion;
}

/// A circuit by itself: what its parts may be off by, and where they lie, is not known.
Result<Suspicion> suspectsAlone(const std::string& text, const std::vector<CircuitReading>& readings) {
    const auto circuit = readKitCircuit(text, shippedModels());
    if (!circuit) return tl::make_unexpected(circuit.error());
    return suspectsOf(*circuit, readings);
}

}  // namespace

int suspectsCommand(const SuspectsQuestion& q, bool json) {
    const bool rig = !q.kit.empty() || !q.book.empty();
    if (!rig && (q.circuit.empty() || q.readings.empty()))
        return refuse({"", "Give --book BOOK, or --kit KIT, or --circuit FILE with --readings FILE."}, json);
    std::string circuit;
    if (!q.circuit.empty()) {
        auto text = readFile(q.circuit, kLargestCircuit);
        if (!text) return refuse(text.error(), json);
        circuit = std::move(*text);
    }
    const auto readings = readingsOf(q.readings);
    if (!readings) return refuse(readings.error(), json);
    const auto suspicion = rig ? suspectsOfRig(q, circuit, *readings) : suspectsAlone(circuit, *readings);
    if (!suspicion) return refuse(suspicion.error(), json);
    const std::size_t most = std::min(kShown, suspicion->suspects.size());
    if (json) {
        Json suspects = Json::array();
        for (std::size_t i = 0; i < most; ++i) suspects.push_back(suspectJson(suspicion->suspects[i]));
        const NextReading& n = suspicion->next;
        Json next = nullptr;
        if (!n.node.empty())
            next = {{"node", n.node}, {"node2", n.node2}, {"quantity", n.quantity}, {"why", n.why}};
        printJson({{"suspects", suspects},
                   {"next", next},
                   {"unexplained", suspicion->unexplained},
                   {"sound", suspicion->sound},
                   {"readings", suspicion->spreads.size()}});
        return 0;
    }
    if (suspicion->spreads.empty())
        std::printf("Nothing was read on the rig as it is now: these are odds before any reading.\n");
    if (suspicion->sound)
        std::printf(
            "What was read is what a sound rig reads; faults that these readings do not show are left.\n");
    for (std::size_t i = 0; i < std::min<std::size_t>(most, 8); ++i) {
        const Suspect& s = suspicion->suspects[i];
        const std::string second = s.ref2.empty() ? "" : ", and " + s.ref2 + " " + s.what2;
        std::printf("%5.1f %%  %s %s%s\n", s.odds * 100, s.ref.empty() ? "nothing" : s.ref.c_str(),
                    s.ref.empty() ? "is wrong" : s.what.c_str(), second.c_str());
    }
    if (suspicion->unexplained)
        std::printf("No fault, and no two at once, explain these readings: measure again.\n");
    if (!suspicion->next.node.empty())
        std::printf("Next: the %s at %s%s. %s\n", suspicion->next.quantity.c_str(),
                    suspicion->next.node.c_str(),
                    suspicion->next.node2 == "0" ? "" : (" against " + suspicion->next.node2).c_str(),
                    suspicion->next.why.c_str());
    return 0;
}

namespace {

/// What is written of one check.
struct ExpectRow {
    const Check* check = nullptr;
    std::optional<CircuitReading> probe;
    ExpectedReading expected;
};

Json numberOrNull(double value) { return std::isfinite(value) ? Json(value) : Json(nullptr); }

Json rowJson(const ExpectRow& row) {
    const Check& check = *row.check;
    Json out{{"id", check.id}, {"title", check.title}, {"unit", std::string(symbol(check.unit))}};
    if (row.probe) {
        out["state"] = row.probe->state;
        out[row.probe->quantity == CircuitReading::Quantity::current ? "element" : "node"] = row.probe->node;
    }
    out["expected"] = numberOrNull(row.expected.value);
    out["low"] = numberOrNull(row.expected.low);
    out["high"] = numberOrNull(row.expected.high);
    if (std::isinf(row.expected.value)) out["beyond"] = true;
    out["without_meter"] = numberOrNull(row.expected.unloaded);
    out["printed_low"] = numberOrNull(check.limits.low);
    out["printed_high"] = numberOrNull(check.limits.high);
    return out;
}

void printRow(const ExpectRow& row) {
    const Check& check = *row.check;
    const auto shown = [&](double value) { return formatQuantity(value, check.unit, 4); };
    const std::string text =
        std::isinf(row.expected.value) ? "beyond the meter's range"
        : std::isnan(row.expected.value)
            ? "cannot tell"
            : shown(row.expected.value) + ", " + shown(row.expected.low) + " to " + shown(row.expected.high);
    std::printf("%-32s %s (printed %s)\n", check.title.c_str(), text.c_str(),
                check.yesNo() ? "yes" : limitsText(check.limits, check.unit).c_str());
}

/// The states that a kit's circuit has, for a refusal.
std::string stateNames(const KitCircuit& circuit) {
    std::string out;
    for (const CircuitState& s : circuit.states) out += (out.empty() ? "" : ", ") + s.name;
    return out.empty() ? "none" : out;
}

}  // namespace

int expectCommand(const ExpectQuestion& q, bool json) {
    const auto tables = readTables(dataFolder());
    if (!tables) return refuse(tables.error(), json);
    const auto file = readKitFile(q.kit, tables->cores);
    if (!file) return refuse(file.error(), json);
    const Kit& kit = file->kit;
    CircuitBench bench;
    if (!q.supply.empty()) {
        const auto supply = parseQuantity(q.supply, Unit::volt);
        if (!supply || !(supply->value >= 0.5 && supply->value <= 60))
            return refuse(
                {"--supply", "\"" + q.supply.substr(0, 30) + "\" is no supply for such a rig: 0.5 to 60 V."},
                json);
        bench.supply = supply->value;
    }
    if (kit.circuit.empty())
        return refuse({"circuit", kit.circuitFile.empty() ? "This kit comes without a circuit."
                                                          : "The circuit " + kit.circuitFile +
                                                                " does not lie beside the kit file."},
                      json);
    const auto circuit = readKitCircuit(kit.circuit, shippedModels());
    if (!circuit) return refuse(circuit.error(), json);
    if (!q.state.empty() && circuit->state(q.state) == nullptr)
        return refuse({"--state", "The circuit has no such state; it has: " + stateNames(*circuit) + "."},
                      json);
    std::vector<ExpectRow> rows;
    std::vector<CircuitReading> asked;
    for (const Check& check : kit.checks) {
        ExpectRow row{&check, probeOf(*circuit, kit, check), {}};
        if (!q.state.empty() && (!row.probe || circuit->state(row.probe->state) != circuit->state(q.state)))
            continue;
        if (row.probe) asked.push_back(*row.probe);
        rows.push_back(std::move(row));
    }
    const auto expected = expectedReadings(*circuit, &kit, bench, asked);
    if (!expected) return refuse(expected.error(), json);
    std::size_t next = 0;
    for (ExpectRow& row : rows) {
        if (row.probe) row.expected = expected->at(next++);
    }
    if (!json) {
        for (const ExpectRow& row : rows) printRow(row);
        return 0;
    }
    Json checks = Json::array();
    for (const ExpectRow& row : rows) checks.push_back(rowJson(row));
    printJson({{"kit", kit.name},
               {"supply", std::isfinite(bench.supply) ? Json(bench.supply) : Json(nullptr)},
               {"checks", checks}});
    return 0;
}

}  // namespace ombrek
