#include "desk/sign_off/sign_off_model.h"

#include <algorithm>

#include "desk/session.h"

namespace ombrek {
namespace {

constexpr std::size_t kShown = 6;

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
    v.why = air ? QStringLiteral("H or P writes the report. Dummy load, then antenna, then the first call.")
                : QStringLiteral("H or P writes the report.");
}

void sayNext(const Gate& next, SignOffView& v) {
    if (next.id == "licence") {
        v.now = QStringLiteral("Is it within your licence: band, mode, power? Enter confirms.");
        v.why = QStringLiteral("Follow your local rules; Ombrek cannot know them.");
        return;
    }
    v.now = QStringLiteral("Next gate: %1.").arg(qs(next.name));
    v.why = next.lapsed.empty()
                ? QStringLiteral("%1. Enter goes to %2; K passes it knowingly.")
                      .arg(qs(next.summary()), qs(next.station))
                : QStringLiteral("Passed knowingly before, but worse since: %1. Enter goes to %2.")
                      .arg(qs(next.lapsed).left(80), qs(next.station));
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
        return e.state == VerdictState::pass ? 2 : e.state == VerdictState::notDone ? 1 : 0;
    };
    std::stable_sort(v.evidence.begin(), v.evidence.end(),
                     [&](const Evidence& a, const Evidence& b) { return rank(a) < rank(b); });
    v.more = v.evidence.size() - std::min(kShown, v.evidence.size());
    v.evidence.resize(std::min(kShown, v.evidence.size()));
    v.report = {{QStringLiteral("Gates earned"),
                 QStringLiteral("%1 of %2").arg(ready.earned()).arg(ready.gates.size())},
                {QStringLiteral("Knowingly"), QString::number(ready.open() - ready.earned())}};
    return v;
}

}  // namespace ombrek
