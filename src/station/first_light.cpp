#include "station/first_light.h"

#include <algorithm>

#include "kit/designator.h"
#include "station/judged.h"
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

std::string bridgeGate(const Check& check) { return "bridge:" + check.id; }

bool gapOpen(const Kit& kit, const Check& check, const Build& build) {
    if (check.bridge.empty()) return false;
    const auto reading = lastStanding(kit, build, Subject::check(check.id));
    if (!reading || judgeReading(*reading, check.limits, build.rule, check.unit).state != VerdictState::pass)
        return false;
    const auto closed = build.gates.find(bridgeGate(check));
    return closed == build.gates.end() || closed->second.at < reading->at;
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

std::string lastChecked(const Build& build) {
    const auto hit = std::find_if(build.readings.rbegin(), build.readings.rend(),
                                  [](const Reading& r) { return r.subject.is(Subject::Kind::check); });
    return hit == build.readings.rend() ? "" : hit->subject.id;
}

const Check* barredBy(const Judged& judged, const Check& check) {
    for (const Check& earlier : judged.kit().checks) {
        if (&earlier == &check) return nullptr;
        if (earlier.gate && judged.check(earlier).state != VerdictState::pass) return &earlier;
    }
    return nullptr;
}

}  // namespace ombrek
