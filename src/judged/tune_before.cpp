#include "judged/tune_before.h"

#include <cmath>

#include "judged/evidence.h"
#include "judged/judged.h"
#include "station/board/sitting.h"
#include "station/subjects.h"

namespace ombrek {
namespace {

/// The builder's word of this evening, or null.
const GateRecord* wordTonight(const Judged& judged, const std::string& name, std::int64_t now) {
    const auto hit = judged.build().gates.find(name);
    if (hit == judged.build().gates.end() || newSitting(judged.build(), now)) return nullptr;
    const auto evenings = eveningsOf(judged.kit(), judged.build());
    return evenings.empty() || hit->second.at >= evenings.back().start ? &hit->second : nullptr;
}

std::string readyName(const Adjustment& a) { return "tuning: " + a.ready; }

bool whatMustHold(const Judged& judged, const Adjustment& a, BeforeTuning& out) {
    for (const Subject& need : a.needs) {
        const Evidence evidence = evidenceOf(need, judged);
        if (evidence.state == VerdictState::pass) continue;
        out.what = BeforeTuning::What::check;
        out.subject = need;
        out.now = "First: " + evidence.what + ".";
        out.why =
            "It must hold before " + a.adjuster + " is turned. " + evidence.sentence + " Enter goes there.";
        return true;
    }
    return false;
}

bool whatItRestsOn(const Judged& judged, const Adjustment& a, BeforeTuning& out) {
    for (const std::string& id : a.after) {
        const Adjustment* other = judged.kit().adjustment(id);
        if (other == nullptr || judged.tune(*other).state == VerdictState::pass) continue;
        if (judged.tune(*other).meterEnds) continue;  // nothing more can be done about it with this meter
        out.what = BeforeTuning::What::rests;
        out.subject = Subject::adjustment(id);
        out.now = "First: " + other->title + ".";
        out.why = "This one rests on it. Enter goes there; R reads this one all the same.";
        return true;
    }
    return false;
}

void whatIsOn(const Judged& judged, const Adjustment& a, std::int64_t now, BeforeTuning& out) {
    if (!(a.warmUp > 0)) return;
    const GateRecord* on = wordTonight(judged, kSwitchedOn, now);
    if (on == nullptr) {
        out.what = BeforeTuning::What::cold;
        out.now = "Switch it on. Enter: it is on, and the clock begins.";
        out.why = "It must have been on for " + decimals(a.warmUp, a.warmUp < 1 ? 1 : 0) +
                  " minutes before this is set. R reads it all the same.";
        return;
    }
    const double minutes = double(now - on->at) / 60;
    if (minutes >= a.warmUp) return;
    out.what = BeforeTuning::What::warming;
    out.minutesLeft = a.warmUp - std::max(0.0, minutes);
    out.now = "It warms up: " + decimals(std::ceil(out.minutesLeft), 0) + " minutes more.";
    out.why = "What is set on a cold rig has moved when it is warm. R reads it all the same.";
}

}  // namespace

std::string wordKept(const Adjustment& a, const BeforeTuning& before) {
    switch (before.what) {
        case BeforeTuning::What::ready:
            return readyName(a);
        case BeforeTuning::What::load:
            return before.load.confirm ? kLoadOn : "";
        case BeforeTuning::What::cold:
            return kSwitchedOn;
        default:
            return "";
    }
}

BeforeTuning beforeTuning(const Judged& judged, const Adjustment& a, std::int64_t now) {
    BeforeTuning out;
    if (whatMustHold(judged, a, out)) return out;
    if (!a.ready.empty() && wordTonight(judged, readyName(a), now) == nullptr) {
        out.what = BeforeTuning::What::ready;
        out.now = a.ready + "? Enter: yes.";
        out.why = "So it must be before " + a.adjuster + " is turned. Asked once an evening.";
        return out;
    }
    if (keyDown(a)) {
        out.load = askForLoad(judged.kit(), judged.build(), now);
        if (!out.load.clear()) {
            out.what = BeforeTuning::What::load;
            out.now = out.load.now;
            out.why = out.load.why;
            return out;
        }
    }
    if (whatItRestsOn(judged, a, out)) return out;
    whatIsOn(judged, a, now, out);
    return out;
}

}  // namespace ombrek
