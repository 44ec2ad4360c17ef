#include "station/board/loupe.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/text/enumerators.h"
#include "kit/package.h"
#include "station/board/sitting.h"

namespace ombrek {
namespace {

constexpr double kRow = 12;  ///< of the loupe's view [mm]

/// The step that fits a part, where it is done.
std::map<std::string, std::int64_t> fittedAt(const Kit& kit, const Build& build) {
    std::map<std::string, std::int64_t> out;
    for (const Step& step : kit.steps) {
        const auto record = build.steps.find(step.id);
        if (record == build.steps.end()) continue;
        for (const std::string& ref : step.fits) out[ref] = record->second.at;
    }
    return out;
}

void sortForLoupe(std::vector<const Part*>& parts) {
    const auto rank = [](const Part* part) {
        if (!part->place) return std::tuple(1, 0.0, 0.0);
        const double row = std::floor(part->place->y / kRow);
        const bool back = std::fmod(row, 2) != 0;
        return std::tuple(0, row, back ? -part->place->x : part->place->x);
    };
    std::stable_sort(parts.begin(), parts.end(),
                     [&](const Part* a, const Part* b) { return rank(a) < rank(b); });
}

/// When the last evening began in which anything was fitted.
std::int64_t lastSoldering(const Kit& kit, const Build& build) {
    std::int64_t out = 0;
    for (const Evening& evening : eveningsOf(kit, build)) {
        const bool fitted = std::any_of(evening.steps.begin(), evening.steps.end(),
                                        [&](const std::string& id) { return !kit.step(id)->fits.empty(); });
        if (fitted) out = evening.start;
    }
    return out;
}

}  // namespace

std::string senseOf(const Part& part) {
    if (!part.orientation.empty()) return part.orientation;
    if (isLed(part)) return "long lead is the anode; the flat of the rim, or the short lead, is the cathode";
    if (polarisedCapacitor(part))
        return "stripe or short lead is minus; square pad or + on the print is plus";
    switch (part.kind) {
        case PartKind::diode:
            return "band as the print has it";
        case PartKind::transistor:
            return hasTab(part) ? "tab as the print has it" : "flat as the print has it";
        case PartKind::ic:
            if (hasTab(part)) return "tab as the print has it";
            if (isThreeLegged(part)) return "flat as the print has it";
            return "notch as the print has it, no leg bent under";
        default:
            return "";
    }
}

const std::array<JointLook, 6>& jointLooks() {
    static constexpr std::array<JointLook, 6> all{
        {{Finding::What::bridge, "bridge", "solder from one pad to its neighbour",
          "Wipe a clean hot tip between the pins, or lay wick on it."},
         {Finding::What::dry, "dry joint",
          "dull or grainy, a ring round the lead, solder standing off the pad",
          "Flux, and heat pad and lead together until it flows."},
         {Finding::What::missed, "missed", "a lead through its hole with no solder", "Solder it."},
         {Finding::What::flux, "flux", "brown glass between pins", "Flux remover and a brush; ventilate."},
         {Finding::What::turned, "turned", "a part the wrong way round",
          "Take it out with wick, look whether it still measures, and turn it."},
         {Finding::What::other, "other", "anything that looks odd", "Say what in a remark at the step."}}};
    static_assert(all.size() == enumerators<Finding::What>());
    return all;
}

std::string_view word(Finding::What what) { return jointLooks()[std::size_t(what)].word; }

std::string_view goodJoint() {
    return "A smooth hollow slope from pad to lead all round, the lead's end just showing, the hole filled.";
}

std::vector<const Part*> jointsToLookAt(const Kit& kit, const Build& build, bool all) {
    const auto fitted = fittedAt(kit, build);
    const std::int64_t since = all ? 0 : lastSoldering(kit, build);
    std::vector<const Part*> out;
    for (const Part& part : kit.parts) {
        const auto at = fitted.find(part.ref);
        if (at == fitted.end() || at->second < since) continue;
        const auto looked = build.joints.find(part.ref);
        if (looked == build.joints.end() || looked->second < at->second) out.push_back(&part);
    }
    sortForLoupe(out);
    return out;
}

std::vector<SenseLook> sensesToLookAt(const Kit& kit, const Build& build) {
    const auto fitted = fittedAt(kit, build);
    std::vector<const Part*> parts;
    for (const Part& part : kit.parts) {
        if (senseOf(part).empty() || !fitted.contains(part.ref) || build.senses.contains(part.ref)) continue;
        parts.push_back(&part);
    }
    sortForLoupe(parts);
    std::vector<SenseLook> out;
    for (const Part* part : parts) out.push_back({part, senseOf(*part)});
    return out;
}

std::size_t sensesLookedAt(const Kit& kit, const Build& build) {
    const auto fitted = fittedAt(kit, build);
    return std::size_t(std::count_if(kit.parts.begin(), kit.parts.end(), [&](const Part& part) {
        return !senseOf(part).empty() && fitted.contains(part.ref) && build.senses.contains(part.ref);
    }));
}

std::size_t fittedParts(const Kit& kit, const Build& build) { return fittedAt(kit, build).size(); }

std::vector<const Finding*> openFindings(const Build& build) {
    std::vector<const Finding*> out;
    for (const Finding& finding : build.findings) {
        if (finding.closed == 0) out.push_back(&finding);
    }
    return out;
}

std::vector<const Finding*> findingsAt(const Step& step, const Build& build) {
    std::vector<const Finding*> out;
    for (const Finding* finding : openFindings(build)) {
        if (std::find(step.fits.begin(), step.fits.end(), finding->ref) != step.fits.end())
            out.push_back(finding);
    }
    return out;
}

}  // namespace ombrek
