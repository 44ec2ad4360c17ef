#include "judged/checks.h"

#include <algorithm>

#include "station/first_light/first_light.h"

namespace ombrek {

std::string upstreamAdvice(const Judged& judged, const Check& check) {
    if (check.from.empty()) return "";
    const Check* feed = feedOf(judged.kit(), check);
    if (feed == nullptr)
        return "It is fed from " + check.from + ": see first whether that gives its voltage.";
    switch (judged.check(*feed).state) {
        case VerdictState::pass:
            return "Its feed, " + feed->title + ", is right: look between " + check.from + " and here.";
        case VerdictState::notDone:
            return "It is fed from " + check.from + ": read \"" + feed->title + "\" first.";
        default:
            return "It is fed from " + check.from + ", and \"" + feed->title + "\" is off, too: begin there.";
    }
}

const Check* nextCheck(const Judged& judged) {
    const std::vector<Check>& checks = judged.kit().checks;
    const Check* untouched = nullptr;
    for (const Check& check : checks) {
        const VerdictState state = judged.check(check).state;
        if (gapOpen(judged.kit(), check, judged.build())) return &check;
        if (check.gate && state != VerdictState::pass && state != VerdictState::notDone) return &check;
        if (state == VerdictState::notDone && untouched == nullptr) untouched = &check;
    }
    if (untouched != nullptr) return untouched;
    const auto off = std::find_if(checks.begin(), checks.end(), [&](const Check& check) {
        return judged.check(check).state != VerdictState::pass;
    });
    return off == checks.end() ? nullptr : &*off;
}

const Check* barredBy(const Judged& judged, const Check& check) {
    for (const Check& earlier : judged.kit().checks) {
        if (&earlier == &check) return nullptr;
        if (earlier.gate && judged.check(earlier).state != VerdictState::pass) return &earlier;
    }
    return nullptr;
}

}  // namespace ombrek
