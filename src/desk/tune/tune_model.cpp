#include "desk/tune/tune_model.h"

#include <algorithm>

#include "desk/session.h"
#include "station/rests_on.h"

namespace ombrek {
namespace {

const Adjustment* inHand(const Judged& judged, const std::string& chosen, const Adjustment* next) {
    const Kit& kit = judged.kit();
    if (const Adjustment* hit = kit.adjustment(chosen)) return hit;
    if (next != nullptr) return next;
    return kit.adjustments.empty() ? nullptr : &kit.adjustments.back();
}

void say(TuneView& v) {
    const Adjustment& a = *v.adjustment;
    if (v.settled()) {
        v.now = QStringLiteral("%1: settled.").arg(qs(a.title));
        v.why = v.next ? QStringLiteral("Enter goes on: %1.").arg(qs(v.next->title))
                       : QStringLiteral("All are settled; F6 goes to Proof.");
    } else if (!v.load.clear()) {
        v.now = qs(v.load.now);
        v.why = qs(v.load.why);
    } else if (!v.state.remedy.empty()) {
        v.now = qs(v.state.remedy);
        v.why = qs(v.state.sentence);
    } else if (const Adjustment* other = v.other) {
        v.now = QStringLiteral("Now the other: %1.").arg(qs(other->title));
        v.why = qs(v.state.sentence) + QStringLiteral(" Enter goes there; R reads this one all the same.");
    } else {
        v.now = QStringLiteral("%1: turn %2 to %3 and read.")
                    .arg(qs(a.title), qs(a.adjuster), travelText(v.state.nextPosition));
        v.why = qs(v.state.sentence);
    }
}

std::vector<Fact> factsOf(const TuneView& v, double position) {
    const Adjustment& a = *v.adjustment;
    std::vector<Fact> out{{QStringLiteral("Turn"), qs(a.adjuster)},
                          {QStringLiteral("Stands at"), travelText(position)}};
    const double best = v.state.bestPosition;
    if (v.state.readings.size() >= 2)
        out.push_back({QStringLiteral("Best at"),
                       best < 0 || best > 1 ? QStringLiteral("beyond its end") : travelText(best)});
    if (a.kind == Adjustment::Kind::set)
        out.push_back({QStringLiteral("Wanted"), qs(formatQuantity(a.target, a.unit, 8))});
    if (v.state.peak && v.state.peak->high > v.state.peak->low &&
        v.state.peak->kind == PeakEstimate::Kind::inside)
        out.push_back(
            {QStringLiteral("Lies between"),
             travelText(v.state.peak->low) + QStringLiteral(" and ") + travelText(v.state.peak->high)});
    out.push_back({QStringLiteral("Readings"), QString::number(v.state.readings.size())});
    if (!v.state.heard.empty())
        out.push_back({QStringLiteral("Heard"), QString::number(v.state.heard.size())});
    return out;
}

}  // namespace

QString travelText(double position) {
    return qs(decimals(std::clamp(position, 0.0, 1.0) * 100, 1)) + QStringLiteral("\u202f%");
}

TuneView tuneView(const Judged& judged, const std::string& chosen, std::optional<double> position,
                  std::int64_t now) {
    TuneView v;
    v.next = nextAdjustment(judged);
    v.adjustment = inHand(judged, chosen, v.next);
    if (v.adjustment == nullptr) {
        v.now = QStringLiteral("This kit names nothing to adjust.");
        v.why = QStringLiteral(
            "Ins writes an adjustment from the paper, Ctrl+V pastes them: C10: peak the audio at the phones. "
            "If there are none, F6 goes to Proof.");
        return v;
    }
    const Adjustment& a = *v.adjustment;
    v.state = judged.tune(a);
    v.other = judged.kit().adjustment(v.state.other);
    if (keyDown(a)) v.load = askForLoad(judged.kit(), judged.build(), now);
    v.last = lastStanding(judged.kit(), judged.build(), Subject::adjustment(a.id));
    say(v);
    v.facts = factsOf(v, position.value_or(v.state.nextPosition));
    v.text = QStringLiteral("Read: %1.").arg(qs(a.reads));
    if (a.kind == Adjustment::Kind::peak)
        v.text += QStringLiteral(
            " A true peak shows twice in a full turn; one, at an end, means the coil is wrong. By ear: L "
            "louder, "
            "E the same, S softer than where it stood before.");
    if (a.kind == Adjustment::Kind::null)
        v.text += QStringLiteral(" The least is wanted; near it small turns tell most.");
    if (!a.partners.empty()) {
        QStringList names;
        for (const std::string& id : a.partners) {
            if (const Adjustment* partner = judged.kit().adjustment(id)) names << qs(partner->title);
        }
        v.text += QStringLiteral(" It pulls and is pulled by %1: go round until none moves.")
                      .arg(names.join(QStringLiteral(", ")));
    }
    v.caution = qs(a.caution);
    for (const Adjustment& other : judged.kit().adjustments)
        v.lines.push_back({judged.tune(other).state, qs(other.title), QString(), &other == &a, false});
    return v;
}

}  // namespace ombrek
