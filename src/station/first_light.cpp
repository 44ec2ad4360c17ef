#include "station/first_light.h"

#include <algorithm>

namespace ombrek {

Verdict checkVerdict(const Check& check, const Build& build) {
    const Reading* reading = build.last(Subject::check(check.id));
    if (reading == nullptr) return {};
    Verdict out = judgeReading(*reading, check.limits, build.rule, check.unit);
    if (gapOpen(check, build)) {
        out.state = VerdictState::doubtful;
        out.sentence += " The gap is still to be closed: " + check.bridge + ".";
    }
    return out;
}

std::string bridgeGate(const Check& check) { return "bridge:" + check.id; }

bool gapOpen(const Check& check, const Build& build) {
    const Reading* reading = build.last(Subject::check(check.id));
    if (check.bridge.empty() || reading == nullptr) return false;
    if (judgeReading(*reading, check.limits, build.rule, check.unit).state != VerdictState::pass)
        return false;
    const auto closed = build.gates.find(bridgeGate(check));
    return closed == build.gates.end() || closed->second.at < reading->at;
}

const Check* nextCheck(const Kit& kit, const Build& build) {
    const Check* untouched = nullptr;
    for (const Check& check : kit.checks) {
        const VerdictState state = checkVerdict(check, build).state;
        if (gapOpen(check, build)) return &check;
        if (check.gate && state != VerdictState::pass && state != VerdictState::notDone) return &check;
        if (state == VerdictState::notDone && untouched == nullptr) untouched = &check;
    }
    if (untouched != nullptr) return untouched;
    const auto off = std::find_if(kit.checks.begin(), kit.checks.end(), [&](const Check& check) {
        return checkVerdict(check, build).state != VerdictState::pass;
    });
    return off == kit.checks.end() ? nullptr : &*off;
}

std::string lastChecked(const Build& build) {
    const auto hit = std::find_if(build.readings.rbegin(), build.readings.rend(),
                                  [](const Reading& r) { return r.subject.is(Subject::Kind::check); });
    return hit == build.readings.rend() ? "" : hit->subject.id;
}

const Check* barredBy(const Kit& kit, const Check& check, const Build& build) {
    for (const Check& earlier : kit.checks) {
        if (&earlier == &check) return nullptr;
        if (earlier.gate && checkVerdict(earlier, build).state != VerdictState::pass) return &earlier;
    }
    return nullptr;
}

}  // namespace ombrek
