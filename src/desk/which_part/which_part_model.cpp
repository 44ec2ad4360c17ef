#include "desk/which_part/which_part_model.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "station/phrases.h"

namespace ombrek {
namespace {

bool isShort(const Judged& judged, const std::string& ref) {
    const VerdictState state = judged.part(*judged.kit().part(ref)).state;
    return state == VerdictState::notDone || state == VerdictState::fail;
}

std::string oneOf(const std::vector<std::string>& refs) {
    if (refs.size() == 1) return refs.front();
    if (refs.size() == 2) return refs[0] + " or " + refs[1];
    return "one of " + listed(refs, 3);
}

std::string headOf(const LoosePart& part) {
    const std::string mark = part.printed.empty() ? "" : ", marked " + part.printed;
    return "A " + std::string(word(part.kind)) + mark;
}

/// Lines that are still short or open: what makes one reading of a mark likelier than another.
std::vector<WantedPart> stillWanted(const Judged& judged) {
    std::vector<WantedPart> out;
    for (WantedPart& w : wantedParts(judged.kit())) {
        if (isShort(judged, w.ref)) out.push_back(std::move(w));
    }
    return out;
}

void fillReadings(const Judged& judged, const LoosePart& part, WhichPartView& out) {
    if (part.printed.empty()) return;
    const auto wanted = stillWanted(judged);
    for (const MarkReading& r : rankByNeed(readMark(part.printed, part.kind), wanted)) {
        const bool needed = std::any_of(wanted.begin(), wanted.end(), [&](const WantedPart& w) {
            return w.kind == r.kind && std::fabs(w.nominal / r.value - 1) < 1e-3;
        });
        const std::string tolerance = toleranceText(r);
        out.readings.push_back(
            {formatQuantity(r.value, r.unit, 4) + (tolerance.empty() ? "" : " " + tolerance), meaning(r),
             needed});
    }
}

}  // namespace

std::string lineFor(const Judged& judged, const std::vector<std::string>& refs) {
    const auto hit = std::find_if(refs.begin(), refs.end(), [&](auto& ref) { return isShort(judged, ref); });
    return hit != refs.end() ? *hit : refs.empty() ? std::string() : refs.front();
}

WhichPartView whichPartView(const Judged& judged, std::int64_t id, PartKind kind, std::size_t chosen) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    WhichPartView out;
    const BagStory& story = judged.story();
    for (std::size_t i = 0; i < build.loose.size(); ++i) {
        const LoosePart& part = build.loose[i];
        if (part.id != id) {
            out.others.push_back(headOf(part) + (std::isfinite(part.value)
                                                     ? ", " + formatQuantity(part.value, unitOf(part.kind), 3)
                                                     : ""));
            continue;
        }
        out.part = &part;
        for (const Explanation& e : story.looseCould[i]) {
            WhichPartView::Could could{e.refs, "", e.odds, false};
            if (e.refs.empty()) {
                could.text = "over: no open line wants it";
            } else {
                const Part& line = *kit.part(e.refs.front());
                could.open = std::any_of(e.refs.begin(), e.refs.end(),
                                         [&](auto& ref) { return isShort(judged, ref); });
                could.text =
                    oneOf(e.refs) + ": " + line.value + " ±" + personNumber(line.tolerance) + "\u202f%";
            }
            out.could.push_back(std::move(could));
        }
    }
    if (out.part == nullptr) {
        out.now = "Take a part you cannot name, and measure it or read its mark.";
        out.why = "R, C or L says what kind it is. Enter measures; M types its mark; K picks colour bands.";
        std::map<std::string, std::vector<std::string>> open;
        for (const WantedPart& w : stillWanted(judged)) {
            if (w.kind == kind) open[kit.part(w.ref)->value].push_back(w.ref);
        }
        for (const auto& [value, refs] : open) out.wanted.push_back(oneOf(refs) + ": " + value);
        return out;
    }
    out.head = headOf(*out.part);
    fillReadings(judged, *out.part, out);
    const auto& pick = out.could[std::min(chosen, out.could.size() - 1)];
    const std::string ref = lineFor(judged, pick.refs);
    if (!std::isfinite(out.part->value)) {
        out.now = "Measure it: a mark alone can lie.";
        out.why = "Enter measures; T takes the mark's word.";
    } else if (ref.empty()) {
        out.now = "It is over: no line that is still open wants it.";
        out.why = "It stays among the spares. A takes another part in hand.";
    } else {
        out.now = "It is " + ref + ", " + kit.part(ref)->value + ": Enter puts it there.";
        out.why = "Up and Down choose another line. A takes another part in hand.";
    }
    return out;
}

}  // namespace ombrek
