#include "report/report_html.h"

#include <QDateTime>
#include <cmath>

#include "core/quantity/earned.h"
#include "core/quantity/shown.h"
#include "look/verdict_mark.h"

namespace ombrek {

QString esc(const std::string& text) { return QString::fromStdString(text).toHtmlEscaped(); }

QString mark(VerdictState state) { return QStringLiteral("<b>%1</b>").arg(wordOf(state)); }

QString when(std::int64_t seconds) {
    return QDateTime::fromSecsSinceEpoch(seconds, Qt::UTC).toString(QStringLiteral("yyyy-MM-dd HH:mm")) +
           QStringLiteral(" UTC");
}

QString dayOf(std::int64_t seconds) {
    return QDateTime::fromSecsSinceEpoch(seconds, Qt::UTC).toString(QStringLiteral("yyyy-MM-dd"));
}

QString table(const HtmlRow& head, const std::vector<HtmlRow>& rows) {
    QString out = QStringLiteral("<table width=\"100%\" cellspacing=\"0\" cellpadding=\"4\"><thead><tr>");
    for (const auto& cell : head) out += QStringLiteral("<th align=\"left\">%1</th>").arg(cell);
    out += QStringLiteral("</tr></thead>");
    for (const HtmlRow& row : rows) {
        out += QStringLiteral("<tr>");
        for (const auto& cell : row) out += QStringLiteral("<td valign=\"top\">%1</td>").arg(cell);
        out += QStringLiteral("</tr>");
    }
    return out + QStringLiteral("</table>");
}

QString readingText(const Reading* r) {
    if (r == nullptr || std::isnan(r->value)) return QStringLiteral("–");
    if (r->beyond || !std::isfinite(r->value)) return esc(shownText({r->value, r->beyond}, r->unit));
    return esc(earnedText(r->value, r->uncertainty, r->unit));
}

}  // namespace ombrek
