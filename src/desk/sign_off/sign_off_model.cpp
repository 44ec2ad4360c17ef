#include "desk/sign_off/sign_off_model.h"

#include <algorithm>

#include "desk/session.h"
#include "judged/sign_off.h"
#include "look/verdict_mark.h"
#include "report/report_html.h"

namespace ombrek {
namespace {

const Gate* inHand(const Readiness& readiness, const std::string& chosen) {
    for (const Gate& g : readiness.gates) {
        if (g.id == chosen) return &g;
    }
    if (const Gate* next = readiness.next()) return next;
    return readiness.gates.empty() ? nullptr : &readiness.gates.back();
}

void sayFit(const Judged& judged, SignOffView& v) {
    const Readiness& ready = judged.readiness();
    const bool air = judged.kit().ratings.transmits();
    if (ready.earned() < int(ready.gates.size())) {
        v.now =
            QStringLiteral("Every gate is open, %1 of them knowingly.").arg(ready.open() - ready.earned());
    } else {
        v.now = air ? QStringLiteral("Fit to go on the air: every gate is earned.")
                    : QStringLiteral("Every gate is earned; this kit does not transmit.");
    }
    v.why =
        air ? QStringLiteral("A goes on the air, step by step; P writes the report, C the card for its lid.")
            : QStringLiteral("P writes the report, C the card for its lid.");
}

void sayNext(const Gate& next, SignOffView& v) {
    const bool barred = next.id == "licence" && std::any_of(next.evidence.begin() + 1, next.evidence.end(),
                                                            [](const Evidence& e) { return e.bars(); });
    if (next.id == "licence" && !barred) {
        v.now = QStringLiteral("Is it within your licence: band, mode, power? Enter confirms.");
        v.why = QStringLiteral(
            "Follow your local rules; Ombrek cannot know them. N holds the rig against your own limits.");
        return;
    }
    v.now = QStringLiteral("Next gate: %1.").arg(qs(next.name));
    v.why = next.lapsed.empty()
                ? QStringLiteral(
                      "%1. Enter goes to %2; K passes what bars it knowingly, D accepts a known defect.")
                      .arg(qs(next.summary()), qs(word(next.station)))
                : QStringLiteral("Passed knowingly before, but changed since: %1. Enter goes to %2.")
                      .arg(qs(next.lapsed), qs(word(next.station)));
}

}  // namespace

SignOffView signOffView(const Judged& judged, const std::string& chosen) {
    SignOffView v;
    const Readiness& ready = judged.readiness();
    v.gate = inHand(ready, chosen);
    if (v.gate == nullptr) return v;
    v.row = int(v.gate - ready.gates.data());
    if (ready.fit()) {
        sayFit(judged, v);
    } else if (const Gate* next = ready.next()) {
        sayNext(*next, v);
    }
    v.evidence = v.gate->evidence;
    const auto rank = [](const Evidence& e) {
        if (e.state == VerdictState::pass) return 3;
        if (e.accepted) return 2;
        return e.state == VerdictState::notDone ? 1 : 0;
    };
    std::stable_sort(v.evidence.begin(), v.evidence.end(),
                     [&](const Evidence& a, const Evidence& b) { return rank(a) < rank(b); });
    for (const FitFor& f : fitFor(judged)) {
        v.fit.push_back(
            {qs(f.what),
             f.fit ? f.knowingly ? QStringLiteral("yes, knowingly") : QStringLiteral("yes")
                   : QStringLiteral("no"),
             f.fit ? f.knowingly ? VerdictState::doubtful : VerdictState::pass : VerdictState::notDone,
             true});
        v.fit.back().name[0] = v.fit.back().name[0].toUpper();
    }
    return v;
}

StateLine evidenceLine(const Evidence& e, bool current) {
    const QString right = e.knownDefect()    ? QStringLiteral("known defect")
                          : e.accepted       ? QStringLiteral("knowingly")
                          : e.figure.empty() ? wordOf(e.state)
                                             : qs(e.figure);
    return {e.state, qs(e.what), right, current};
}

std::vector<Fact> evidenceFacts(const Evidence& e) {
    std::vector<Fact> out{{QStringLiteral("State"), wordOf(e.state), e.state, true}};
    const auto add = [&](const char* name, const QString& value) {
        if (!value.isEmpty()) out.push_back({QString::fromUtf8(name), value});
    };
    add("Value", qs(e.figure));
    add("Meter", qs(e.meter));
    add("Day", e.at > 0 ? dayOf(e.at) : QString());
    add(e.knownDefect() ? "Known defect" : e.lapsed ? "Reason, lapsed" : "Reason", qs(e.reason));
    add("Forbids", qs(e.forbids));
    return out;
}

}  // namespace ombrek
