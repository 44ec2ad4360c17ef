#include "core/plan/order.h"

#include <map>
#include <queue>
#include <tuple>

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

std::string_view word(Order order) { return order == Order::manual ? "manual" : "lowest-first"; }

Result<std::vector<std::size_t>> planOrder(const std::vector<PlanStep>& steps, Order order) {
    std::map<std::string, std::size_t> byId;
    for (std::size_t i = 0; i < steps.size(); ++i) {
        if (!byId.emplace(steps[i].id, i).second) return problem(steps[i].id, "Two steps have this id.");
    }
    std::vector<std::vector<std::size_t>> before(steps.size()), then(steps.size());
    std::vector<std::size_t> waiting(steps.size(), 0);
    for (std::size_t i = 0; i < steps.size(); ++i) {
        for (const std::string& id : steps[i].after) {
            const auto earlier = byId.find(id);
            if (earlier == byId.end())
                return problem(steps[i].id, "It comes after \"" + id + "\", which is no step.");
            before[i].push_back(earlier->second);
            then[earlier->second].push_back(i);
            ++waiting[i];
        }
    }
    using Rank = std::tuple<double, std::size_t>;  // height, place in the manual
    const auto rank = [&](std::size_t i) {
        return Rank{order == Order::lowestFirst ? steps[i].height : 0.0, i};
    };
    std::priority_queue<Rank, std::vector<Rank>, std::greater<>> free;
    for (std::size_t i = 0; i < steps.size(); ++i) {
        if (waiting[i] == 0) free.push(rank(i));
    }
    std::vector<std::size_t> out;
    std::vector<bool> placed(steps.size(), false);
    while (!free.empty()) {
        const std::size_t i = std::get<1>(free.top());
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
