#include "formats/kit_edit.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <nlohmann/json.hpp>

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
        out.push_back(std::move(row));
    }
    return out;
}

std::string withPlaces(const std::string& kitText, const Placement& placement) {
    Json kit = Json::parse(kitText);
    std::map<std::string, const PlacedPart*> byRef;
    for (const PlacedPart& placed : placement.parts) byRef.emplace(placed.ref, &placed);
    for (Json& part : kit["parts"]) {
        const auto hit = byRef.find(part.value("ref", ""));
        if (hit == byRef.end()) continue;
        Json place = part.contains("place") ? part["place"] : Json::object();
        place["x"] = std::round(hit->second->x * 100) / 100;
        place["y"] = std::round(hit->second->y * 100) / 100;
        if (hit->second->turn != 0) place["turn"] = hit->second->turn;
        if (hit->second->underside) place["underside"] = true;
        part["place"] = std::move(place);
    }
    const bool small = kit.contains("board") && (kit["board"].value("width_mm", 0.0) < placement.width ||
                                                 kit["board"].value("height_mm", 0.0) < placement.height);
    if (!kit.contains("board") || small)
        kit["board"] = {{"width_mm", std::ceil(placement.width)}, {"height_mm", std::ceil(placement.height)}};
    return kit.dump(1);
}

std::string withErratum(const std::string& kitText, const std::string& step, const std::string& erratum) {
    Json kit = Json::parse(kitText);
    for (Json& row : kit["steps"]) {
        if (row.value("id", "") != step) continue;
        row.erase("erratum");
        if (!erratum.empty()) row["erratum"] = erratum;
    }
    return kit.dump(1);
}

}  // namespace ombrek
