#include "formats/kit_edit.h"

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>
#include <sstream>

#include "formats/encoding.h"
#include "formats/kit_json.h"

namespace ombrek {

using Json = nlohmann::ordered_json;

Json stepsJson(const std::vector<Step>& steps) {
    Json out = Json::array();
    for (const Step& step : steps) {
        Json row{{"id", step.id}, {"do", step.title}};
        if (!step.fits.empty()) row["fits"] = step.fits;
        if (!step.after.empty()) row["after"] = step.after;
        if (!step.before.empty()) row["before"] = step.before;
        row["minutes"] = std::clamp(step.minutes, 0.1, 1000.0);
        if (step.taken > 0) row["taken_minutes"] = step.taken;
        if (step.mended > 0) row["mended"] = step.mended;
        if (step.height > 0) row["height_mm"] = step.height;
        if (step.hold) {
            row["hold"] = {{"needs", nlohmann::json::array()}, {"say", step.hold->say}};
            for (const Subject& need : step.hold->needs) row["hold"]["needs"].push_back(need.text());
        }
        if (!step.tools.empty()) row["tools"] = step.tools;
        for (const Step::Keep& keep : step.keeps)
            row["keep"].push_back({{"what", keep.what}, {"count", keep.count}, {"until", keep.until}});
        if (!step.stage.empty()) row["stage"] = step.stage;
        if (step.hardness > 0) row["hard"] = step.hardness;
        if (!step.caution.empty()) row["caution"] = step.caution;
        if (!step.note.empty()) row["note"] = step.note;
        if (!step.erratum.empty()) row["erratum"] = step.erratum;
        if (!step.number.empty()) row["number"] = step.number;
        out.push_back(std::move(row));
    }
    return out;
}

namespace {

/// The row of a list with a name, made when there is none.
Json& rowOf(Json& list, const char* field, const std::string& name) {
    if (!list.is_array()) list = Json::array();
    for (Json& row : list) {
        if (row.value(field, "") == name) return row;
    }
    list.push_back(Json::object());
    return list.back();
}

/// The row of a list with a name, without the fields that are said anew; what else it says stays.
Json& rowSaidAnew(Json& list, const char* field, const std::string& name,
                  std::initializer_list<const char*> anew) {
    Json& row = rowOf(list, field, name);
    for (const char* one : anew) row.erase(one);
    row[field] = name;
    return row;
}

void put(Json& row, const char* field, const std::string& text) {
    if (!text.empty()) row[field] = text;
}

Json ownCoreJson(const MagneticCore& core) {
    constexpr double kMillimetres = 1e3;
    const bool ring = core.shape == MagneticCore::Shape::ring;
    Json out{{"name", core.designation}, {"shape", ring ? "ring" : "two-hole"}, {"al", core.al}};
    put(out, "material", core.material);
    put(out, "mix", core.mix);
    out["al_tolerance"] = core.alTolerancePercent;
    out["height_mm"] = core.height * kMillimetres;
    out[ring ? "outer_mm" : "width_mm"] = core.outerDiameter * kMillimetres;
    out[ring ? "inner_mm" : "turn_mm"] = (ring ? core.innerDiameter : core.turnLength) * kMillimetres;
    return out;
}

}  // namespace

std::string withBand(const std::string& kitText, const Rebuilt& rebuilt) {
    Json kit = Json::parse(kitText);
    for (Json& part : kit["parts"]) {
        if (const Recapped* c = rebuilt.capacitor(part.value("ref", "")))
            part["value"] = plainNumber(std::round(c->after * 1e14) / 100) + "p";  // in every locale
        if (const Rewound* coil = rebuilt.coil(part.value("ref", ""));
            coil && part.value("kind", "") == "coil")
            part["value"] = "ring " + coil->coreAfter;
    }
    for (Json& row : kit["coils"]) {
        const Rewound* coil = rebuilt.coil(row.value("ref", ""));
        if (coil == nullptr) continue;
        row["target"] = coil->wanted;
        if (coil->coreAfter != coil->coreBefore) {
            row["core"] = coil->coreAfter;
            row.erase("own_core");
        }
        for (std::size_t i = 0; i < row["windings"].size() && i < coil->turnsAfter.size(); ++i) {
            Json& winding = row["windings"][i];
            const double ratio = double(coil->turnsAfter[i]) / std::max(1, coil->turnsBefore[i]);
            winding["turns"] = coil->turnsAfter[i];
            if (!winding.contains("taps")) continue;
            for (Json& tap : winding["taps"])
                tap["at"] = std::clamp(int(std::lround(tap.value("at", 1) * ratio)), 1,
                                       std::max(1, coil->turnsAfter[i] - 1));
        }
        if (row.contains("tune")) {
            row["tune"]["low"] = rebuilt.band.low;
            row["tune"]["high"] = rebuilt.band.high;
        }
    }
    if (kit.contains("ratings") && kit["ratings"].contains("frequency"))
        kit["ratings"]["frequency"] = std::round((rebuilt.band.low + rebuilt.band.high) / 2);
    const std::string band = formatQuantity(rebuilt.band.low, Unit::hertz, 4);
    kit["name"] = kit.value("name", "Kit") + " for " + band;
    return kit.dump(1);
}

std::string withChecks(const std::string& kitText, const std::vector<Check>& checks) {
    Json kit = Json::parse(kitText);
    for (const Check& check : checks) {
        Json& row = rowSaidAnew(kit["checks"], "id", check.id,
                                {"seen", "at", "to", "condition", "low", "high", "gate", "bridge", "rule",
                                 "from", "erratum", "caution", "suspects"});
        row["do"] = check.title;
        row["quantity"] = check.yesNo() ? "seen" : check.diode ? "diode" : quantityWord(check.unit);
        put(row, "seen", check.seen);
        put(row, "at", check.at);
        put(row, "to", check.to);
        put(row, "condition", check.condition);
        if (!check.yesNo() && std::isfinite(check.limits.low)) row["low"] = check.limits.low;
        if (std::isfinite(check.limits.high)) row["high"] = check.limits.high;
        if (check.gate) row["gate"] = true;
        put(row, "bridge", check.bridge);
        put(row, "rule", check.rule);
        put(row, "from", check.from);
        put(row, "erratum", check.erratum);
        put(row, "caution", check.caution);
        put(row, "suspects", check.suspects);
    }
    return kit.dump(1);
}

std::string withCoil(const std::string& kitText, const Coil& coil) {
    Json kit = Json::parse(kitText);
    Json& known = rowOf(kit["coils"], "ref", coil.ref);
    known["ref"] = coil.ref;
    const Json before = known;
    Json& row = rowSaidAnew(kit["coils"], "ref", coil.ref,
                            {"what", "own_core", "core", "windings", "twisted", "tune", "note", "erratum"});
    // What another core's figures said does not hold for this one.
    if (coil.core.own || before.value("core", "") != coil.core.designation) {
        row.erase("tolerance");
        row.erase("impedance");
    }
    put(row, "what", coil.what);
    if (coil.core.own) {
        row["own_core"] = ownCoreJson(coil.core);
    } else {
        row["core"] = coil.core.designation;
    }
    row["wire"] = coil.wireText;
    row["target"] = coil.target;
    for (const Winding& winding : coil.windings) {
        Json said = before.value("windings", Json::array());
        Json& w = rowSaidAnew(said, "name", winding.name, {"taps"});
        w["turns"] = winding.turns;
        for (const Winding::Tap& tap : winding.taps)
            w["taps"].push_back({{"at", tap.at}, {"name", tap.name}});
        row["windings"].push_back(w);
    }
    if (!coil.twisted.empty()) row["twisted"] = coil.twisted;
    if (coil.tune) {
        row["tune"] = {{"trimmer", coil.tune->trimmer},
                       {"fixed", coil.tune->fixed},
                       {"stray", coil.tune->stray},
                       {"low", coil.tune->low},
                       {"high", coil.tune->high}};
    }
    put(row, "note", coil.note);
    put(row, "erratum", coil.erratum);
    // A coil is a part of the bag, too.
    const bool listed = std::any_of(kit["parts"].begin(), kit["parts"].end(),
                                    [&](const Json& part) { return part.value("ref", "") == coil.ref; });
    if (!listed)
        kit["parts"].push_back(
            {{"ref", coil.ref}, {"kind", "coil"}, {"value", "ring " + coil.core.designation}});
    return kit.dump(1);
}

std::string withStray(const std::string& kitText, const std::string& coil, double stray) {
    Json kit = Json::parse(kitText);
    for (Json& row : kit["coils"]) {
        if (row.value("ref", "") == coil && row.contains("tune")) row["tune"]["stray"] = stray;
    }
    return kit.dump(1);
}

namespace {

/// What is turned and read, where it is not as usual.
void putWays(Json& row, const Adjustment& a) {
    const Adjuster usual;
    if (a.turned.kind != usual.kind) row["turned"] = turnedWord(a.turned.kind);
    if (a.turned.turns > 0) row["turns"] = a.turned.turns;
    if (a.turned.high > a.turned.low) {
        row["from"] = a.turned.low;
        row["to"] = a.turned.high;
    }
    if (a.scale.kind == ReadingScale::Kind::number) return;
    row["scale"] = scaleWord(a.scale.kind);
    row["blocks"] = a.scale.blocks;
    row["bar_ranges"] = a.scale.ranges;
}

/// What must hold before and meanwhile.
void putConditions(Json& row, const Adjustment& a) {
    put(row, "band", a.band);
    if (!a.after.empty()) row["after"] = a.after;
    for (const Subject& need : a.needs) row["needs"].push_back(need.text());
    put(row, "ready", a.ready);
    if (!a.each.empty()) row["each"] = a.each;
    const std::pair<const char*, double> numbers[] = {{"never", a.never},
                                                      {"travel_volts", a.volts},
                                                      {"warm_up_minutes", a.warmUp},
                                                      {"key_down_seconds", a.keyDown},
                                                      {"rest_seconds", a.rest}};
    for (const auto& [field, value] : numbers) {
        if (value > 0) row[field] = value;
    }
}

}  // namespace

std::string withAdjustment(const std::string& kitText, const Adjustment& a) {
    Json kit = Json::parse(kitText);
    Json row{{"id", a.id}, {"do", a.title}, {"adjuster", a.adjuster}, {"kind", kindWord(a.kind)}};
    if (a.unit != Unit::none) row["quantity"] = quantityWord(a.unit);
    put(row, "reads", a.reads);
    put(row, "coil", a.coil);
    putWays(row, a);
    putConditions(row, a);
    if (!a.partners.empty()) row["partners"] = a.partners;
    if (a.sets() || (a.kind == Adjustment::Kind::bias && a.target > 0)) {
        row["target"] = a.target;
        row["tolerance"] = a.tolerance;
    }
    if (a.safe != SafeEnd::none) row["safe_end"] = a.safe == SafeEnd::low ? "low" : "high";
    put(row, "caution", a.caution);
    put(row, "erratum", a.erratum);
    rowOf(kit["adjustments"], "id", a.id) = std::move(row);
    return kit.dump(1);
}

std::string withRatings(const std::string& kitText, const Ratings& r) {
    Json kit = Json::parse(kitText);
    Json row = kit.contains("ratings") ? kit["ratings"] : Json::object();
    row.erase("transmits");
    if (r.air == Ratings::Air::no) {
        row = {{"transmits", false}};
    } else {
        row.erase("bands");  // said otherwise now
        row["power"] = r.power;
        row["power_low"] = r.powerLow;
        row["power_high"] = r.powerHigh;
        row["supply"] = r.supply;
        row["frequency"] = r.frequency;
        row["load"] = r.ohms;
        row["harmonics"] = r.harmonics;
        for (const auto& [field, value] : {std::pair{"current_low", r.currentLow},
                                           {"current_high", r.currentHigh},
                                           {"harmonics_below_db", r.harmonicsBelow}}) {
            row.erase(field);
            if (value > 0) row[field] = value;
        }
    }
    kit["ratings"] = std::move(row);
    return kit.dump(1);
}

std::string withSteps(const std::string& kitText, const std::vector<Step>& steps) {
    Json kit = Json::parse(kitText);
    kit["steps"] = stepsJson(steps);
    if (kit.contains("look_aheads")) {
        const auto known = [&](const std::string& id) {
            return std::any_of(steps.begin(), steps.end(), [&](const Step& step) { return step.id == id; });
        };
        Json kept = Json::array();
        for (const Json& row : kit["look_aheads"]) {
            if (known(row.value("from", "")) && known(row.value("until", ""))) kept.push_back(row);
        }
        kit["look_aheads"] = std::move(kept);
    }
    return kit.dump(1);
}

std::string withLowPass(const std::string& kitText, const std::vector<FilterElement>& elements) {
    Json kit = Json::parse(kitText), rows = Json::array();
    for (const FilterElement& e : elements)
        rows.push_back({{"ref", e.ref}, {"arm", e.series ? "series" : "shunt"}});
    kit["low_pass"] = std::move(rows);
    return kit.dump(1);
}

std::string withCircuit(const std::string& kitText, const std::string& netlist) {
    Json kit = Json::parse(kitText), lines = Json::array();
    std::istringstream in(toUtf8(netlist));
    for (std::string line; std::getline(in, line);) lines.push_back(line);
    kit["circuit"] = std::move(lines);
    return kit.dump(1);
}

std::string withErratum(const std::string& kitText, const Subject& at, const std::string& erratum) {
    struct Place {
        Subject::Kind kind;
        const char *list, *key;
    };
    static constexpr Place places[] = {{Subject::Kind::part, "parts", "ref"},
                                       {Subject::Kind::coil, "coils", "ref"},
                                       {Subject::Kind::step, "steps", "id"},
                                       {Subject::Kind::check, "checks", "id"},
                                       {Subject::Kind::adjustment, "adjustments", "id"}};
    Json kit = Json::parse(kitText);
    for (const Place& place : places) {
        if (place.kind != at.kind || !kit.contains(place.list)) continue;
        for (Json& row : kit[place.list]) {
            if (row.value(place.key, "") != at.id) continue;
            row.erase("erratum");
            put(row, "erratum", erratum);
        }
    }
    return kit.dump(1);
}

}  // namespace ombrek
