#include "report/cut_list.h"

#include "report/report.h"

namespace ombrek {

A4Sheet cutListSheet(const CutList& list, const std::vector<ReelUse>& reels, const QString& kit) {
    const auto cell = [](const QString& text) {
        return QStringLiteral("<td>%1</td>").arg(text.toHtmlEscaped());
    };
    const auto wire = [](const std::string& given) {
        const auto read = parseWire(given);
        return QString::fromStdString(read ? wireName(given, *read) : given);
    };
    QString rows, totals;
    for (const CutLine& line : list.lines) {
        rows += QStringLiteral("<tr>") + cell(QString::fromStdString(line.coil)) +
                cell(QString::fromStdString(line.winding)) + cell(QString::fromStdString(line.core)) +
                cell(QString::number(line.turns)) + cell(wire(line.wire)) +
                cell(QString::fromStdString(lengthName(line.length))) +
                QStringLiteral("<td>\u2610</td></tr>");
    }
    for (const ReelUse& use : reels)
        totals +=
            QStringLiteral("<tr>") + cell(QString::fromStdString(use.sentence)) + QStringLiteral("</tr>");
    Report report;
    report.title = kit + QStringLiteral(", cut list");
    report.html =
        QStringLiteral(
            "<h1>%1</h1><table border=\"1\" cellspacing=\"0\" "
            "cellpadding=\"5\"><tr><th>coil</th><th>winding</th>"
            "<th>core</th><th>turns</th><th>wire</th><th>cut</th><th>done</th></tr>%2</table>"
            "<h2>Of each wire</h2><table border=\"1\" cellspacing=\"0\" cellpadding=\"5\">%3</table>"
            "<p>Tails and a reserve of an eighth are included.</p>")
            .arg(report.title.toHtmlEscaped(), rows, totals);
    return reportSheet(report);
}

}  // namespace ombrek
