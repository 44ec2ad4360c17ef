#include "station/board/work.h"

#include <algorithm>
#include <cctype>
#include <map>
#include <set>

#include "core/text/says.h"
#include "kit/package.h"
#include "station/winding/winding.h"

namespace ombrek {
namespace {

/// By the kind of a part: what work fitting it is, how dreaded it is, and its place in an order by kind.
struct Fit {
    PartKind kind;
    WorkKind work;
    double hardness;
    int rank;
};
constexpr Fit kFits[] = {
    {PartKind::resistor, WorkKind::solder, 1, 1},      {PartKind::capacitor, WorkKind::solder, 1.2, 4},
    {PartKind::inductor, WorkKind::solder, 1.4, 3},    {PartKind::diode, WorkKind::polarised, 1.6, 2},
    {PartKind::transistor, WorkKind::polarised, 2, 6}, {PartKind::ic, WorkKind::polarised, 2.6, 9},
    {PartKind::crystal, WorkKind::solder, 1.8, 5},     {PartKind::trimmer, WorkKind::solder, 1.6, 7},
    {PartKind::coil, WorkKind::winding, 4, 8},         {PartKind::other, WorkKind::mechanical, 1.8, 10}};

const Fit& fitOf(PartKind kind) {
    for (const Fit& fit : kFits) {
        if (fit.kind == kind) return fit;
    }
    return kFits[std::size(kFits) - 1];
}

std::vector<const Part*> partsOf(const Kit& kit, const Step& step) {
    std::vector<const Part*> out;
    for (const std::string& ref : step.fits) {
        if (const Part* part = kit.part(ref)) out.push_back(part);
    }
    return out;
}

/// Whether a reading belongs to a step: of a part or coil it fits, or something its hold rests on.
bool readFor(const Step& step, const Subject& subject) {
    const auto has = [](const auto& list, const auto& what) {
        return std::find(list.begin(), list.end(), what) != list.end();
    };
    return has(step.fits, subject.id) || (step.hold && has(step.hold->needs, subject));
}

/// When the last reading between two times ended that is no part of a step: before it the builder was at
/// another station.
std::int64_t backFromElsewhere(const Build& build, const Step& step, std::int64_t from, std::int64_t to) {
    for (const Reading& r : build.readings) {
        if (r.at > from && r.at <= to && !readFor(step, r.subject)) from = r.at;
    }
    return from;
}

}  // namespace

WorkKind workOf(const Kit& kit, const Step& step) {
    if (step.hold) return WorkKind::test;
    const auto parts = partsOf(kit, step);
    if (parts.empty()) {
        if (holdsStem(step.title, {"inspect", "look over", "loupe"})) return WorkKind::inspect;
        if (holdsWord(step.title, {"case", "cases"}) ||
            holdsStem(step.title, {"drill", "screw", "mount", "casing", "knob", "film", "heat sink", "sink",
                                   "panel", "standoff"}))
            return WorkKind::mechanical;
        return WorkKind::prepare;
    }
    WorkKind out = WorkKind::solder;
    for (const Part* part : parts)
        out = std::max(out, polarisedCapacitor(*part) ? WorkKind::polarised : fitOf(part->kind).work);
    return out;
}

double hardnessOf(const Kit& kit, const Step& step) {
    if (step.hardness > 0) return step.hardness;
    double out = 0;
    for (const Part* part : partsOf(kit, step)) {
        const Coil* coil = kit.coil(part->ref);
        const double more = coil == nullptr ? 0 : 0.4 * double(coil->windings.size() - 1);
        out = std::max(out, std::min(5.0, fitOf(part->kind).hardness + more));
    }
    return out;
}

std::vector<PlanStep> planSteps(const Kit& kit) {
    std::map<std::string, int> stages;  // in the order in which the manual comes to them
    std::vector<PlanStep> out;
    for (const Step& step : kit.steps) {
        PlanStep p{step.id, step.after, step.height, step.before, 0, 0, hardnessOf(kit, step)};
        for (const Part* part : partsOf(kit, step)) p.kind = std::max(p.kind, fitOf(part->kind).rank);
        if (!step.stage.empty()) p.stage = stages.emplace(step.stage, int(stages.size()) + 1).first->second;
        out.push_back(std::move(p));
    }
    return out;
}

double benchMinutes(const Build& build, std::int64_t from, std::int64_t to) {
    double seconds = 0;
    for (const auto* list : {&build.sittings, &build.away}) {
        for (const Sitting& s : *list)
            seconds += double(std::max<std::int64_t>(0, std::min(to, s.end) - std::max(from, s.start)));
    }
    return seconds / 60;
}

std::map<std::string, double> stepMinutes(const Kit& kit, const Build& build) {
    constexpr std::int64_t kTogether = 60;
    struct Done {
        std::int64_t at;
        const Step* step;
    };
    std::vector<Done> done;
    for (const Step& step : kit.steps) {
        const auto record = build.steps.find(step.id);
        if (record != build.steps.end()) done.push_back({record->second.at, &step});
    }
    std::stable_sort(done.begin(), done.end(), [](const Done& a, const Done& b) { return a.at < b.at; });
    std::map<std::string, double> out;
    std::int64_t before = build.started;
    for (std::size_t i = 0; i < done.size();) {
        std::size_t end = i;
        double planned = 0;
        while (end < done.size() && done[end].at - done[i].at <= kTogether)
            planned += done[end++].step->minutes;
        const std::int64_t from = backFromElsewhere(build, *done[i].step, before, done[i].at);
        const double took = benchMinutes(build, from, done[end - 1].at), ratio = took / planned;
        before = done[end - 1].at;
        for (; i < end; ++i) {
            if (ratio > 0.05 && ratio < 20) out[done[i].step->id] = done[i].step->minutes * ratio;
        }
    }
    return out;
}

std::vector<WorkDone> workDone(const Kit& kit, const Build& build) {
    const auto minutes = stepMinutes(kit, build);
    std::vector<WorkDone> out;
    for (const Step& step : kit.steps) {
        if (const auto took = minutes.find(step.id); took != minutes.end())
            out.push_back({workOf(kit, step), step.minutes, took->second});
    }
    return out;
}

namespace {

/// Minutes of what stands in no step (common practice, each).
constexpr double kMeasured = 0.4, kLookedAt = 0.1, kWound = 12, kChecked = 2, kAdjusted = 8, kProved = 10;

/// The bag, coils that no step winds, checks that no hold asks for, adjustments, and the power of each band.
void addBesideSteps(const Kit& kit, const Build& build, std::vector<WorkLeft>& out) {
    std::set<std::string> inSteps, fitted;
    std::set<Subject> held;
    for (const Step& step : kit.steps) {
        for (const std::string& ref : step.fits) {
            inSteps.insert(ref);
            if (build.done(step.id)) fitted.insert(ref);
        }
        if (step.hold) held.insert(step.hold->needs.begin(), step.hold->needs.end());
    }
    const auto add = [&](const Subject& subject, WorkKind kind, double minutes) {
        if (!held.contains(subject) && build.last(subject) == nullptr) out.push_back({kind, minutes});
    };
    const double each = build.depth == BagDepth::measureAll ? kMeasured : kLookedAt;
    for (const Part& part : kit.parts) {
        if (!fitted.contains(part.ref) && !build.parts.contains(part.ref))
            add(Subject::part(part.ref), WorkKind::inspect, part.unit == Unit::none ? kLookedAt : each);
    }
    for (const Coil& coil : kit.coils) {
        if (!inSteps.contains(coil.ref) && !wound(coil, build))
            add(Subject::coil(coil.ref), WorkKind::winding, kWound);
    }
    for (const Check& check : kit.checks) add(Subject::check(check.id), WorkKind::test, kChecked);
    for (const Adjustment& a : kit.adjustments) add(Subject::adjustment(a.id), WorkKind::test, kAdjusted);
    if (!kit.ratings.transmits()) return;
    if (kit.ratings.bands.empty()) add(Subject::power(), WorkKind::test, kProved);
    for (const BandRating& band : kit.ratings.bands) add(Subject::power(band.name), WorkKind::test, kProved);
}

}  // namespace

std::vector<WorkLeft> workLeft(const Kit& kit, const Build& build) {
    std::vector<WorkLeft> out;
    addBesideSteps(kit, build, out);
    for (const Step& step : kit.steps) {
        if (!build.done(step.id)) out.push_back({workOf(kit, step), step.minutes});
    }
    return out;
}

Result<std::vector<std::size_t>> stepOrder(const Kit& kit, Order order) {
    return planOrder(planSteps(kit), order);
}

}  // namespace ombrek
