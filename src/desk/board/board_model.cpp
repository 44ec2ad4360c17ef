#include "desk/board/board_model.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/quantity/quantity.h"
#include "judged/hold.h"
#include "kit/package.h"
#include "station/board/board.h"
#include "station/board/loupe.h"
#include "station/board/sitting.h"

namespace ombrek {
namespace {

std::string joined(const std::vector<std::string>& words) {
    std::string out;
    for (const auto& word : words) out += (out.empty() ? "" : ", ") + word;
    return out;
}

void sayStep(const Kit& kit, const Build& build, BoardView& v) {
    const Step& step = *v.step;
    v.now = step.title + ".";
    if (step.hold) {
        // One that rests on the builder's own eyes is earned when they have looked, not before.
        const bool earned = v.earned && (!v.needs.empty() || build.done(step.id));
        v.now = (earned ? "Hold point, earned: " : "Hold point: ") + step.title + ".";
        v.why = step.hold->say;
    } else if (!v.findings.empty()) {
        v.now = "Mend " + v.findings.front()->ref + ": " + std::string(word(v.findings.front()->what)) + ".";
        v.why =
            std::string(jointLooks()[std::size_t(v.findings.front()->what)].mend) + " X when it is mended.";
        return;
    } else if (!v.notIn.empty()) {
        v.why = "Not in yet, or not right: " + joined(v.notIn) + ". Parts in (F1) comes first.";
    } else if (const auto coils = coilsNotReady(step, kit, build); !coils.empty()) {
        v.why = "Not wound and measured yet: " + joined(coils) + ". Winding (F2) comes first.";
    } else if (!step.fits.empty()) {
        std::vector<std::string> values;
        for (const auto& ref : step.fits) {
            if (const Part* part = kit.part(ref)) values.push_back(ref + " " + part->value);
        }
        if (values.size() > 7) values.resize(7), values.push_back("…");
        v.why = joined(values);
    } else {
        v.why = "About " + personNumber(step.minutes) + " minutes.";
    }
    if (build.done(step.id)) v.why = "Done. " + v.why;
}

void placePieces(const Kit& kit, const Build& build, BoardView& v) {
    std::set<std::string> in, now;
    for (const Step& step : kit.steps) {
        for (const auto& ref : step.fits) {
            if (build.done(step.id)) in.insert(ref);
            if (&step == v.step) now.insert(ref);
        }
    }
    for (const Part& part : kit.parts) {
        if (!part.place) continue;
        const auto fitting = now.contains(part.ref)  ? BoardPiece::Fitting::now
                             : in.contains(part.ref) ? BoardPiece::Fitting::in
                                                     : BoardPiece::Fitting::waits;
        const bool mend = std::any_of(build.findings.begin(), build.findings.end(),
                                      [&](const Finding& f) { return f.closed == 0 && f.ref == part.ref; });
        v.pieces.push_back({&part, fitting, false, mend});
    }
}

/// Heat-shy parts that are in and lie within a finger's breadth of what is soldered now.
void findHot(BoardView& v) {
    constexpr double kNear = 8;  // between edges [mm] (common practice)
    for (const BoardPiece& there : v.pieces) {
        if (there.fitting != BoardPiece::Fitting::in || !packageOf(*there.part).heatShy) continue;
        const bool close = std::any_of(v.pieces.begin(), v.pieces.end(), [&](const BoardPiece& now) {
            if (now.fitting != BoardPiece::Fitting::now) return false;
            const Place &a = *now.part->place, &b = *there.part->place;
            const double x = std::fabs(a.x - b.x) - (a.width + b.width) / 2,
                         y = std::fabs(a.y - b.y) - (a.height + b.height) / 2;
            return std::max(x, y) < kNear;
        });
        if (close) v.hot.push_back(there.part->ref);
    }
}

}  // namespace

BoardView boardView(const Judged& judged, const std::string& chosen) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    const auto& order = judged.order();
    BoardView v;
    for (const std::size_t i : order) {
        const Step& step = kit.steps[i];
        const auto record = build.steps.find(step.id);
        const bool done = record != build.steps.end();
        const bool knowingly = done && record->second.knowingly;
        const auto state = !done       ? VerdictState::notDone
                           : knowingly ? VerdictState::doubtful
                                       : VerdictState::pass;
        std::string right = knowingly ? "passed knowingly" : "";
        if (build.remarks.contains(step.id)) right = "remark";
        if (!findingsAt(step, build).empty()) right = "to mend";
        v.plan.push_back({step.id, step.title, right, right == "to mend" ? VerdictState::fail : state,
                          step.hold.has_value()});
    }
    v.step = chosen.empty() ? nextStep(kit, order, build) : kit.step(chosen);
    v.pause = pauseToAskAbout(build);
    placePieces(kit, build, v);
    if (v.step == nullptr) {
        v.now = kit.steps.empty() ? "This kit has no steps." : "The board is done: on to First light.";
        v.why = kit.steps.empty() ? "Ctrl+V pastes the manual's numbered instructions, Ins writes one."
                                  : "F4 goes there.";
        return v;
    }
    v.needs = holdEvidence(*v.step, judged);
    v.earned = holdEarned(*v.step, judged);
    v.keeps = keepsAt(*v.step, kit, build);
    for (const LookAhead& ahead : lookAheadsAt(*v.step, kit, build)) v.aheads.push_back(ahead.say);
    v.notIn = partsNotIn(*v.step, kit, build);
    v.erratum = v.step->erratum;
    v.findings = findingsAt(*v.step, build);
    if (!build.done(v.step->id)) {
        v.tools = v.step->tools;
        if (!v.step->fits.empty()) findHot(v);
    }
    v.caution = v.step->caution;
    v.note = v.step->note;
    if (const auto remark = build.remarks.find(v.step->id); remark != build.remarks.end())
        v.remark = remark->second;
    sayStep(kit, build, v);
    return v;
}

std::vector<std::string> findParts(const Kit& kit, const std::string& typed) {
    const auto plain = [](const std::string& text) {
        std::string out;
        for (const char c : text) {
            if (c != ' ') out += char(std::toupper(static_cast<unsigned char>(c)));
        }
        return out;
    };
    const std::string wanted = plain(typed);
    std::vector<std::string> out;
    if (wanted.empty()) return out;
    for (const Part& part : kit.parts) {
        if (plain(part.ref) == wanted) return {part.ref};
        const auto value = part.nominal > 0 ? parseQuantity(typed, part.unit) : Result<Quantity>(Quantity{});
        const bool same = value && part.nominal > 0 && std::fabs(value->value / part.nominal - 1) < 1e-6;
        if (same || plain(part.value).find(wanted) != std::string::npos) out.push_back(part.ref);
    }
    return out;
}

}  // namespace ombrek
