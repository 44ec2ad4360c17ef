#include "station/board/plan_edit.h"

#include <algorithm>
#include <set>

#include "station/board/work.h"
#include "station/phrases.h"

namespace ombrek {
namespace {

std::size_t placeOf(const std::vector<Step>& steps, const std::string& id) {
    return std::size_t(std::find_if(steps.begin(), steps.end(), [&](const Step& s) { return s.id == id; }) -
                       steps.begin());
}

std::string freshId(const std::vector<Step>& steps, const std::string& base) {
    for (int n = 2;; ++n) {
        const std::string id = base + "-" + std::to_string(n);
        if (placeOf(steps, id) == steps.size()) return id;
    }
}

bool names(const std::vector<std::string>& ids, const std::string& id) {
    return std::find(ids.begin(), ids.end(), id) != ids.end();
}

/// Where a step's own words name the parts it fits, the words go with the parts.
std::string fitTitle(const std::vector<std::string>& refs) { return "Fit " + listed(refs, 8); }

Result<std::vector<Step>> ifItHolds(const Kit& kit, std::vector<Step> steps) {
    Kit changed = kit;
    changed.steps = steps;
    if (const auto order = stepOrder(changed, Order::manual); !order)
        return problem("", "The steps would wait for each other in a ring.");
    return steps;
}

void add(std::vector<std::string>& into, const std::vector<std::string>& more) {
    for (const std::string& one : more) {
        if (!names(into, one)) into.push_back(one);
    }
}

std::string both(const std::string& a, const std::string& b) {
    return a.empty() || a == b ? b : b.empty() ? a : a + " " + b;
}

}  // namespace

Result<std::vector<Step>> movedStep(const Kit& kit, const std::string& id, int by) {
    const auto order = stepOrder(kit, Order::manual);
    if (!order) return tl::make_unexpected(order.error());
    // In the order in which they are shown, so that a place is a place.
    std::vector<Step> steps;
    for (const std::size_t i : *order) steps.push_back(kit.steps[i]);
    const std::size_t at = placeOf(steps, id), to = at + std::size_t(by < 0 ? -1 : 1);
    if (at == steps.size()) return problem("", "There is no such step.");
    if ((by < 0 && at == 0) || to >= steps.size()) return problem("", "It is at the end of the plan.");
    const Step &first = steps[std::min(at, to)], &second = steps[std::max(at, to)];
    if (names(second.after, first.id) || names(first.before, second.id))
        return problem("", "\"" + second.title + "\" waits for \"" + first.title + "\".");
    std::swap(steps[at], steps[to]);
    return ifItHolds(kit, std::move(steps));
}

Result<std::vector<Step>> joinedStep(const Kit& kit, const std::string& id) {
    const auto order = stepOrder(kit, Order::manual);
    if (!order) return tl::make_unexpected(order.error());
    std::vector<Step> steps;
    for (const std::size_t i : *order) steps.push_back(kit.steps[i]);
    const std::size_t at = placeOf(steps, id);
    if (at + 1 >= steps.size()) return problem("", "There is no step behind it to join.");
    if (steps[at].hold)
        return problem("",
                       "\"" + steps[at].title + "\" holds the work: what comes behind it stays behind it.");
    Step& one = steps[at];
    const Step other = steps[at + 1];
    one.title = one.title + "; " + other.title;
    add(one.fits, other.fits);
    add(one.after, other.after);
    add(one.before, other.before);
    add(one.tools, other.tools);
    one.keeps.insert(one.keeps.end(), other.keeps.begin(), other.keeps.end());
    one.minutes = std::min(one.minutes + other.minutes, 1000.0);
    one.height = std::max(one.height, other.height);
    one.hardness = std::max(one.hardness, other.hardness);
    if (other.hold) {
        if (!one.hold) one.hold = HoldPoint{};
        one.hold->say = both(one.hold->say, other.hold->say);
        for (const Subject& need : other.hold->needs) {
            if (std::find(one.hold->needs.begin(), one.hold->needs.end(), need) == one.hold->needs.end())
                one.hold->needs.push_back(need);
        }
    }
    one.caution = both(one.caution, other.caution);
    one.note = both(one.note, other.note);
    one.erratum = both(one.erratum, other.erratum);
    steps.erase(steps.begin() + std::ptrdiff_t(at) + 1);
    for (Step& step : steps) {
        for (auto* ids : {&step.after, &step.before}) {
            for (std::string& name : *ids) {
                if (name == other.id) name = id;
            }
            std::vector<std::string> unique;
            add(unique, *ids);
            std::erase(unique, step.id);
            *ids = std::move(unique);
        }
        for (Step::Keep& keep : step.keeps) {
            if (keep.until == other.id) keep.until = id;
        }
    }
    return ifItHolds(kit, std::move(steps));
}

Result<std::vector<Step>> splitStep(const Kit& kit, const std::string& id, int first) {
    std::vector<Step> steps = kit.steps;
    const std::size_t at = placeOf(steps, id);
    if (at == steps.size()) return problem("", "There is no such step.");
    const int count = int(steps[at].fits.size());
    if (count < 2) return problem("", "It fits fewer than two parts: there is nothing to split.");
    if (first < 1 || first >= count)
        return problem("", "Of its " + std::to_string(count) + " parts one to " + std::to_string(count - 1) +
                               " can stay in it.");
    Step rest = steps[at];
    rest.id = freshId(steps, id);
    Step& own = steps[at];
    rest.fits.assign(own.fits.begin() + first, own.fits.end());
    own.fits.resize(std::size_t(first));
    own.title = fitTitle(own.fits);
    rest.title = fitTitle(rest.fits);
    rest.after = {id};
    rest.minutes = std::max(0.1, own.minutes * double(rest.fits.size()) / count);
    own.minutes = std::max(0.1, own.minutes * double(first) / count);
    // What was to be proven after all of it is proven after the rest; what waits for it waits for both.
    own.hold.reset();
    own.keeps.clear();
    for (Step& step : steps) {
        if (step.id != id && names(step.after, id)) step.after.push_back(rest.id);
    }
    steps.insert(steps.begin() + std::ptrdiff_t(at) + 1, std::move(rest));
    return ifItHolds(kit, std::move(steps));
}

std::vector<Step> addedStep(const Kit& kit, const std::string& title, const std::string& after) {
    std::vector<Step> steps = kit.steps;
    Step step;
    step.id = freshId(steps, "own");
    step.title = title;
    const std::size_t at = placeOf(steps, after);
    if (at < steps.size()) step.after = {after};
    steps.insert(at < steps.size() ? steps.begin() + std::ptrdiff_t(at) + 1 : steps.end(), std::move(step));
    return steps;
}

}  // namespace ombrek
