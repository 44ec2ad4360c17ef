#include "circuit/kit_circuit.h"
#include "circuit/models.h"
#include "cli/commands.h"
#include "cli/print.h"
#include "formats/files.h"
#include "formats/kit_compare.h"
#include "formats/kit_json.h"
#include "formats/kit_upgrade.h"
#include "formats/kit_variants.h"
#include "practice/practice_kit.h"

namespace ombrek {

int kitCheckCommand(const std::string& file, bool json) {
    const auto tables = readTables(dataFolder());
    if (!tables) return refuse(tables.error(), json);
    const auto read = readKitFile(file, tables->cores);
    if (!read) return refuse(read.error(), json);
    const Kit& kit = read->kit;
    if (!kit.circuit.empty()) {
        const auto circuit = readKitCircuit(kit.circuit, shippedModels());
        if (!circuit)
            return refuse({circuit.error().place.empty() ? "/circuit" : "/circuit, " + circuit.error().place,
                           circuit.error().sentence},
                          json);
    }
    if (json) {
        printJson({{"kit", kit.name},
                   {"parts", kit.parts.size()},
                   {"coils", kit.coils.size()},
                   {"steps", kit.steps.size()},
                   {"checks", kit.checks.size()},
                   {"adjustments", kit.adjustments.size()}});
    } else {
        std::printf("%s: %zu parts, %zu coils, %zu steps, %zu checks, %zu adjustments; no fault found.\n",
                    kit.name.c_str(), kit.parts.size(), kit.coils.size(), kit.steps.size(), kit.checks.size(),
                    kit.adjustments.size());
    }
    return 0;
}

namespace {

using Json = nlohmann::ordered_json;

constexpr std::uintmax_t kLargestKit = 16000000;

/// A kit file, with what stands beside it, made into another kit.
struct Asked {
    Tables tables;
    KitFile kit;
};
Result<Asked> ask(const std::string& file) {
    auto tables = readTables(dataFolder());
    if (!tables) return tl::make_unexpected(tables.error());
    auto kit = readKitFile(file, tables->cores);
    if (!kit) return tl::make_unexpected(kit.error());
    return Asked{std::move(*tables), std::move(*kit)};
}

int give(const std::string& out, const std::string& text, const Json& said, bool json) {
    if (!out.empty()) {
        if (const auto written = writeFile(out, text); !written) return refuse(written.error(), json);
    }
    if (json) {
        printJson(said);
    } else if (said.contains("says")) {
        for (const Json& sentence : said["says"]) std::printf("%s\n", sentence.get<std::string>().c_str());
    }
    return 0;
}

}  // namespace

int kitCompareCommand(const std::string& mine, const std::string& theirs, bool json) {
    const auto first = ask(mine), second = ask(theirs);
    if (!first) return refuse(first.error(), json);
    if (!second) return refuse(second.error(), json);
    const auto differences = compareKits(first->kit.text, second->kit.text);
    if (!json) {
        std::printf("%s\n", comparedInWords(differences).c_str());
        for (const KitDifference& d : differences)
            std::printf("  %s %s: %s -> %s\n",
                        d.subject.is(Subject::Kind::unknown) ? "kit" : nameOf(d.subject).c_str(),
                        d.field.c_str(), d.mine.c_str(), d.theirs.c_str());
        return 0;
    }
    Json rows = Json::array();
    for (const KitDifference& d : differences)
        rows.push_back({{"at", d.subject.is(Subject::Kind::unknown) ? "" : d.subject.text()},
                        {"field", d.field},
                        {"mine", d.mine},
                        {"theirs", d.theirs}});
    printJson({{"summary", comparedInWords(differences)}, {"differences", rows}});
    return 0;
}

int kitUpgradeCommand(const KitChangeQuestion& q, bool json) {
    const auto asked = ask(q.kit);
    if (!asked) return refuse(asked.error(), json);
    const auto text = readFile(q.with, kLargestKit);
    if (!text) return refuse(text.error(), json);
    const auto upgraded = withUpgrade(asked->kit.text, *text, asked->tables.cores);
    if (!upgraded) return refuse(upgraded.error(), json);
    Json again = Json::array();
    for (const Subject& subject : upgraded->again) again.push_back(subject.text());
    return give(q.out, upgraded->text, {{"name", upgraded->name}, {"says", upgraded->says}, {"again", again}},
                json);
}

int kitMergeCommand(const KitChangeQuestion& q, bool json) {
    const auto asked = ask(q.kit), other = ask(q.with);
    if (!asked) return refuse(asked.error(), json);
    if (!other) return refuse(other.error(), json);
    const auto merged = mergeKits(asked->kit.text, other->kit.text, Build(), asked->tables.cores);
    if (!merged) return refuse(merged.error(), json);
    return give(q.out, merged->text, {{"changed", merged->changed}, {"says", merged->kept}}, json);
}

int kitVariantCommand(const KitChangeQuestion& q, bool json) {
    const auto asked = ask(q.kit);
    if (!asked) return refuse(asked.error(), json);
    const auto text = withVariant(asked->kit.text, q.with, asked->tables.cores);
    if (!text) return refuse(text.error(), json);
    return give(q.out, *text, {{"variant", q.with}, {"variants", asked->kit.kit.variants}}, json);
}

int practiceCommand(const PracticeWish& wish) {
    if (std::filesystem::exists(wish.book))
        return refuse({wish.book, "There is a file of this name already; it was left as it is."}, false);
    const auto tables = readTables(dataFolder());
    if (!tables) return refuse(tables.error(), false);
    auto practice = wish.tuning                  ? readShippedKit(dataFolder(), *tables, "bell-buoy")
                    : wish.proving || wish.onAir ? readShippedKit(dataFolder(), *tables, "night-ferry")
                                                 : readPracticeKit(dataFolder(), *tables);
    if (!practice) return refuse(practice.error(), false);
    if (!wish.fault.empty()) {
        if (!PracticeCircuit(practice->kit, [](const std::string&) { return 0.0; }).seed(wish.fault))
            return refuse({"--fault",
                           "The practice kit's circuit knows no fault \"" + wish.fault.substr(0, 60) + "\"."},
                          false);
        practice->bag.faults.push_back(wish.fault);
    }
    const PracticeStage stage = wish.tuning     ? PracticeStage::tuning
                                : wish.onAir    ? PracticeStage::onAir
                                : wish.proving  ? PracticeStage::proving
                                : wish.finished ? PracticeStage::finished
                                                : PracticeStage::partWay;
    const auto written = writePracticeBook(wish.book, *practice, stage);
    return written ? 0 : refuse(written.error(), false);
}

}  // namespace ombrek
