#include "desk/parts_in/parts_in_model.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "kit/parts_in.h"

namespace ombrek {
namespace {

struct RowOf {
    const char* name;
    std::vector<PartKind> kinds;
};
const std::vector<RowOf>& rowsOfBag() {
    static const std::vector<RowOf> rows{{"Resistors", {PartKind::resistor}},
                                         {"Capacitors", {PartKind::capacitor}},
                                         {"Semis", {PartKind::diode, PartKind::transistor, PartKind::ic}},
                                         {"Coils", {PartKind::coil, PartKind::inductor}},
                                         {"Trimmers", {PartKind::trimmer, PartKind::crystal}},
                                         {"Other", {PartKind::other}}};
    return rows;
}

std::string toleranceText(const Part& part) {
    return part.nominal > 0 ? part.value + " ±" + plainNumber(part.tolerance) + "\u202f%" : part.value;
}

std::string nowSentence(const Part& part) {
    const std::string bag = part.bag.empty() ? "" : ", from bag " + part.bag;
    return (part.measurable() ? "Measure " : "Find ") + part.ref + ": " + part.value + bag + ".";
}

std::string whySentence(const Part& part) {
    std::string out;
    const auto add = [&](const std::string& text) {
        if (!text.empty()) out += (out.empty() ? "" : " · ") + text;
    };
    add(part.what);
    if (!part.mark.empty()) add("marked " + part.mark);
    add(part.orientation);
    return out;
}

std::string countsText(const BagCount& bag) {
    std::string out = std::to_string(bag.in) + " of " + std::to_string(bag.total) + " in";
    const std::array<std::pair<int, const char*>, 3> rest{
        {{bag.missing, " missing"}, {bag.wrong, " of another value"}, {bag.doubtful, " doubtful"}}};
    for (const auto& [count, what] : rest) {
        if (count > 0) out += " · " + std::to_string(count) + what;
    }
    return out;
}

/// The part whose reading was taken last, or null in a fresh bag.
const Part* lastRead(const Kit& kit, const Build& build) {
    const auto hit = std::find_if(build.readings.rbegin(), build.readings.rend(),
                                  [](const Reading& r) { return r.subject.starts_with("part:"); });
    return hit == build.readings.rend() ? nullptr : kit.part(hit->subject.substr(5));
}

void fillBag(const Kit& kit, const Build& build, PartsInView& out) {
    for (const RowOf& row : rowsOfBag()) {
        PartsInView::Row shown{row.name, {}};
        for (const Part& part : kit.parts) {
            if (std::find(row.kinds.begin(), row.kinds.end(), part.kind) == row.kinds.end()) continue;
            shown.dots.push_back({part.ref, partVerdict(part, build).state});
        }
        if (!shown.dots.empty()) out.rows.push_back(std::move(shown));
    }
    for (const Part& part : kit.parts) {
        const Verdict verdict = partVerdict(part, build);
        if (verdict.state == VerdictState::pass || verdict.state == VerdictState::notDone) continue;
        const Reading* reading = build.last("part:" + part.ref);
        std::string head = part.ref + " " + part.value;
        if (std::isfinite(verdict.reading) && reading)
            head += " reads " + formatQuantity(reading->value, reading->unit, 3, Zeros::keep);
        out.troubles.push_back({head, verdict.sentence, verdict.state});
    }
}

}  // namespace

PartsInView partsInView(const Kit& kit, const Build& build, const std::string& wanted,
                        const std::string& shown) {
    PartsInView out;
    out.wanted = wanted.empty() ? nextPart(kit, build) : kit.part(wanted);
    out.shown = shown.empty() ? lastRead(kit, build) : kit.part(shown);
    if (out.shown == nullptr) out.shown = out.wanted;
    const BagCount bag = countBag(kit, build);
    out.counts = countsText(bag);
    if (out.wanted != nullptr) {
        out.now = nowSentence(*out.wanted);
        out.why = whySentence(*out.wanted);
    } else {
        out.now = bag.in == bag.total ? "Every part is in: wind the coils."
                                      : "The bag is through: look again for what is wrong.";
        out.why = bag.in == bag.total ? "F2 goes to Winding."
                                      : "Most missing parts are found the next day, in another bag. Up and "
                                        "Down choose a line; F2 goes on.";
    }
    if (out.shown != nullptr) {
        out.beside = toleranceText(*out.shown);
        out.verdict = partVerdict(*out.shown, build);
        if (out.shown->measurable() && !std::isfinite(out.verdict.reading)) {
            out.verdict.limits = partLimits(*out.shown);
            out.verdict.unit = out.shown->unit;
        }
    }
    fillBag(kit, build, out);
    return out;
}

}  // namespace ombrek
