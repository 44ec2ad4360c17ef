#include "desk/board/board_model.h"

#include <algorithm>
#include <set>

#include "kit/board.h"

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
        v.now = (v.earned ? "Hold point, earned: " : "Hold point: ") + step.title + ".";
        v.why = step.hold->say;
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
        v.why = "About " + plainNumber(step.minutes) + " minutes.";
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
        const auto fitting = now.contains(part.ref)  ? BoardView::Fitting::now
                             : in.contains(part.ref) ? BoardView::Fitting::in
                                                     : BoardView::Fitting::waits;
        v.pieces.push_back({&part, fitting});
    }
}

}  // namespace

BoardView boardView(const Kit& kit, const Build& build, const std::vector<std::size_t>& order,
                    const std::string& chosen) {
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
        v.plan.push_back({step.id, step.title, right, state, step.hold.has_value()});
    }
    v.step = chosen.empty() ? nextStep(kit, order, build) : kit.step(chosen);
    placePieces(kit, build, v);
    if (v.step == nullptr) {
        v.now = kit.steps.empty() ? "This kit has no steps." : "The board is done: on to First light.";
        v.why = "F4 goes there.";
        return v;
    }
    v.needs = holdEvidence(*v.step, kit, build);
    v.earned = holdEarned(*v.step, kit, build);
    for (const LookAhead& ahead : lookAheadsAt(*v.step, kit, build)) v.aheads.push_back(ahead.say);
    v.notIn = partsNotIn(*v.step, kit, build);
    v.caution = v.step->caution;
    v.note = v.step->note;
    if (const auto remark = build.remarks.find(v.step->id); remark != build.remarks.end())
        v.remark = remark->second;
    sayStep(kit, build, v);
    return v;
}

}  // namespace ombrek
