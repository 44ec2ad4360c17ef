#include "desk/board/sitting_model.h"

#include <QDateTime>
#include <QLocale>
#include <algorithm>

#include "desk/session.h"
#include "desk/stations.h"
#include "station/board/work.h"

namespace ombrek {
namespace {

QString dateOf(std::int64_t seconds) {
    return QLocale().toString(QDateTime::fromSecsSinceEpoch(seconds).date(), QLocale::ShortFormat);
}

/// Things one after another that are wanted for the same reason, in one line.
std::vector<SittingAhead::Want> byReason(const std::vector<SittingAhead::Want>& wants) {
    std::vector<SittingAhead::Want> out;
    for (const auto& want : wants) {
        if (!out.empty() && out.back().why == want.why)
            out.back().what += ", " + want.what;
        else
            out.push_back(want);
    }
    return out;
}

QString backText(const Kit& kit, const Build& build) {
    const auto back = whereOneWas(kit, build);
    if (!back) return {};
    constexpr std::size_t kNamed = 30;
    QStringList odd, touched;
    for (const std::string& text : back->odd) odd << qs(text);
    for (std::size_t i = 0; i < std::min(back->touched.size(), kNamed); ++i) touched << qs(back->touched[i]);
    return QStringLiteral("Last: %1.\n%2Touched: %3")
        .arg(qs(back->last),
             odd.isEmpty() ? QString()
                           : QStringLiteral("Odd: ") + odd.join(QStringLiteral("; ")) + QStringLiteral("\n"),
             touched.isEmpty() ? QStringLiteral("no part") : touched.join(QStringLiteral(", ")));
}

std::vector<Fact> paceOf(const Judged& judged) {
    const std::vector<WorkDone> done = workDone(judged.kit(), judged.build());
    const Pace pace(done);
    const PlanTime& time = judged.planTime();
    std::vector<Fact> facts{
        {QStringLiteral("At the bench so far"), hoursAndMinutes(time.spent)},
        {QStringLiteral("Left, probably"), hoursAndMinutes(time.left.middle)},
        {QStringLiteral("Eight times in ten"),
         QStringLiteral("%1 to %2").arg(hoursAndMinutes(time.left.low), hoursAndMinutes(time.left.high))}};
    for (const WorkKind kind : {WorkKind::solder, WorkKind::winding, WorkKind::test}) {
        const bool learnt =
            std::any_of(done.begin(), done.end(), [&](const WorkDone& w) { return w.kind == kind; });
        facts.push_back({qs(word(kind)).left(1).toUpper() + qs(word(kind)).mid(1),
                         learnt ? qs(decimals(pace.factor(kind), 2)) + QStringLiteral(" of the plan")
                                : QStringLiteral("none of it yet")});
    }
    return facts;
}

}  // namespace

SittingView sittingView(const Judged& judged, double minutes) {
    SittingView v;
    const SittingAhead ahead = sittingAhead(judged.kit(), judged.build(), judged.order(), minutes);
    v.ahead = !ahead.steps.empty();
    if (!v.ahead) {
        v.now = QStringLiteral("Nothing is left on the board.");
        v.why = QStringLiteral("F4 goes to First light.");
    } else {
        v.now = QStringLiteral("This sitting: %1 steps, about %2.")
                    .arg(ahead.steps.size())
                    .arg(hoursAndMinutes(ahead.minutes));
        v.why = QStringLiteral("As far as \"%1\". Lay out what it wants before the iron is hot.")
                    .arg(qs(ahead.steps.back()->title));
    }
    v.left = {{QStringLiteral("Have ready"), byReason(ahead.tools)},
              {QStringLiteral("Lay aside"), ahead.keeps}};
    v.right = {{QStringLiteral("Not yet"), ahead.notYet},
               {QStringLiteral("It stops for proof"), ahead.holds}};
    v.back = backText(judged.kit(), judged.build());
    v.pace = paceOf(judged);
    return v;
}

OddsView oddsView(const std::vector<FreeTime>& evenings, const std::optional<FinishOdds>& odds,
                  const std::string& pattern) {
    OddsView v;
    if (evenings.empty()) {
        v.text = QStringLiteral("D, then the evenings that are free:\nTue Thu 20:00 2h, Sat 14:00 3h");
        return v;
    }
    for (const double share : {0.1, 0.5, 0.9}) {
        const auto evening = odds ? odds->evening(share) : std::nullopt;
        v.facts.push_back({QStringLiteral("%1 in ten").arg(int(share * 10)),
                           !odds     ? QStringLiteral("…")
                           : evening ? dateOf(evenings[*evening].start)
                                     : QStringLiteral("later than half a year")});
    }
    v.text = QStringLiteral("Free: %1.\n%2 schedules drawn by lot; one evening in seven comes to nothing.")
                 .arg(qs(pattern))
                 .arg(QLocale().toString(kSchedules));
    return v;
}

std::optional<double> sittingMinutes(const QString& text) {
    const bool hours = text.endsWith(QChar('h'));
    const auto typed = parseQuantity((hours ? text.chopped(1) : text).toStdString());
    const double minutes = typed ? typed->value * (hours ? 60 : 1) : 0;
    return minutes >= 10 && minutes <= 960 ? std::optional(minutes) : std::nullopt;
}

}  // namespace ombrek
