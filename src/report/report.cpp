#include "report/report.h"

#include <cmath>

#include <QDateTime>
#include <QImage>
#include <QLocale>
#include <QPainter>
#include <QSvgRenderer>
#include <QTextDocument>

#include "core/quantity/shown.h"
#include "look/verdict_mark.h"
#include "report/plots.h"
#include "station/board.h"
#include "station/first_light.h"
#include "station/loupe.h"
#include "station/notes.h"
#include "station/parts_in.h"
#include "station/proof.h"
#include "station/sign_off.h"
#include "station/tune.h"
#include "station/winding.h"

namespace ombrek {
namespace {

constexpr QSize kPlotSize(600, 240);

QString esc(const std::string& text) { return QString::fromStdString(text).toHtmlEscaped(); }

/// A verdict in text: the word, so that it survives a monochrome printer.
QString mark(VerdictState state) { return QStringLiteral("<b>%1</b>").arg(wordOf(state)); }

QString when(std::int64_t seconds) {
    return QLocale().toString(QDateTime::fromSecsSinceEpoch(seconds), QLocale::ShortFormat).toHtmlEscaped();
}

using Row = QStringList;

QString table(const Row& head, const std::vector<Row>& rows) {
    QString out = QStringLiteral("<table width=\"100%\" cellspacing=\"0\" cellpadding=\"4\"><tr>");
    for (const auto& cell : head) out += QStringLiteral("<th align=\"left\">%1</th>").arg(cell);
    out += QStringLiteral("</tr>");
    for (const Row& row : rows) {
        out += QStringLiteral("<tr>");
        for (const auto& cell : row) out += QStringLiteral("<td valign=\"top\">%1</td>").arg(cell);
        out += QStringLiteral("</tr>");
    }
    return out + QStringLiteral("</table>");
}

QString quantityOrDash(const Reading* r, int digits) {
    if (r == nullptr || std::isnan(r->value)) return QStringLiteral("–");
    if (r->beyond) return esc(shownText({r->value, true}, r->unit, digits));
    return esc(formatQuantity(r->value, r->unit, digits, Zeros::keep));
}

QString gatesSection(const Readiness& readiness) {
    std::vector<Row> rows;
    for (const Gate& gate : readiness.gates) {
        QString state = mark(gate.state());
        if (gate.passedKnowingly && gate.state() != VerdictState::pass)
            state += QStringLiteral("<br>passed knowingly");
        QString evidence = esc(gate.summary());
        if (!gate.reason.empty()) evidence += QStringLiteral("<br>Reason: ") + esc(gate.reason);
        int named = 0;
        for (const Evidence& e : gate.evidence) {
            if (e.state == VerdictState::pass || e.state == VerdictState::notDone || ++named > 12) continue;
            evidence += QStringLiteral("<br>%1: %2").arg(esc(e.what), esc(e.sentence));
        }
        rows.push_back({esc(gate.name), state, evidence});
    }
    return QStringLiteral("<h2>Gates</h2>") + table({"Gate", "State", "Evidence"}, rows);
}

/// Taken on the builder's word: in a report that is no pass.
bool trusted(const Build& build, const Coil& coil) {
    return build.coilChecks.contains(coil.ref + "/trust") && build.last(Subject::coil(coil.ref)) == nullptr;
}

QString coilsSection(const Kit& kit, const Build& build) {
    if (kit.coils.empty()) return {};
    std::vector<Row> rows;
    for (const Coil& coil : kit.coils) {
        QStringList turns;
        for (const Winding& w : coil.windings)
            turns << QString::number(build.winding(coil.ref, w.name).turns);
        const auto cover = coilCover(kit, coil, build);
        rows.push_back({esc(coil.ref + " " + coil.what), esc(coil.core.designation),
                        turns.join(QStringLiteral(" + ")), esc(formatQuantity(coil.target, Unit::henry, 3)),
                        quantityOrDash(build.last(Subject::coil(coil.ref)), 3),
                        trusted(build, coil) ? QStringLiteral("<b>trusted</b>, not measured")
                                             : mark(coilVerdict(coil, build).state),
                        cover ? esc(cover->sentence) : QString()});
    }
    return QStringLiteral("<h2>Coils</h2>") +
           table({"Coil", "Core", "Turns", "Wanted", "Measured", "Verdict", "Trimmer"}, rows);
}

QString checksSection(const Judged& judged) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    if (kit.checks.empty()) return {};
    std::vector<Row> rows;
    for (const Check& check : kit.checks) {
        const Verdict& verdict = judged.check(check);
        rows.push_back({esc(check.title), esc(check.at),
                        check.yesNo() ? esc(check.seen)
                                      : quantityOrDash(build.last(Subject::check(check.id)),
                                                       figuresFor(check.limits) + 2),
                        mark(verdict.state), esc(verdict.sentence)});
    }
    return QStringLiteral("<h2>First light</h2>") + table({"Check", "At", "Reading", "Verdict", "Why"}, rows);
}

QString partsSection(const Judged& judged) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    std::vector<Row> rows;
    for (const Part& part : kit.parts) {
        const Verdict& verdict = judged.part(part);
        if (verdict.state == VerdictState::pass || verdict.state == VerdictState::notDone) continue;
        rows.push_back({esc(part.ref), esc(part.value),
                        quantityOrDash(build.last(Subject::part(part.ref)), 4), mark(verdict.state),
                        esc(verdict.sentence)});
    }
    const BagCount& bag = judged.bag();
    QString out =
        QStringLiteral("<h2>Parts</h2><p>%1 of %2 in, %3 missing, %4 of another value, %5 doubtful.</p>")
            .arg(bag.in)
            .arg(bag.total)
            .arg(bag.missing)
            .arg(bag.wrong)
            .arg(bag.doubtful);
    QStringList onTrust;
    for (const auto& [ref, how] : build.parts) {
        if (how == PartMark::trusted && build.last(Subject::part(ref)) == nullptr && kit.part(ref))
            onTrust << esc(ref);
    }
    if (!onTrust.isEmpty())
        out += QStringLiteral("<p>Taken on trust, not measured: %1.</p>")
                   .arg(onTrust.join(QStringLiteral(", ")));
    return rows.empty() ? out : out + table({"Part", "Wanted", "Reading", "Verdict", "Why"}, rows);
}

