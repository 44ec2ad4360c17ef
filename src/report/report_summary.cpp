#include "report/report_summary.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/earned.h"
#include "judged/evidence.h"
#include "judged/not_measured.h"
#include "judged/repair.h"
#include "judged/sign_off.h"
#include "report/report_html.h"
#include "station/bands.h"
#include "station/subjects.h"

namespace ombrek {
namespace {

/// What it was made of: the variant that is built and what was put on top.
QString versionSection(const Kit& kit) {
    QStringList out;
    if (!kit.variant.empty()) out << QStringLiteral("Variant: %1.").arg(esc(kit.variant));
    for (const std::string& name : kit.upgrades) out << QStringLiteral("Upgrade: %1.").arg(esc(name));
    return out.isEmpty() ? QString() : QStringLiteral("<p>%1</p>").arg(out.join(QChar(' ')));
}

QString verdictLine(const Readiness& readiness) {
    const auto& gates = readiness.gates;
    if (readiness.fit() && readiness.earned() == int(gates.size()))
        return QStringLiteral("All %1 gates are earned.").arg(gates.size());
    return QStringLiteral("%1 of %2 gates are earned, %3 passed knowingly, %4 open.")
        .arg(readiness.earned())
        .arg(gates.size())
        .arg(readiness.open() - readiness.earned())
        .arg(int(gates.size()) - readiness.open());
}

QString fitTable(const Judged& judged) {
    std::vector<HtmlRow> rows;
    for (const FitFor& f : fitFor(judged))
        rows.push_back(
            {esc(f.what),
             f.fit ? (f.knowingly ? QStringLiteral("<b>yes</b>, knowingly") : QStringLiteral("<b>yes</b>"))
                   : QStringLiteral("<b>no</b>"),
             esc(f.why)});
    return table({"Fit for", "", "What bars it"}, rows);
}

/// A band in a line: power, frequency, and the worst of its harmonics.
QString bandTable(const Judged& judged) {
    const Ratings& ratings = judged.kit().ratings;
    if (!ratings.transmits()) return {};
    std::vector<HtmlRow> rows;
    for (const std::string& band : ratings.bandNames()) {
        const ProofState& proof = judged.proof(band);
        const auto figure = [&](const Subject& s) {
            const Evidence e = withReading({}, judged, s);
            return e.figure.empty() ? QStringLiteral("–") : esc(e.figure);
        };
        const auto worstOne = std::min_element(proof.harmonics.begin(), proof.harmonics.end(),
                                               [](auto& a, auto& b) { return a.below < b.below; });
        std::vector<VerdictState> harmonics;
        for (const Verdict& v : proof.harmonicVerdicts) harmonics.push_back(v.state);
        rows.push_back(
            {esc(bandCalled(judged.kit(), band)),
             figure(Subject::power(band)) + QStringLiteral("<br>") + mark(proof.powerVerdict.state),
             figure(Subject::frequency(band)) + QStringLiteral("<br>") + mark(proof.frequencyVerdict.state),
             (worstOne == proof.harmonics.end()
                  ? QStringLiteral("–")
                  : esc(earnedText(worstOne->below, worstOne->uncertainty, Unit::decibel)) +
                        QStringLiteral(" below, number %1").arg(worstOne->order)) +
                 QStringLiteral("<br>") + mark(worst(harmonics))});
    }
    return table({"Band", "Power", "Frequency", "Strongest harmonic"}, rows);
}

QString defectLines(const Judged& judged) {
    QString out;
    for (const KnownDefect& d : knownDefects(judged.readiness()))
        out += QStringLiteral("<p><b>Known defect:</b> %1: %2. It forbids: %3.</p>")
                   .arg(esc(d.what), esc(d.reason), esc(d.forbids));
    int open = 0;
    for (const RepairState& r : repairStates(judged)) open += !r.closed();
    if (open > 0) out += QStringLiteral("<p><b>Repairs not closed: %1.</b></p>").arg(open);
    return out;
}

QString contactLine(const ReportWords& words) {
    if (!words.first) return QStringLiteral("<p>No contact was made with this rig yet.</p>");
    const Contact& c = *words.first;
    QString out = QStringLiteral("<p>First contact %1: %2").arg(when(c.at), esc(c.call));
    if (!c.band.empty()) out += QStringLiteral(", ") + esc(c.band);
    if (!c.mode.empty()) out += QStringLiteral(", ") + esc(c.mode);
    if (words.way) out += QStringLiteral(", %1 km").arg(esc(decimals(words.way->kilometres, 0)));
    if (c.watts > 0) out += QStringLiteral(" with ") + esc(formatQuantity(c.watts, Unit::watt, 3));
    return out + QStringLiteral(". Contacts with this rig: %1.</p>").arg(words.contacts);
}

QString builderLine(const ReportWords& words) {
    QStringList who;
    for (const QString& w : {words.name, words.call, words.locator}) {
        if (!w.isEmpty()) who << w.toHtmlEscaped();
    }
    return who.isEmpty() ? QString()
                         : QStringLiteral("<p>Built by %1.</p>").arg(who.join(QStringLiteral(", ")));
}

QString signature(const ReportWords& words) {
    QString out =
        QStringLiteral("<p><br>Signed: ______________________________ &nbsp;&nbsp; Day: ______________</p>");
    if (words.state.isEmpty()) return out;
    QStringList groups;
    for (int i = 0; i < words.state.size(); i += 8) groups << words.state.mid(i, 8);
    return out +
           QStringLiteral("<p>%1<br>%2</p>").arg(QString::fromUtf8(kHashWords), groups.join(QChar(' ')));
}

}  // namespace

QString reportSummary(const Judged& judged, const ReportWords& words) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    const double hours = judged.planTime().spent / 60;
    QString out = QStringLiteral("<h1>%1</h1>").arg(esc(kit.name));
    if (!kit.summary.empty()) out += QStringLiteral("<p>%1</p>").arg(esc(kit.summary));
    out += versionSection(kit) + builderLine(words);
    out += QStringLiteral(
               "<p>Begun %1; report made %2 with Ombrek %3. %4 hours at the bench.</p><p><b>%5</b></p>")
               .arg(dayOf(build.started), when(words.now), QStringLiteral(OMBREK_VERSION),
                    esc(decimals(hours, 1)), verdictLine(judged.readiness()));
    out += fitTable(judged) + bandTable(judged) + defectLines(judged) + contactLine(words);
    out += QStringLiteral("<h3>What was not measured</h3><ul>");
    for (const std::string& line : notMeasured(judged)) out += QStringLiteral("<li>%1</li>").arg(esc(line));
    out += QStringLiteral("</ul>") + signature(words);
    return out + QStringLiteral(
                     "<p>Band limits, power and mode are a matter of the operator's licence and local "
                     "rules; Ombrek cannot know them.</p>");
}

}  // namespace ombrek
