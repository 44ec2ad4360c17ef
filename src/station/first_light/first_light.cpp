#include "station/first_light/first_light.h"

#include <algorithm>

#include "kit/designator.h"
#include "station/rests_on.h"

namespace ombrek {

Verdict checkVerdict(const Kit& kit, const Check& check, const Build& build) {
    const Subject subject = Subject::check(check.id);
    const auto reading = lastStanding(kit, build, subject);
    Verdict out;
    if (!reading) {
        out.sentence = changedSince(kit, build, subject);
        return out;
    }
    if (check.yesNo()) {
        const bool yes = reading->value >= check.limits.low;
        out.state = yes ? VerdictState::pass : VerdictState::fail;
        out.sentence = yes ? "It is so." : "It is not so.";
        return out;
    }
    out = judgeReading(*reading, check.limits, build.rule, check.unit);
    if (gapOpen(kit, check, build)) {
        out.state = VerdictState::doubtful;
        out.sentence += " The gap is still to be closed: " + check.bridge + ".";
    }
    return out;
}

const Check* feedOf(const Kit& kit, const Check& check) {
    if (check.from.empty()) return nullptr;
    const auto hit = std::find_if(kit.checks.begin(), kit.checks.end(), [&](const Check& other) {
        return &other != &check && namesPart(other.at, check.from);
    });
    return hit == kit.checks.end() ? nullptr : &*hit;
}

std::string bridgeGate(const Check& check) { return "bridge:" + check.id; }

bool gapOpen(const Kit& kit, const Check& check, const Build& build) {
    if (check.bridge.empty()) return false;
    const auto reading = lastStanding(kit, build, Subject::check(check.id));
    if (!reading || judgeReading(*reading, check.limits, build.rule, check.unit).state != VerdictState::pass)
        return false;
    const auto closed = build.gates.find(bridgeGate(check));
    return closed == build.gates.end() || closed->second.at < reading->at;
}

std::string lastChecked(const Build& build) {
    const auto hit = std::find_if(build.readings.rbegin(), build.readings.rend(),
                                  [](const Reading& r) { return r.subject.is(Subject::Kind::check); });
    return hit == build.readings.rend() ? "" : hit->subject.id;
}

}  // namespace ombrek