/// What was proved on a band; on the only one without its name.
void addProof(const Kit& kit, const ProofState& proof, const std::string& band, std::vector<Row>& rows) {
    const Ratings rated = kit.ratings.on(band);
    const QString on = band.empty() ? QString() : QStringLiteral(", ") + esc(band);
    const QString measured = proof.power ? esc(formatQuantity(proof.power->watts, Unit::watt, 3) + " at " +
                                               formatQuantity(proof.supply, Unit::volt, 3) + "; " +
                                               formatQuantity(proof.powerAtRated, Unit::watt, 3) + " at " +
                                               formatQuantity(rated.supply, Unit::volt, 3))
                                         : QStringLiteral("–");
    rows.push_back({QStringLiteral("Power") + on, esc(formatQuantity(rated.power, Unit::watt, 3)), measured,
                    mark(proof.powerVerdict.state)});
    rows.push_back(
        {QStringLiteral("Frequency") + on, esc(formatQuantity(rated.frequency, Unit::hertz, 8)),
         proof.frequency ? esc(formatQuantity(*proof.frequency, Unit::hertz, 8)) : QStringLiteral("–"),
         mark(proof.frequencyVerdict.state)});
    for (std::size_t i = 0; i < proof.harmonicVerdicts.size(); ++i) {
        const Verdict& v = proof.harmonicVerdicts[i];
        rows.push_back({QStringLiteral("Harmonic %1").arg(i + 2) + on,
                        esc(formatQuantity(proof.required, Unit::decibel, 3) + " below"),
                        v.state == VerdictState::notDone ? QStringLiteral("–")
                                                         : esc(formatQuantity(v.reading, Unit::decibel, 3)),
                        mark(v.state)});
    }
}

QString proofSection(const Judged& judged) {
    const Kit& kit = judged.kit();
    if (!kit.ratings.transmits()) return {};
    std::vector<Row> rows;
    QString workings;
    for (const std::string& band : kit.ratings.bandNames()) {
        const ProofState& proof = judged.proof(band);
        addProof(kit, proof, band, rows);
        if (proof.power)
            workings +=
                QStringLiteral("<p>%1</p>").arg(esc(proof.power->working.text()).replace('\n', "<br>"));
    }
    const LimitProfile& profile = judged.profile();
    return QStringLiteral("<h2>Proof</h2>") +
           table({"What", "Rated or required", "Measured", "Verdict"}, rows) + workings +
           QStringLiteral("<p>Limit: %1. Source: %2.</p>").arg(esc(profile.name), esc(profile.source));
}

