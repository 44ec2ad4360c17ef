#include "formats/kit_compare.h"

#include <algorithm>
#include <nlohmann/json.hpp>
#include <set>

#include "core/text/counted.h"
#include "formats/kit_edit.h"
#include "formats/kit_json.h"
#include "formats/kit_variants.h"
#include "station/board/plan_from_parts.h"
#include "station/phrases.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

/// A list of a kit file, what its rows are called by, and what they are.
struct ListOf {
    const char *list, *key;
    Subject::Kind kind;
};
constexpr ListOf kLists[] = {{"parts", "ref", Subject::Kind::part},
                             {"coils", "ref", Subject::Kind::coil},
                             {"steps", "id", Subject::Kind::step},
                             {"checks", "id", Subject::Kind::check},
                             {"adjustments", "id", Subject::Kind::adjustment}};

/// Fields whose change makes a part or a coil another thing than the one that was seen and read.
constexpr std::string_view kWhatItIs[] = {"kind",  "value", "tolerance", "low",      "high",   "volts",
                                          "watts", "core",  "own_core",  "windings", "twisted"};

const Json& rowsOf(const Json& kit, const char* list) {
    static const Json none = Json::array();
    return kit.contains(list) ? kit[list] : none;
}

const Json* find(const Json& kit, const ListOf& list, const std::string& name) {
    for (const Json& row : rowsOf(kit, list.list)) {
        if (row.value(list.key, "") == name) return &row;
    }
    return nullptr;
}

std::string textOf(const Json& value) {
    if (value.is_null()) return "";
    return value.is_string() ? value.get<std::string>() : value.dump();
}

/// The fields of two rows or kits that differ.
void compareFields(const Json& mine, const Json& theirs, const Subject& subject, const Json& but,
                   std::vector<KitDifference>& out) {
    const auto value = [](const Json& row, const std::string& field) {
        return row.contains(field) ? row[field] : Json();
    };
    std::vector<std::string> fields;
    for (const Json* row : {&mine, &theirs}) {
        for (const auto& [field, held] : row->items()) {
            if (std::find(fields.begin(), fields.end(), field) == fields.end()) fields.push_back(field);
        }
    }
    for (const std::string& field : fields) {
        if (std::find(but.begin(), but.end(), field) != but.end()) continue;
        if (value(mine, field) != value(theirs, field))
            out.push_back({subject, field, textOf(value(mine, field)), textOf(value(theirs, field))});
    }
}

std::string nameOfThing(const Subject& subject) {
    return subject.is(Subject::Kind::part) || subject.is(Subject::Kind::coil)
               ? subject.id
               : std::string(subject.is(Subject::Kind::step)    ? "step "
                             : subject.is(Subject::Kind::check) ? "check "
                                                                : "adjustment ") +
                     subject.id;
}

/// Their text for the variant that is built here. What would take another band's values, or take an upgrade
/// back, is refused.
Result<std::string> forThisRig(const Json& mine, const std::string& theirsText,
                               const std::vector<MagneticCore>& cores) {
    const Json theirs = Json::parse(theirsText);
    const Json none = Json::array();
    const Json& have = theirs.contains("upgrades") ? theirs["upgrades"] : none;
    for (const Json& name : mine.contains("upgrades") ? mine["upgrades"] : none) {
        if (std::find(have.begin(), have.end(), name) == have.end())
            return problem("", "This rig has the upgrade " + name.dump() +
                                   " on it, and theirs has not: it would be taken back. Nothing was taken.");
    }
    const std::string variant = mine.value("variant", "");
    if (!theirs.contains("variants") || theirs.value("variant", "") == variant) return theirsText;
    if (variant.empty())
        return problem("", "Theirs comes in variants and yours does not: begin it anew and choose one.");
    return withVariant(theirsText, variant, cores);
}

/// A part is fitted in one step: in the one that is done, else in the first that names it.
void fitOnce(Json& kit, const Build& build) {
    if (!kit.contains("steps")) return;
    std::set<std::string> fitted;
    for (const bool done : {true, false}) {
        for (Json& step : kit["steps"]) {
            if (build.done(step.value("id", "")) != done || !step.contains("fits")) continue;
            Json kept = Json::array();
            for (const Json& ref : step["fits"]) {
                if (fitted.insert(ref.get<std::string>()).second) kept.push_back(ref);
            }
            step["fits"] = std::move(kept);
        }
    }
}

}  // namespace

