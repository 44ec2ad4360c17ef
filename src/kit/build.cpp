#include "kit/build.h"

#include <algorithm>
#include <iterator>

#include "core/text/enumerators.h"

namespace ombrek {

Verdict judgeReading(const Reading& r, const Limits& limits, VerdictRule rule, Unit unit) {
    return r.beyond ? judgeBeyond(r.value, limits, unit) : judge(r.value, limits, r.uncertainty, rule, unit);
}

double Reading::setting(std::string_view name, double otherwise) const {
    const auto hit = settings.find(name);
    return hit == settings.end() ? otherwise : hit->second;
}

const std::vector<std::size_t>& Build::placesOf(const Subject& subject) const {
    static const std::vector<std::size_t> none;
    // Made anew unless readings were only added since: the last that was placed stands where it stood.
    const bool grew = index_.size > 0 && index_.size <= readings.size() &&
                      readings[index_.size - 1].id == index_.lastId && readings.front().id == index_.firstId;
    if (!grew) index_ = {};
    for (; index_.size < readings.size(); ++index_.size)
        index_.places[readings[index_.size].subject].push_back(index_.size);
    if (!readings.empty()) {
        index_.firstId = readings.front().id;
        index_.lastId = readings.back().id;
    }
    const auto hit = index_.places.find(subject);
    return hit == index_.places.end() ? none : hit->second;
}

const Reading* Build::last(const Subject& subject) const {
    const auto& places = placesOf(subject);
    if (places.empty() || readings[places.back()].id <= changedAfter(subject)) return nullptr;
    return &readings[places.back()];
}

const Reading* Build::lastEver(const Subject& subject) const {
    const auto& places = placesOf(subject);
    return places.empty() ? nullptr : &readings[places.back()];
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
    std::int64_t out = -1;
    for (const Change& c : changes) {
        if (c.subject == subject) out = std::max(out, c.after);
    }
    return out;
}

std::string word(Choice choice) {
    constexpr const char* words[] = {"the order of tuning", "how a peak of power is left",
                                     "the range that is wanted", "the mode"};
    static_assert(std::size(words) == enumerators<Choice>());
    return words[std::size_t(choice)];
}

std::string Build::chosen(Choice choice) const {
    const auto hit = choices.find(choice);
    return hit == choices.end() ? std::string() : hit->second.said;
}

WindingProgress Build::winding(const std::string& coil, const std::string& winding) const {
    const auto hit = windings.find(coil + "/" + winding);
    return hit == windings.end() ? WindingProgress{} : hit->second;
}

}  // namespace ombrek
