#include "formats/kit_upgrade.h"

#include <algorithm>
#include <nlohmann/json.hpp>
#include <set>

#include "formats/json_fields.h"
#include "formats/kit_edit.h"
#include "formats/kit_json.h"
#include "station/board/plan_from_parts.h"
#include "station/phrases.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

constexpr const char* kPowerOff =
    "Unplugged, and every reservoir capacitor discharged, before anything is cut or taken out.";

/// Work on a rig that is there already, made into a kit's text.
class Work {
 public:
    Work(Json kit, const nlohmann::json& document) : kit_(std::move(kit)), upgrade_(document, "") {}

    Upgraded into() {
        head();
        remove();
        for (const std::string& cut : upgrade_.texts("cut")) step("Cut " + cut);
        for (const std::string& bridge : upgrade_.texts("bridge")) step("Bridge " + bridge);
        parts();
        rows("coils", "ref", Subject::Kind::coil);
        if (upgrade_.has("steps")) {
            for (const auto& row : raw("steps")) own_.push_back(Json(row));
        }
        rows("checks", "id", Subject::Kind::check);
        rows("adjustments", "id", Subject::Kind::adjustment);
        if (upgrade_.has("ratings")) kit_["ratings"] = Json(raw("ratings"));
        if (upgrade_.has("low_pass")) kit_["low_pass"] = Json(raw("low_pass"));
        if (upgrade_.has("errata")) errata();
        plan();
        again();
        upgrade_.finish();
        kit_["upgrades"].push_back(out_.name);
        out_.text = kit_.dump(1);
        return std::move(out_);
    }

 private:
    const nlohmann::json& raw(const char* field) { return upgrade_.raw(field); }

    void head() {
        if (upgrade_.text("format") != "ombrek-upgrade")
            upgrade_.fault("format", "An upgrade says \"format\": \"ombrek-upgrade\".");
        if (upgrade_.whole("version", 1, 1000) != 1)
            upgrade_.fault("version", "This upgrade is of a newer version than 1; get a newer Ombrek.");
        out_.name = upgrade_.text("name");
        id_ = upgrade_.text("id");
        const std::string of = upgrade_.text("for", "");
        if (!of.empty() && of != kit_.value("id", ""))
            upgrade_.fault("for", "This upgrade is for the kit \"" + of + "\".");
        if (kit_.contains("upgrades") &&
            std::find(kit_["upgrades"].begin(), kit_["upgrades"].end(), out_.name) != kit_["upgrades"].end())
            upgrade_.fault("name", "This upgrade is in the rig already.");
    }

    bool has(const char* list, const char* key, const std::string& name) const {
        if (!kit_.contains(list)) return false;
        return std::any_of(kit_[list].begin(), kit_[list].end(),
                           [&](const Json& row) { return row.value(key, "") == name; });
    }

    void step(const std::string& title, const std::vector<std::string>& fits = {}) {
        Json row{{"do", title}};
        if (!fits.empty()) row["fits"] = fits;
        made_.push_back(std::move(row));
    }

    void remove() {
        const std::vector<std::string> refs = upgrade_.texts("remove");
        for (const std::string& ref : refs) {
            if (!has("parts", "ref", ref) && !has("coils", "ref", ref))
                upgrade_.fault("remove", "The kit has no \"" + ref + "\" to remove.");
            gone_.insert(ref);
            out_.again.push_back(Subject::part(ref));
            if (has("coils", "ref", ref)) out_.again.push_back(Subject::coil(ref));
        }
        if (refs.empty()) return;
        step("Take out " + listed(refs));
        out_.says.push_back("Taken out: " + listed(refs) + ".");
        for (const char* list : {"parts", "coils", "low_pass"})
            keep(list, [&](const Json& row) { return !gone_.contains(row.value("ref", "")); });
        keep("adjustments", [&](const Json& row) {
            const bool stays =
                !gone_.contains(row.value("adjuster", "")) && !gone_.contains(row.value("coil", ""));
            if (!stays) out_.says.push_back("No more to be adjusted: " + row.value("do", "") + ".");
            return stays;
        });
        if (!kit_.contains("steps")) return;
        for (Json& step : kit_["steps"]) {
            if (step.contains("fits")) step["fits"] = without(step["fits"], false);
            if (step.contains("hold")) step["hold"]["needs"] = without(step["hold"]["needs"], true);
        }
        keep("rests_on", [&](const Json& row) { return !isGone(row.value("what", ""), true); });
        if (kit_.contains("rests_on")) {
            for (Json& row : kit_["rests_on"]) row["on"] = without(row["on"], true);
        }
    }

    bool isGone(const std::string& text, bool subject) const {
        return gone_.contains(subject ? readSubject(text).id : text) &&
               (!subject || readSubject(text).is(Subject::Kind::part) ||
                readSubject(text).is(Subject::Kind::coil));
    }

    Json without(const Json& names, bool subjects) const {
        Json out = Json::array();
        for (const Json& name : names) {
            if (!isGone(name.get<std::string>(), subjects)) out.push_back(name);
        }
        return out;
    }

    template <class Stays>
    void keep(const char* list, Stays stays) {
        if (!kit_.contains(list)) return;
        Json kept = Json::array();
        for (const Json& row : kit_[list]) {
            if (stays(row)) kept.push_back(row);
        }
        kit_[list] = std::move(kept);
    }