std::vector<KitDifference> compareKits(const std::string& mineText, const std::string& theirsText) {
    const Json mine = Json::parse(mineText), theirs = Json::parse(theirsText);
    std::vector<KitDifference> out;
    Json lists = Json::array({"x-made"});
    for (const ListOf& list : kLists) lists.push_back(list.list);
    compareFields(mine, theirs, {}, lists, out);
    for (const ListOf& list : kLists) {
        const auto subject = [&](const Json& row) {
            return Subject{list.kind, row.value(list.key, ""), "", Subject::Condition::any};
        };
        for (const Json& row : rowsOf(mine, list.list)) {
            const Json* other = find(theirs, list, row.value(list.key, ""));
            if (other == nullptr) {
                out.push_back({subject(row), "", textOf(row), ""});
            } else {
                compareFields(row, *other, subject(row), Json::array(), out);
            }
        }
        for (const Json& row : rowsOf(theirs, list.list)) {
            if (find(mine, list, row.value(list.key, "")) == nullptr)
                out.push_back({subject(row), "", "", textOf(row)});
        }
    }
    return out;
}

std::string comparedInWords(const std::vector<KitDifference>& differences) {
    if (differences.empty()) return "They say the same.";
    int values = 0, errata = 0, other = 0;
    std::vector<std::string> added, gone;
    for (const KitDifference& d : differences) {
        if (d.field.empty()) {
            (d.mine.empty() ? added : gone).push_back(nameOfThing(d.subject));
        } else if (d.field == "erratum") {
            ++errata;
        } else if (std::find(std::begin(kWhatItIs), std::end(kWhatItIs), d.field) != std::end(kWhatItIs)) {
            ++values;
        } else {
            ++other;
        }
    }
    std::vector<std::string> parts;
    const auto count = [&](int number, const char* one, const char* many) {
        if (number > 0) parts.push_back(counted(number, one, many));
    };
    count(values, "value", "values");
    count(errata, "erratum", "errata");
    count(other, "other entry", "other entries");
    std::string out;
    for (std::size_t i = 0; i < parts.size(); ++i)
        out += (i == 0 ? "" : i + 1 == parts.size() ? " and " : ", ") + parts[i];
    if (!out.empty()) out += values + errata + other == 1 ? " differs." : " differ.";
    const auto say = [&](const std::vector<std::string>& names, const std::string& what) {
        if (!names.empty())
            out +=
                (out.empty() ? "" : " ") + listed(names, 6) + (names.size() == 1 ? " is " : " are ") + what;
    };
    say(added, "new.");
    say(gone, "no more there.");
    return out;
}

Result<Merged> mergeKits(const std::string& mineText, const std::string& theirsText, const Build& build,
                         const std::vector<MagneticCore>& cores) {
    const Json mine = Json::parse(mineText);
    auto theirs = forThisRig(mine, theirsText, cores);
    if (!theirs) return tl::make_unexpected(theirs.error());
    Json out = Json::parse(*theirs);
    Merged merged;
    for (const ListOf& list : kLists) {
        std::vector<std::string> stays;
        for (const Json& row : rowsOf(mine, list.list)) {
            const std::string name = row.value(list.key, "");
            Json* theirs = nullptr;
            if (out.contains(list.list)) {
                for (Json& other : out[list.list]) {
                    if (other.value(list.key, "") == name) theirs = &other;
                }
            }
            if (theirs == nullptr) {
                out[list.list].push_back(row);
                stays.push_back(name);
                continue;
            }
            if (list.kind == Subject::Kind::step && build.done(name)) {
                const Json erratum = theirs->contains("erratum") ? (*theirs)["erratum"] : Json();
                *theirs = row;
                if (!erratum.is_null()) (*theirs)["erratum"] = erratum;
                continue;
            }
            if (!theirs->contains("place") && row.contains("place")) (*theirs)["place"] = row["place"];
            const bool another =
                std::any_of(std::begin(kWhatItIs), std::end(kWhatItIs), [&](const auto field) {
                    const std::string name(field);
                    return (row.contains(name) ? row[name] : Json()) !=
                           (theirs->contains(name) ? (*theirs)[name] : Json());
                });
            if (another && (list.kind == Subject::Kind::part || list.kind == Subject::Kind::coil))
                merged.changed.push_back(name);
        }
        if (!stays.empty())
            merged.kept.push_back(std::string("Only yours, and kept: ") + list.list + " " + listed(stays, 8) +
                                  ".");
    }
    fitOnce(out, build);
    for (const char* field : {"board", "variant", "variants", "upgrades"}) {
        if (mine.contains(field) && !out.contains(field)) out[field] = mine[field];
    }
    merged.text = out.dump(1);
    const auto read = readKit(merged.text, cores);
    if (!read) return tl::make_unexpected(read.error());
    const auto steps = withEveryPart(*read);
    if (steps.size() != read->steps.size()) merged.text = withSteps(merged.text, steps);
    return merged;
}

}  // namespace ombrek
