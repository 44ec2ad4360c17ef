#include "desk/stations.h"

#include <QDateTime>
#include <cmath>

#include "look/qs.h"
#include "station/board/loupe.h"
#include "station/first_light/first_light.h"
#include "station/winding/winding.h"

namespace ombrek {
namespace {

QString nameOf(Station station) { return qs(word(station)); }

double share(int done, std::size_t all) { return all == 0 ? 0.0 : double(done) / double(all); }

QString ofAll(int done, std::size_t all, const QString& what) {
    if (all == 0) return QStringLiteral("none named");  // which is not the same as done
    return QStringLiteral("%1 of %2 %3").arg(done).arg(all).arg(what);
}

/// "coil" of one, "coils" of more.
QString wordFor(std::size_t number, const QString& one) {
    return number == 1 ? one : one + QStringLiteral("s");
}

StationLine partsIn(const Judged& judged) {
    const BagCount& bag = judged.bag();
    QString state = QStringLiteral("%1 of %2").arg(bag.in).arg(bag.total);
    state += bag.missing > 0 ? QStringLiteral(", %1 missing").arg(bag.missing) : QStringLiteral(" in");
    return {nameOf(Station::partsIn), state, share(bag.total - bag.waiting, std::size_t(bag.total)),
            bag.in == bag.total};
}

StationLine winding(const Judged& judged) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    int done = 0, right = 0;
    for (const Coil& coil : kit.coils) {
        done += wound(coil, build);
        right += judged.coil(coil).state == VerdictState::pass;
    }
    return {nameOf(Station::winding),
            ofAll(done, kit.coils.size(), wordFor(kit.coils.size(), QStringLiteral("coil"))),
            share(done, kit.coils.size()), !kit.coils.empty() && right == int(kit.coils.size())};
}

StationLine board(const Judged& judged) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    int done = 0, holds = 0;
    for (const Step& step : kit.steps) {
        done += build.done(step.id);
        holds += step.hold && !build.done(step.id);
    }
    QString state = ofAll(done, kit.steps.size(), wordFor(kit.steps.size(), QStringLiteral("step")));
    const auto open = openFindings(build).size();
    if (open > 0)
        return {nameOf(Station::board),
                QStringLiteral("%1 of %2, %3 to mend").arg(done).arg(kit.steps.size()).arg(open),
                share(done, kit.steps.size()), false};
    if (done > 0 && holds > 0)
        state = QStringLiteral("%1 of %2, %3 %4")
                    .arg(done)
                    .arg(kit.steps.size())
                    .arg(holds)
                    .arg(wordFor(std::size_t(holds), QStringLiteral("hold")));
    return {nameOf(Station::board), state, share(done, kit.steps.size()), done == int(kit.steps.size())};
}

StationLine firstLight(const Judged& judged) {
    const Kit& kit = judged.kit();
    int done = 0;
    for (const Check& check : kit.checks) done += judged.check(check).state == VerdictState::pass;
    return {nameOf(Station::firstLight),
            ofAll(done, kit.checks.size(), wordFor(kit.checks.size(), QStringLiteral("check"))),
            share(done, kit.checks.size()), !kit.checks.empty() && done == int(kit.checks.size())};
}

StationLine tune(const Judged& judged) {
    const Kit& kit = judged.kit();
    int done = 0;
    for (const Adjustment& a : kit.adjustments) done += judged.tune(a).state == VerdictState::pass;
    return {nameOf(Station::tune), ofAll(done, kit.adjustments.size(), QStringLiteral("settled")),
            share(done, kit.adjustments.size()),
            !kit.adjustments.empty() && done == int(kit.adjustments.size())};
}

StationLine proofLine(const Judged& judged) {
    if (!judged.kit().ratings.transmits() && judged.kit().ratings.mayTransmit())
        return {nameOf(Station::proof), QStringLiteral("not promised"), 0.0, false};
    if (!judged.kit().ratings.transmits())
        return {nameOf(Station::proof), QStringLiteral("nothing to do"), 1.0, true};
    std::vector<VerdictState> states;
    for (const std::string& band : judged.kit().ratings.bandNames()) {
        const ProofState& proof = judged.proof(band);
        states.insert(states.end(), {proof.powerVerdict.state, proof.frequencyVerdict.state});
        for (const Verdict& v : proof.harmonicVerdicts) states.push_back(v.state);
    }
    const auto passed = std::count(states.begin(), states.end(), VerdictState::pass);
    const bool none =
        std::all_of(states.begin(), states.end(), [](auto s) { return s == VerdictState::notDone; });
    const QString state = none ? QStringLiteral("not measured")
                               : QStringLiteral("%1 of %2 proved").arg(passed).arg(states.size());
    return {nameOf(Station::proof), state, share(int(passed), states.size()),
            passed == std::ptrdiff_t(states.size())};
}

}  // namespace

std::vector<StationLine> stationLines(const Judged& judged) {
    const Readiness& ready = judged.readiness();
    const StationLine sign{nameOf(Station::signOff),
                           QStringLiteral("%1 of %2 gates").arg(ready.open()).arg(ready.gates.size()),
                           share(ready.open(), ready.gates.size()), ready.fit()};
    return {partsIn(judged), winding(judged),   board(judged), firstLight(judged),
            tune(judged),    proofLine(judged), sign};
}

QString hoursAndMinutes(double minutes) {
    const int all = int(std::lround(minutes));
    if (all < 60) return QStringLiteral("%1 min").arg(all);
    return QStringLiteral("%1 h %2").arg(all / 60).arg(all % 60, 2, 10, QLatin1Char('0'));
}

SittingLine sittingLine(const Judged& judged, std::int64_t now) {
    const QDate today = QDateTime::fromSecsSinceEpoch(now).date();
    double minutes = 0;
    for (const Sitting& s : judged.build().sittings) {
        if (QDateTime::fromSecsSinceEpoch(s.start).date() == today) minutes += double(s.end - s.start) / 60;
    }
    const PlanTime& time = judged.planTime();
    return {QStringLiteral("At the bench today %1").arg(hoursAndMinutes(minutes)),
            time.plannedLeft > 0 ? QStringLiteral("%1 to %2 left at your pace")
                                       .arg(hoursAndMinutes(time.left.low), hoursAndMinutes(time.left.high))
                                 : QStringLiteral("every step is done")};
}

}  // namespace ombrek
