#include "judged/rig_card.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/earned.h"
#include "core/text/says.h"
#include "judged/evidence.h"
#include "judged/sign_off.h"
#include "station/bands.h"
#include "station/first_light/first_light.h"
#include "station/proof/frequencies.h"
#include "station/said.h"
#include "station/subjects.h"

namespace ombrek {
namespace {

/// What holds a fuse, by its designator or duty.
std::string fuseOf(const Kit& kit) {
    for (const Part& part : kit.parts) {
        if (holdsStem(part.value, {"fuse"}) || holdsStem(part.what, {"fuse"})) {
            const std::string value = holdsStem(part.value, {"fuse"}) && !part.what.empty()
                                          ? part.value + ", " + part.what
                                          : part.value;
            return part.ref + " " + value;
        }
    }
    return "";
}

/// Gaps that were closed, and jumpers and switches as the kit's adjustments want them.
std::string jumpersOf(const Judged& judged) {
    std::vector<std::string> out;
    const auto add = [&](const std::string& text) {
        if (!text.empty() && std::find(out.begin(), out.end(), text) == out.end()) out.push_back(text);
    };
    for (const Check& check : judged.kit().checks) {
        if (!check.bridge.empty() && judged.build().gates.contains(bridgeGate(check)))
            add(check.bridge + " closed");
    }
    for (const Adjustment& a : judged.kit().adjustments) {
        const Reading* last = judged.build().last(Subject::adjustment(a.id));
        if (last == nullptr) continue;
        if (a.turned.kind == Adjuster::Kind::jumper || a.turned.kind == Adjuster::Kind::menu)
            add(a.adjuster + " " + positionText(a.turned, last->setting(kPosition)));
    }
    std::string text;
    for (const std::string& s : out) text += (text.empty() ? "" : ", ") + s;
    return text;
}

void addOffsets(const Judged& judged, RigCard& out) {
    for (const Adjustment& a : judged.kit().adjustments) {
        if (a.unit != Unit::hertz || !a.sets()) continue;
        const Evidence e = withReading({}, judged, Subject::adjustment(a.id));
        if (!e.figure.empty())
            out.lines.push_back({a.title, earnedValue(e.value, e.uncertainty, Unit::hertz)});
    }
}

}  // namespace

RigCard rigCard(const Judged& judged) {
    const Kit& kit = judged.kit();
    RigCard out;
    out.title = kit.name;
    if (!kit.variant.empty()) out.title += ", " + kit.variant;
    const auto fits = fitFor(judged);
    for (const std::string& band : kit.ratings.bandNames()) {
        if (!kit.ratings.transmits()) break;
        const ProofState& proof = judged.proof(band);
        RigCard::Band line;
        line.frequency = proof.frequency ? formatQuantity(*proof.frequency, Unit::hertz, 6) : "not measured";
        line.name = bandCalled(kit, band);
        line.power = proof.power && proof.supplyKnown
                         ? earnedValue(proof.power->watts, proof.power->uncertainty, Unit::watt) + " at " +
                               formatQuantity(proof.supply, Unit::volt, 3)
                         : "not measured";
        line.proved = std::any_of(fits.begin(), fits.end(), [&](const FitFor& f) {
            return f.what.starts_with("the air") && f.band == band && f.fit && !f.knowingly;
        });
        out.bands.push_back(std::move(line));
    }
    const auto orUnsaid = [](const std::string& text) {
        return text.empty() ? std::string("not said") : text;
    };
    out.lines.push_back(
        {"Supply", kit.ratings.supply > 0 ? formatQuantity(kit.ratings.supply, Unit::volt, 3) : "not said"});
    out.lines.push_back({"Fuse", orUnsaid(fuseOf(kit))});
    out.lines.push_back({"Jumpers", orUnsaid(jumpersOf(judged))});
    addOffsets(judged, out);
    if (const auto points = dialPointsOf(judged.build()); points.size() >= 2) {
        const auto [low, high] = std::minmax_element(
            points.begin(), points.end(), [](auto& a, auto& b) { return a.frequency < b.frequency; });
        out.lines.push_back({"Dial", formatQuantity(low->frequency, Unit::hertz, 6) + " to " +
                                         formatQuantity(high->frequency, Unit::hertz, 6)});
    }
    for (const KnownDefect& d : knownDefects(judged.readiness())) {
        if (std::find(out.defects.begin(), out.defects.end(), d.forbids) == out.defects.end())
            out.defects.push_back(d.forbids);
    }
    return out;
}

}  // namespace ombrek
