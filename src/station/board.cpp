#include "station/board.h"

#include <algorithm>

#include "station/first_light.h"
#include "station/parts_in.h"
#include "station/tune.h"
#include "station/winding.h"
#include "station/work.h"

namespace ombrek {

namespace {

bool onTrust(const Part& part, const Build& build) {
    const auto mark = build.parts.find(part.ref);
    return mark != build.parts.end() && mark->second == PartMark::trusted &&
           build.last("part:" + part.ref) == nullptr;
}

}  // namespace

Evidence partEvidence(const Part& part, const Verdict& verdict, const Build& build) {
    return {part.ref + " " + part.value, verdict.state,
            verdict.sentence.empty() ? "Not seen yet." : verdict.sentence, onTrust(part, build)};
}

Evidence coilEvidence(const Coil& coil, const Verdict& verdict, const Build& build) {
    return {coil.ref + " " + coil.what, verdict.state,
            verdict.sentence.empty() ? "Not wound and measured yet." : verdict.sentence,
            build.last("coil:" + coil.ref) == nullptr && build.coilChecks.contains(coil.ref + "/trust")};
}

Evidence checkEvidence(const Check& check, const Build& build) {
    const Verdict v = checkVerdict(check, build);
    return {check.title, v.state, v.sentence.empty() ? "Not checked yet." : v.sentence};
}

Evidence tuneEvidence(const Adjustment& adjustment, const TuneState& state) {
    return {adjustment.title, state.state, state.sentence};
}

Evidence evidenceOf(const std::string& subject, const Kit& kit, const Build& build) {
    const auto colon = subject.find(':');
    const std::string kind = subject.substr(0, colon);
    const std::string id = colon == std::string::npos ? "" : subject.substr(colon + 1);
    if (kind == "coil") {
        if (const Coil* coil = kit.coil(id)) return coilEvidence(*coil, coilVerdict(*coil, build), build);
    } else if (kind == "check") {
        if (const Check* check = kit.check(id)) return checkEvidence(*check, build);
    } else if (kind == "adjust") {
        if (const Adjustment* a = kit.adjustment(id)) return tuneEvidence(*a, tuneState(kit, *a, build));
    } else if (kind == "part") {
        if (const Part* part = kit.part(id)) return partEvidence(*part, partVerdict(*part, build), build);
    } else if (kind == "step") {
        if (const Step* step = kit.step(id)) {
            const bool done = build.done(id);
            return {step->title, done ? VerdictState::pass : VerdictState::notDone,
                    done ? "Done." : "Not done yet."};
        }
    }
    return {subject, VerdictState::notDone, "The kit has nothing by this name."};
}

std::vector<Evidence> holdEvidence(const Step& step, const Kit& kit, const Build& build) {
    std::vector<Evidence> out;
    if (step.hold) {
        for (const std::string& need : step.hold->needs) out.push_back(evidenceOf(need, kit, build));
    }
    return out;
}

bool holdEarned(const Step& step, const Kit& kit, const Build& build) {
    const auto evidence = holdEvidence(step, kit, build);
    return std::all_of(evidence.begin(), evidence.end(),
                       [](const Evidence& e) { return e.state == VerdictState::pass; });
}

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

PlanTime planTime(const Kit& kit, const Build& build) {
    PlanTime out;
    for (const Step& step : kit.steps)
        (build.done(step.id) ? out.plannedDone : out.plannedLeft) += step.minutes;
    for (const auto* list : {&build.sittings, &build.away}) {
        for (const Sitting& s : *list) out.spent += double(s.end - s.start) / 60.0;
    }
    const auto left = workLeft(kit, build);
    if (!left.empty()) out.left = Pace(workDone(kit, build)).left(left, 400);
    return out;
}

}  // namespace ombrek
