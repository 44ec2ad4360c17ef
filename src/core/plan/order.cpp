#include "core/plan/order.h"

#include <map>
#include <queue>
#include <tuple>

#include "core/text/enumerators.h"

namespace ombrek {
namespace {

/// Follow unfinished dependencies from one step until one comes round again.
std::string circleFrom(std::size_t start, const std::vector<PlanStep>& steps,
                       const std::vector<std::vector<std::size_t>>& before, const std::vector<bool>& placed) {
    std::vector<std::size_t> path;
    std::vector<bool> seen(steps.size(), false);
    std::size_t at = start;
    while (!seen[at]) {
        seen[at] = true;
        path.push_back(at);
        for (const std::size_t earlier : before[at]) {
            if (!placed[earlier]) {
                at = earlier;
                break;
            }
        }
    }
    std::string text = steps[at].id;
    for (std::size_t i = path.size(); i-- > 0;) {
        text += " before " + steps[path[i]].id;
        if (path[i] == at) break;
    }
    return text;
}

}  // namespace

const std::array<School, 5>& schools() {
    static constexpr std::array<School, 5> all{
        {{Order::manual, "manual", "the kit's order",
          "Where the manual has steps, its figures and page numbers stay with you.",
          "The board may not lie flat, and faults show late."},
         {Order::lowestFirst, "lowest", "lowest parts first",
          "The board lies flat on the bench, every part is pressed home.",
          "Nothing can be tested until most of it is fitted."},
         {Order::byKind, "kind", "by kind of part", "One tray open at a time, one way of working at a time.",
          "High parts get in the way, and nothing can be tested early."},
         {Order::byStage, "stage", "stage by stage", "A fault is found in the stage just built.",
          "Low parts are fitted between high ones; tools change more often."},
         {Order::hardestFirst, "hardest", "hardest first",
          "What you dread is done while the board is empty and the hand rested.",
          "The first evening is the longest, and it does not lie flat."}}};
    static_assert(all.size() == enumerators<Order>());
    return all;
}

const School& school(Order order) {
    for (const School& s : schools()) {
        if (s.order == order) return s;
    }
    return schools().front();
}

Result<std::vector<std::size_t>> planOrder(const std::vector<PlanStep>& steps, Order order) {
    std::map<std::string, std::size_t> byId;
    for (std::size_t i = 0; i < steps.size(); ++i) {
        if (!byId.emplace(steps[i].id, i).second) return problem(steps[i].id, "Two steps have this id.");
    }
    std::vector<std::vector<std::size_t>> before(steps.size()), then(steps.size());
    std::vector<std::size_t> waiting(steps.size(), 0);
    const auto link = [&](std::size_t earlier, std::size_t later) {
        before[later].push_back(earlier);
        then[earlier].push_back(later);
        ++waiting[later];
    };
    for (std::size_t i = 0; i < steps.size(); ++i) {
        for (const std::string& id : steps[i].after) {
            const auto earlier = byId.find(id);
            if (earlier == byId.end())
                return problem(steps[i].id, "It comes after \"" + id + "\", which is no step.");
            link(earlier->second, i);
        }
        for (const std::string& id : steps[i].before) {
            const auto later = byId.find(id);
            if (later == byId.end())
                return problem(steps[i].id, "It comes before \"" + id + "\", which is no step.");
            link(i, later->second);
        }
    }
    using Rank = std::tuple<double, double, std::size_t>;  // by the school, then place in the manual
    const auto rank = [&](std::size_t i) -> Rank {
        const PlanStep& s = steps[i];
        switch (order) {
            case Order::lowestFirst:
                return {s.height, 0, i};
            case Order::byKind:
                return {s.kind, s.height, i};
            case Order::byStage:
                return {s.stage, s.height, i};
            case Order::hardestFirst:
                return {-s.hardness, s.height, i};
            case Order::manual:
                break;
        }
        return {0, 0, i};
    };
    std::priority_queue<Rank, std::vector<Rank>, std::greater<>> free;
    for (std::size_t i = 0; i < steps.size(); ++i) {
        if (waiting[i] == 0) free.push(rank(i));
    }
    std::vector<std::size_t> out;
    std::vector<bool> placed(steps.size(), false);
    while (!free.empty()) {
        const std::size_t i = std::get<2>(free.top());
        free.pop();
        out.push_back(i);
        placed[i] = true;
        for (const std::size_t next : then[i]) {
            if (--waiting[next] == 0) free.push(rank(next));
        }
    }
    for (std::size_t i = 0; i < steps.size(); ++i) {
        if (!placed[i]) {
            return problem(steps[i].id,
                           "The steps go round in a circle: " + circleFrom(i, steps, before, placed) + ".");
        }
    }
    return out;
}

}  // namespace ombrek
