#include "cli/commands.h"
#include "cli/print.h"
#include "formats/files.h"
#include "formats/kit_json.h"
#include "formats/tables.h"
#include "lists/parts_list.h"
#include "station/board/work.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

Result<Kit> kitOf(const PlanQuestion& q, const std::vector<MagneticCore>& cores) {
    if (!q.kit.empty()) {
        auto file = readKitFile(q.kit, cores);
        if (!file) return tl::make_unexpected(file.error());
        return std::move(file->kit);
    }
    const auto bytes = readFile(q.list, kLargestList);
    if (!bytes) return tl::make_unexpected(bytes.error());
    const auto source = readPartsList(*bytes);
    if (!source) return tl::make_unexpected(source.error());
    return readKit(kitFromList(source->list, "Kit from a list", cores), cores);
}

/// What a hold rests on; the sentence of one that asks for the builder's own eyes.
std::vector<std::string> holdsOf(const Step& step) {
    if (!step.hold) return {};
    if (step.hold->needs.empty()) return {step.hold->say};
    std::vector<std::string> out;
    for (const Subject& need : step.hold->needs) out.push_back(need.text());
    return out;
}

}  // namespace

int planCommand(const PlanQuestion& q, bool json) {
    if (q.kit.empty() == q.list.empty())
        return refuse({"plan", "Name a kit file, or a parts list with --from-list."}, json);
    const School* chosen = nullptr;
    for (const School& s : schools()) {
        if (s.word == q.order) chosen = &s;
    }
    if (chosen == nullptr) return refuse({"order", "One of manual, lowest, kind, stage, hardest."}, json);
    const auto tables = readTables(dataFolder());
    if (!tables) return refuse(tables.error(), json);
    const auto kit = kitOf(q, tables->cores);
    if (!kit) return refuse(kit.error(), json);
    const auto order = stepOrder(*kit, chosen->order);
    if (!order) return refuse(order.error(), json);
    Json steps = Json::array();
    double total = 0;
    for (const std::size_t i : *order) {
        const Step& step = kit->steps[i];
        std::vector<std::string> needs = step.fits;
        needs.insert(needs.end(), step.tools.begin(), step.tools.end());
        total += step.minutes;
        steps.push_back({{"id", step.id},
                         {"title", step.title},
                         {"minutes", step.minutes},
                         {"holds", holdsOf(step)},
                         {"needs", needs}});
        if (!json) std::printf("%c %5.0f min  %s\n", step.hold ? '|' : ' ', step.minutes, step.title.c_str());
    }
    if (json) {
        printJson({{"steps", steps}, {"minutes_total", total}});
    } else {
        std::printf("%.1f h by the plan, %s\n", total / 60, std::string(chosen->name).c_str());
    }
    return 0;
}

}  // namespace ombrek