/// Hold points gone past knowingly with their reason, and everything the loupe found.
QString boardSection(const Kit& kit, const Build& build) {
    std::vector<Row> holds, findings;
    for (const Step& step : kit.steps) {
        const auto record = build.steps.find(step.id);
        if (record == build.steps.end() || !record->second.knowingly) continue;
        // Books before version 4 kept the reason as the step's remark.
        const auto remark = build.remarks.find(step.id);
        const std::string& reason = !record->second.reason.empty() || remark == build.remarks.end()
                                        ? record->second.reason
                                        : remark->second;
        holds.push_back({esc(step.title), when(record->second.at), esc(reason)});
    }
    for (const Finding& f : build.findings)
        findings.push_back({esc(f.ref), esc(std::string(word(f.what))), when(f.found),
                            f.closed == 0 ? QStringLiteral("<b>open</b>") : when(f.closed)});
    QString out;
    if (!holds.empty())
        out += QStringLiteral("<h2>Hold points passed knowingly</h2>") +
               table({"Hold", "When", "Reason"}, holds);
    if (!findings.empty())
        out += QStringLiteral("<h2>Under the loupe</h2>") +
               table({"Part", "Finding", "Found", "Mended"}, findings);
    return out;
}

QString remarksSection(const Kit& kit, const Build& build) {
    std::vector<Row> rows;
    for (const Step& step : kit.steps) {
        const auto remark = build.remarks.find(step.id);
        if (remark != build.remarks.end()) rows.push_back({esc(step.title), esc(remark->second)});
    }
    return rows.empty() ? QString() : QStringLiteral("<h2>Remarks</h2>") + table({"Step", "Remark"}, rows);
}

/// Where the rig is otherwise than its paper.
QString notesSection(const Kit& kit, const Build& build) {
    std::vector<Row> errata, otherwise;
    for (const Note& note : notesOf(kit, build)) {
        if (!note.erratum.empty()) errata.push_back({esc(note.title), esc(note.erratum)});
        if (!note.otherwise.empty()) otherwise.push_back({esc(note.title), esc(note.otherwise)});
    }
    QString out;
    if (!errata.empty())
        out += QStringLiteral("<h2>Errata of the paper</h2>") + table({"At", "What it has wrong"}, errata);
    if (!otherwise.empty())
        out += QStringLiteral("<h2>Made otherwise than the paper says</h2>") +
               table({"At", "What, and why"}, otherwise);
    return out;
}

/// What it was made of: the variant that is built and what was put on top.
QString versionSection(const Kit& kit) {
    QStringList out;
    if (!kit.variant.empty()) out << QStringLiteral("Variant: %1.").arg(esc(kit.variant));
    for (const std::string& name : kit.upgrades) out << QStringLiteral("Upgrade: %1.").arg(esc(name));
    return out.isEmpty() ? QString() : QStringLiteral("<p>%1</p>").arg(out.join(QChar(' ')));
}

QString repairsSection(const Build& build) {
    std::vector<Row> rows;
    for (const Repair& r : build.repairs) rows.push_back({when(r.at), esc(r.ref), esc(r.found), esc(r.done)});
    return rows.empty() ? QString()
                        : QStringLiteral("<h2>Repairs</h2>") + table({"Day", "Part", "Found", "Done"}, rows);
}

QString picture(std::size_t index) {
    return QStringLiteral("<p><img src=\"plot:%1\" width=\"%2\" height=\"%3\" alt=\"plot\"></p>")
        .arg(index)
        .arg(kPlotSize.width())
        .arg(kPlotSize.height());
}

QString verdictLine(const Readiness& readiness) {
    const auto& gates = readiness.gates;
    if (readiness.fit() && readiness.earned() == int(gates.size())) {
        return QStringLiteral("All %1 gates are earned.").arg(gates.size());
    }
    return QStringLiteral("%1 of %2 gates are earned, %3 passed knowingly, %4 open.")
        .arg(readiness.earned())
        .arg(gates.size())
        .arg(readiness.open() - readiness.earned())
        .arg(int(gates.size()) - readiness.open());
}

}  // namespace