    /// One that is there is changed, another is added. @return whether it was there
    bool put(const char* list, const char* key, const Json& row) {
        if (!kit_.contains(list)) kit_[list] = Json::array();
        for (Json& there : kit_[list]) {
            if (there.value(key, "") != row.value(key, "")) continue;
            if (there.contains("place") && !row.contains("place")) {
                const Json place = there["place"];
                there = row;
                there["place"] = place;
            } else {
                there = row;
            }
            return true;
        }
        kit_[list].push_back(row);
        return false;
    }

    void parts() {
        if (!upgrade_.has("parts")) return;
        for (const auto& given : raw("parts")) {
            const Json row(given);
            const std::string ref = row.value("ref", "");
            std::string was;
            for (const Json& there : kit_["parts"]) {
                if (there.value("ref", "") == ref) was = there.contains("value") ? text(there["value"]) : "";
            }
            out_.again.push_back(Subject::part(ref));
            if (put("parts", "ref", row)) {
                step("Replace " + ref + ", " + was + ", by " +
                     text(row.contains("value") ? row["value"] : Json("")));
                out_.says.push_back(ref + " is replaced.");
            } else {
                added_.push_back(ref);
            }
        }
    }

    static std::string text(const Json& value) {
        return value.is_string() ? value.get<std::string>() : value.dump();
    }

    void rows(const char* list, const char* key, Subject::Kind kind) {
        if (!upgrade_.has(list)) return;
        for (const auto& given : raw(list)) {
            const Json row(given);
            put(list, key, row);
            out_.again.push_back({kind, row.value(key, ""), "", Subject::Condition::any});
        }
    }

    void errata() {
        for (const auto& [subject, said] : raw("errata").items()) {
            if (said.is_string())
                kit_ = Json::parse(withErratum(kit_.dump(), readSubject(subject), said.get<std::string>()));
        }
    }

    /// The made steps and the upgrade's own behind all there are, each after the one before.
    void plan() {
        if (!kit_.contains("steps")) kit_["steps"] = Json::array();
        std::set<std::string> said;
        for (const Json& step : own_) {
            if (!step.contains("fits")) continue;
            for (const Json& ref : step["fits"]) said.insert(text(ref));
        }
        std::vector<std::string> open;
        for (const std::string& ref : added_) {
            if (!said.contains(ref)) open.push_back(ref);
        }
        if (!open.empty()) step("Fit " + listed(open), open);
        if (!added_.empty()) out_.says.push_back("New: " + listed(added_) + ".");
        std::vector<Json> all = made_;
        all.insert(all.end(), own_.begin(), own_.end());
        if (all.empty()) return;
        Json look{{"do", "Look at every joint and cut of this upgrade"}};
        look["hold"] = {{"needs", Json::array()},
                        {"say", "Through the loupe: no bridge, no hair of copper across a cut."}};
        look["caution"] = "First power again with the supply's current limited.";
        all.push_back(std::move(look));
        std::string before;
        int number = 0;
        for (Json& row : all) {
            if (!row.contains("id")) row["id"] = "up-" + id_ + "-" + std::to_string(++number);
            if (!before.empty()) row["after"].push_back(before);
            if (before.empty() && !row.contains("caution")) row["caution"] = kPowerOff;
            row["stage"] = out_.name;
            before = row["id"].get<std::string>();
            kit_["steps"].push_back(row);
        }
    }

    /// The kit's bands by name; one without a name where it has no list of them.
    std::vector<std::string> bands() const {
        std::vector<std::string> out;
        if (kit_.contains("ratings") && kit_["ratings"].contains("bands")) {
            for (const Json& row : kit_["ratings"]["bands"]) out.push_back(row.value("name", ""));
        }
        return out.empty() ? std::vector<std::string>{""} : out;
    }

    /// What the upgrade says is to be measured again; where it says nothing, all that is under power.
    void again() {
        if (upgrade_.has("again")) {
            for (const std::string& what : upgrade_.texts("again")) out_.again.push_back(readSubject(what));
            return;
        }
        for (const auto& [list, kind] :
             {std::pair{"checks", Subject::Kind::check}, {"adjustments", Subject::Kind::adjustment}}) {
            if (!kit_.contains(list)) continue;
            for (const Json& row : kit_[list])
                out_.again.push_back({kind, row.value("id", ""), "", Subject::Condition::any});
        }
        for (const std::string& band : bands()) {
            out_.again.push_back(Subject::power(band));
            out_.again.push_back(Subject::current(band));
            out_.again.push_back(Subject::frequency(band));
            for (int order = 2; order <= 20; ++order) out_.again.push_back(Subject::harmonic(order, band));
        }
        out_.says.push_back(
            "It does not say what to measure again: every check, adjustment and proof is asked.");
    }

    Json kit_;
    JsonFields upgrade_;
    std::string id_;
    std::set<std::string> gone_;
    std::vector<std::string> added_;
    std::vector<Json> made_, own_;
    Upgraded out_;
};

}  // namespace

Result<Upgraded> withUpgrade(const std::string& kitText, const std::string& upgradeText,
                             const std::vector<MagneticCore>& cores) {
    try {
        const auto document = parseJson(upgradeText);
        Upgraded out = Work(Json::parse(kitText), document).into();
        auto read = readKit(out.text, cores);
        if (!read) return tl::make_unexpected(read.error());
        const auto steps = withEveryPart(*read);
        if (steps.size() != read->steps.size()) out.text = withSteps(out.text, steps);
        return out;
    } catch (const JsonFault& fault) {
        return tl::make_unexpected(fault.problem);
    } catch (const nlohmann::json::exception&) {
        return problem("", "This upgrade holds a value that cannot be read.");
    }
}

}  // namespace ombrek
