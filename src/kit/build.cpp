#include "kit/build.h"

#include <algorithm>

namespace ombrek {

Verdict judgeReading(const Reading& r, const Limits& limits, VerdictRule rule, Unit unit) {
    return r.beyond ? judgeBeyond(r.value, limits, unit) : judge(r.value, limits, r.uncertainty, rule, unit);
}

const std::vector<std::size_t>& Build::placesOf(const Subject& subject) const {
    static const std::vector<std::size_t> none;
    const auto stale = [&](const std::vector<std::size_t>& places) {
        return std::any_of(places.begin(), places.end(),
                           [&](std::size_t i) { return readings[i].subject != subject; });
    };
    const auto find = [&]() -> const std::vector<std::size_t>& {
        const auto hit = index_.places.find(subject);
        return hit == index_.places.end() ? none : hit->second;
    };
    const bool same = index_.first == readings.data() && index_.size == readings.size();
    if (same && !stale(find())) return find();
    index_ = {readings.data(), readings.size(), {}};
    for (std::size_t i = 0; i < readings.size(); ++i) index_.places[readings[i].subject].push_back(i);
    return find();
}

const Reading* Build::last(const Subject& subject) const {
    const auto& places = placesOf(subject);
    if (places.empty() || readings[places.back()].id <= changedAfter(subject)) return nullptr;
    return &readings[places.back()];
}

std::vector<Reading> Build::all(const Subject& subject, std::int64_t since) const {
    since = std::max(since, changedAfter(subject));
    std::vector<Reading> out;
    for (const std::size_t i : placesOf(subject)) {
        if (readings[i].id > since) out.push_back(readings[i]);
    }
    return out;
}

std::int64_t Build::changedAfter(const Subject& subject) const {
    const auto hit = epochs.find(subject);
    return hit == epochs.end() ? -1 : hit->second;
}

WindingProgress Build::winding(const std::string& coil, const std::string& winding) const {
    const auto hit = windings.find(coil + "/" + winding);
    return hit == windings.end() ? WindingProgress{} : hit->second;
}

}  // namespace ombrek