Report makeReport(const Judged& judged, std::int64_t now, const QString& builder) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    const LimitProfile& profile = judged.profile();
    const Readiness& ready = judged.readiness();
    Report out;
    out.title = QString::fromStdString(kit.name);
    const double hours = judged.planTime().spent / 60;
    out.html =
        QStringLiteral("<h1>%1</h1><p>%2</p><p><b>%3</b> Built from %4 to %5, %6 hours at the bench.</p>")
            .arg(esc(kit.name), esc(kit.summary), verdictLine(ready), when(build.started), when(now),
                 QString::fromStdString(decimals(hours, 1)));
    if (!builder.isEmpty()) out.html += QStringLiteral("<p>Built by %1.</p>").arg(builder.toHtmlEscaped());
    out.html += versionSection(kit) + gatesSection(ready) + proofSection(judged);
    for (const std::string& band : kit.ratings.bandNames()) {
        const ProofState& proof = judged.proof(band);
        if (proof.harmonics.empty()) continue;
        out.html += picture(out.plots.size());
        out.plots.push_back(plotSvg(spectrumPlot(kit, build, proof, profile, band), kPlotSize));
    }
    out.html += coilsSection(kit, build);
    for (const Adjustment& a : kit.adjustments) {
        const TuneState& state = judged.tune(a);
        if (state.readings.size() < 3) continue;
        out.html += QStringLiteral("<h3>%1: %2</h3><p>%3 %4</p>")
                        .arg(esc(a.title), mark(state.state), esc(state.sentence), esc(state.remedy));
        out.html += picture(out.plots.size());
        out.plots.push_back(plotSvg(tunePlot(judged, a), kPlotSize));
    }
    out.html += checksSection(judged) + partsSection(judged) + boardSection(kit, build) +
                repairsSection(build) + notesSection(kit, build) + remarksSection(kit, build);
    out.html += QStringLiteral(
        "<p>Verdicts count the instruments' own error where the guard-band rule was chosen. Band limits, "
        "power "
        "and mode are a matter of the operator's licence and local rules.</p>");
    return out;
}

QByteArray reportAsHtml(const Report& report) {
    QString body = report.html;
    for (std::size_t i = 0; i < report.plots.size(); ++i) {
        body.replace(QStringLiteral("\"plot:%1\"").arg(i),
                     QStringLiteral("\"data:image/svg+xml;base64,%1\"")
                         .arg(QString::fromLatin1(report.plots[i].toBase64())));
    }
    return QStringLiteral(
               "<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>%1</title><style>"
               "body{font-family:Ombrek "
               "Readout,B612,sans-serif;color:#1C2529;background:#fff;max-width:52em;margin:2em "
               "auto;padding:0 1em}"
               "table{border-collapse:collapse}td,th{border-bottom:1px solid "
               "#DCD5C7;text-align:left}img{max-width:100%}"
               "</style></head><body>%2</body></html>\n")
        .arg(report.title.toHtmlEscaped(), body)
        .toUtf8();
}

namespace {

QImage rendered(const QByteArray& svg) {
    constexpr int scale = 3;
    QImage image(kPlotSize * scale, QImage::Format_RGB32);
    image.fill(Qt::white);
    QSvgRenderer renderer(svg);
    QPainter painter(&image);
    renderer.render(&painter);
    return image;
}

}  // namespace

A4Sheet reportSheet(const Report& report) {
    return {report.title, 16, 96, [report](QPagedPaintDevice& writer) {
                QTextDocument document;
                QFont font(QStringLiteral("Ombrek Readout"));
                font.setPointSizeF(8.5);
                document.setDefaultFont(font);
                document.setDefaultStyleSheet(
                    QStringLiteral("th { color: #59646A; } h1 { font-size: 20pt; } h2 { font-size: 13pt; }"));
                for (std::size_t i = 0; i < report.plots.size(); ++i) {
                    document.addResource(QTextDocument::ImageResource, QUrl(QStringLiteral("plot:%1").arg(i)),
                                         rendered(report.plots[i]));
                }
                document.setHtml(report.html);
                document.setPageSize(QSizeF(writer.width(), writer.height()));
                document.print(&writer);
            }};
}

}  // namespace ombrek
