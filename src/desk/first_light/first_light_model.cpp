#include "desk/first_light/first_light_model.h"

#include <algorithm>
#include <cmath>

#include "judged/checks.h"
#include "station/board/loupe.h"
#include "station/first_light/first_light.h"

namespace ombrek {
namespace {

std::string verb(Unit unit) {
    switch (unit) {
        case Unit::ohm:
            return "Power off. Measure at ";
        case Unit::ampere:
            return "Measure the current ";
        case Unit::hertz:
            return "Count at ";
        default:
            return "Measure at ";
    }
}

/// Where to look when it is off: what feeds it, then what the kit suspects.
std::string lookFirst(const FirstLightView& v, const Check& check) {
    const std::string suspects =
        "Look first at: " + (check.suspects.empty() ? "the joints around it" : check.suspects) + ".";
    return v.upstream.empty() ? suspects : v.upstream + (check.suspects.empty() ? "" : " " + suspects);
}

void say(FirstLightView& v, bool circuit) {
    const Check& check = *v.check;
    if (v.bar != nullptr) {
        v.now = "Stop: \"" + v.bar->title + "\" must pass first.";
        v.why = "Do not go on past a gate. Look at: " +
                (v.bar->suspects.empty() ? "the joints around it" : v.bar->suspects) + ".";
        return;
    }
    if (v.bridge) {
        v.now = "Close the gap: " + check.bridge + ".";
        v.why = "The current is right. Power off, bridge it; Enter when it is closed. What follows needs it.";
        return;
    }
    if (check.yesNo()) {
        v.now = "Is it so? " + check.seen + ".";
        v.why =
            (check.condition.empty() ? "Look and listen" : "With " + check.condition + ", look and listen") +
            std::string(". Enter: it is so. N: it is not.");
        if (v.verdict.state == VerdictState::fail) v.why = "It is not so. " + lookFirst(v, check);
        return;
    }
    v.now = check.title + ": " + limitsText(check.limits, check.unit) + ".";
    v.why = (check.diode ? "Power off, diode range: " : "") + verb(check.unit) +
            (check.at.empty() ? "the point named" : check.at) +
            (check.to.empty() ? "" : " against " + check.to) + ".";
    if (!check.rule.empty()) v.why += " Limits by rule, " + check.rule + ".";
    if (v.verdict.state == VerdictState::fail)
        v.why = std::string("It is wrong. ") + (circuit ? "W says what it may be. " : "") +
                lookFirst(v, check) + " Then read it again.";
}

}  // namespace

FirstLightView firstLightView(const Judged& judged, const std::string& chosen) {
    const Kit& kit = judged.kit();
    FirstLightView v;
    for (const Check& check : kit.checks) v.lines.push_back({&check, judged.check(check)});
    v.check = chosen.empty() ? nextCheck(judged) : kit.check(chosen);
    if (v.check == nullptr) {
        v.now = kit.checks.empty() ? "This kit's list names no electrical checks."
                                   : "First light: every check is made, and every one passes.";
        v.why = kit.checks.empty()
                    ? "Ctrl+V pastes the manual's table of voltages, Ins writes one: IC3 pin 8  "
                      "5.0 V. Without it Ombrek cannot tell that they are right."
                    : "F5 goes to Tune.";
        if (kit.checks.empty()) return v;
        v.check = &kit.checks.back();
    } else {
        v.bar = barredBy(judged, *v.check);
    }
    v.verdict = judged.check(*v.check);
    v.bridge = v.bar == nullptr && gapOpen(kit, *v.check, judged.build());
    v.upstream = upstreamAdvice(judged, *v.check);
    if (!v.check->yesNo()) v.verdict.limits = v.check->limits;
    v.verdict.unit = v.check->unit;
    v.nominal =
        std::isinf(v.check->limits.halfWidth()) ? NAN : (v.check->limits.low + v.check->limits.high) / 2;
    if (!v.now.empty()) return v;
    say(v, !kit.circuit.empty());
    const auto wrong = std::count_if(v.lines.begin(), v.lines.end(), [](const FirstLightView::Line& line) {
        return line.verdict.state != VerdictState::pass && line.verdict.state != VerdictState::notDone;
    });
    const bool all = std::none_of(v.lines.begin(), v.lines.end(), [](const FirstLightView::Line& line) {
        return line.verdict.state == VerdictState::notDone;
    });
    if (chosen.empty() && all && v.bar == nullptr && !v.bridge)
        v.now = "Every check is made, " + std::to_string(wrong) + (wrong == 1 ? " does" : " do") +
                " not pass: " + v.check->title +
                (v.check->yesNo() ? "" : ", " + limitsText(v.check->limits, v.check->unit)) + ".";
    const auto senses = sensesToLookAt(kit, judged.build()).size();
    if (v.bar == nullptr && v.verdict.state == VerdictState::notDone && senses > 0)
        v.why += " Before power: " + std::to_string(senses) +
                 (senses == 1 ? " polarised part is" : " polarised parts are") +
                 " not held against the print yet (F3, N, S).";
    return v;
}

}  // namespace ombrek
