#include "station/board/board.h"

#include <algorithm>

#include "station/board/work.h"
#include "station/parts_in/parts_in.h"
#include "station/tune/tune.h"
#include "station/winding/winding.h"

namespace ombrek {
const Step* nextStep(const Kit& kit, const std::vector<std::size_t>& order, const Build& build) {
    for (const std::size_t i : order) {
        if (!build.done(kit.steps[i].id)) return &kit.steps[i];
    }
    return nullptr;
}

const Step* mustComeFirst(const Step& step, const Kit& kit, const Build& build) {
    const auto has = [](const std::vector<std::string>& ids, const std::string& id) {
        return std::find(ids.begin(), ids.end(), id) != ids.end();
    };
    for (const Step& other : kit.steps) {
        const bool before = has(step.after, other.id) || has(other.before, step.id);
        if (before && !build.done(other.id)) return &other;
    }
    return nullptr;
}

std::vector<LookAhead> lookAheadsAt(const Step& step, const Kit& kit, const Build& build) {
    std::vector<LookAhead> out;
    for (const LookAhead& ahead : kit.lookAheads) {
        const bool begun = ahead.from == step.id || build.done(ahead.from);
        if (begun && !build.done(ahead.until)) out.push_back(ahead);
    }
    for (const std::string& id : step.before) {
        const Step* later = kit.step(id);
        if (later != nullptr && !build.done(id))
            out.push_back({step.id, id, "Not yet: " + later->title + "."});
    }
    for (const std::string& ref : step.fits) {  // a coil that Tune may still change
        const Coil* coil = kit.coil(ref);
        const std::string say = coil != nullptr ? mayStillChange(kit, *coil, build) : "";
        if (!say.empty()) out.push_back({step.id, "", say});
    }
    return out;
}

std::vector<KeepAhead> keepsAt(const Step& step, const Kit& kit, const Build& build) {
    std::vector<KeepAhead> out;
    for (const Step& earlier : kit.steps) {
        if (earlier.id != step.id && !build.done(earlier.id)) continue;
        for (const Step::Keep& keep : earlier.keeps) {
            const auto same = [&](const KeepAhead& k) { return k.what == keep.what; };
            if (build.done(keep.until) || std::any_of(out.begin(), out.end(), same)) continue;
            const auto kept = build.kept.find(keep.what);
            out.push_back({&earlier, kit.step(keep.until), keep.what, keep.count,
                           kept == build.kept.end() ? 0 : kept->second});
        }
    }
    return out;
}

std::vector<std::string> partsNotIn(const Step& step, const Kit& kit, const Build& build) {
    std::vector<std::string> out;
    for (const std::string& ref : step.fits) {
        const Part* part = kit.part(ref);
        if (part != nullptr && partVerdict(*part, build).state != VerdictState::pass) out.push_back(ref);
    }
    return out;
}

std::vector<std::string> coilsNotReady(const Step& step, const Kit& kit, const Build& build) {
    std::vector<std::string> out;
    for (const std::string& ref : step.fits) {
        const Coil* coil = kit.coil(ref);
        if (coil != nullptr && coilVerdict(*coil, build).state != VerdictState::pass) out.push_back(ref);
    }
    return out;
}

std::vector<std::string> coilsUntouched(const Step& step, const Kit& kit, const Build& build) {
    std::vector<std::string> out;
    for (const std::string& ref : step.fits) {
        const Coil* coil = kit.coil(ref);
        if (coil != nullptr && !wound(*coil, build) && build.last(Subject::coil(ref)) == nullptr)
            out.push_back(ref);
    }
    return out;
}

PlanTime planTime(const Kit& kit, const Build& build, const Pace::Left& left) {
    PlanTime out;
    out.left = left;
    for (const Step& step : kit.steps)
        (build.done(step.id) ? out.plannedDone : out.plannedLeft) += step.minutes;
    for (const auto* list : {&build.sittings, &build.away}) {
        for (const Sitting& s : *list) out.spent += double(s.end - s.start) / 60.0;
    }
    return out;
}

Pace::Left timeLeft(const Kit& kit, const Build& build) {
    const auto left = workLeft(kit, build);
    return left.empty() ? Pace::Left() : Pace(workDone(kit, build)).left(left, 400);
}

}  // namespace ombrek
