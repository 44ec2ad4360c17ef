#include "formats/kit_variants.h"

#include <algorithm>
#include <nlohmann/json.hpp>

#include "formats/kit_edit.h"
#include "formats/kit_json.h"
#include "station/board/plan_from_parts.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

constexpr const char* kLists[] = {"parts", "coils"};
/// Of the kit, not of a variant.
constexpr const char* kOwn[] = {"place", "erratum"};

const Json* find(const Json& kit, const char* list, const std::string& ref) {
    if (!kit.contains(list)) return nullptr;
    for (const Json& row : kit[list]) {
        if (row.value("ref", "") == ref) return &row;
    }
    return nullptr;
}

Json bare(Json row) {
    for (const char* field : kOwn) row.erase(field);
    return row;
}

/// Designators of a list over all versions, in their first order.
std::vector<std::string> refsOf(const std::vector<Json>& kits, const char* list) {
    std::vector<std::string> out;
    for (const Json& kit : kits) {
        if (!kit.contains(list)) continue;
        for (const Json& row : kit[list]) {
            const std::string ref = row.value("ref", "");
            if (std::find(out.begin(), out.end(), ref) == out.end()) out.push_back(ref);
        }
    }
    return out;
}

/// Whether it is the same in every version.
bool common(const std::vector<Json>& kits, const char* list, const std::string& ref) {
    const Json* first = find(kits.front(), list, ref);
    return std::all_of(kits.begin(), kits.end(), [&](const Json& kit) {
        const Json* row = find(kit, list, ref);
        return (row == nullptr) == (first == nullptr) && (row == nullptr || bare(*row) == bare(*first));
    });
}

void putRow(Json& kit, const char* list, Json row) {
    const std::string ref = row.value("ref", "");
    if (!kit.contains(list)) kit[list] = Json::array();
    for (Json& there : kit[list]) {
        if (there.value("ref", "") != ref) continue;
        for (const char* field : kOwn) {
            if (there.contains(field)) row[field] = there[field];
        }
        there = std::move(row);
        return;
    }
    kit[list].push_back(std::move(row));
}

void take(Json& kit, const std::string& ref) {
    for (const char* list : kLists) {
        if (!kit.contains(list)) continue;
        Json kept = Json::array();
        for (const Json& row : kit[list]) {
            if (row.value("ref", "") != ref) kept.push_back(row);
        }
        kit[list] = std::move(kept);
    }
    if (!kit.contains("steps")) return;
    for (Json& step : kit["steps"]) {
        if (!step.contains("fits")) continue;
        Json kept = Json::array();
        for (const Json& fit : step["fits"]) {
            if (fit != ref) kept.push_back(fit);
        }
        step["fits"] = std::move(kept);
    }
}

Json* entryOf(Json& kit, const std::string& name) {
    if (!kit.contains("variants")) return nullptr;
    for (Json& entry : kit["variants"]) {
        if (entry.value("name", "") == name) return &entry;
    }
    return nullptr;
}

/// What stands in the kit now goes back to the variant it is of.
void keepPresent(Json& kit) {
    Json* entry = entryOf(kit, kit.value("variant", ""));
    if (entry == nullptr) return;
    for (const char* list : kLists) {
        if (!entry->contains(list)) continue;
        for (Json& row : (*entry)[list]) {
            if (const Json* now = find(kit, list, row.value("ref", ""))) row = bare(*now);
        }
    }
    if (entry->contains("ratings") && kit.contains("ratings")) (*entry)["ratings"] = kit["ratings"];
}

/// The text with a step for every part; a Problem when it does not hold together.
Result<std::string> whole(const Json& kit, const std::vector<MagneticCore>& cores) {
    const std::string text = kit.dump(1);
    const auto read = readKit(text, cores);
    if (!read) return tl::make_unexpected(read.error());
    const auto steps = withEveryPart(*read);
    return steps.size() == read->steps.size() ? text : withSteps(text, steps);
}

}  // namespace

std::string withVariants(const std::vector<KitVersion>& versions, const std::string& chosen) {
    if (versions.empty()) return "";
    std::vector<Json> kits;
    for (const KitVersion& version : versions) kits.push_back(Json::parse(version.text));
    Json entries = Json::array();
    std::size_t at = 0;
    for (std::size_t i = 0; i < versions.size(); ++i) {
        if (versions[i].name == chosen) at = i;
        Json entry{{"name", versions[i].name}};
        for (const char* list : kLists) {
            for (const std::string& ref : refsOf(kits, list)) {
                if (common(kits, list, ref)) continue;
                if (const Json* row = find(kits[i], list, ref)) {
                    entry[list].push_back(bare(*row));
                } else if (find(kits[i], "parts", ref) == nullptr) {
                    Json& without = entry["without"];
                    if (without.is_null()) without = Json::array();
                    if (std::find(without.begin(), without.end(), ref) == without.end())
                        without.push_back(ref);
                }
            }
        }
        const auto ratings = [](const Json& kit) {
            return kit.contains("ratings") ? kit["ratings"] : Json();
        };
        const bool differ = std::any_of(
            kits.begin(), kits.end(), [&](const Json& kit) { return ratings(kit) != ratings(kits.front()); });
        if (differ && kits[i].contains("ratings")) entry["ratings"] = kits[i]["ratings"];
        entries.push_back(std::move(entry));
    }
    Json out = kits[at];
    out["variant"] = versions[at].name;
    out["variants"] = std::move(entries);
    return out.dump(1);
}

Result<std::string> withVariant(const std::string& kitText, const std::string& name,
                                const std::vector<MagneticCore>& cores) {
    Json kit = Json::parse(kitText);
    keepPresent(kit);
    const Json* entry = entryOf(kit, name);
    if (entry == nullptr) return problem("", "This kit has no variant \"" + name + "\".");
    const Json chosen = *entry;
    for (const char* list : kLists) {
        if (!chosen.contains(list)) continue;
        for (const Json& row : chosen[list]) putRow(kit, list, row);
    }
    if (chosen.contains("without")) {
        for (const Json& ref : chosen["without"]) take(kit, ref.get<std::string>());
    }
    if (chosen.contains("ratings")) kit["ratings"] = chosen["ratings"];
    kit["variant"] = name;
    return whole(kit, cores);
}

Result<std::string> withNewVariant(const std::string& kitText, const std::string& supplied,
                                   const KitVersion& version, const std::vector<MagneticCore>& cores) {
    Json kit = Json::parse(kitText);
    std::vector<KitVersion> versions;
    if (!kit.contains("variants") || kit["variants"].empty()) {
        versions.push_back({supplied, kitText});
    } else {
        for (const Json& entry : kit["variants"]) {
            const std::string name = entry.value("name", "");
            auto text = withVariant(kitText, name, cores);
            if (!text) return text;
            if (name != version.name) versions.push_back({name, std::move(*text)});
        }
    }
    versions.push_back(version);
    Json out = Json::parse(withVariants(versions, version.name));
    out["name"] = kit.value("name", "Kit");
    return whole(out, cores);
}

}  // namespace ombrek
