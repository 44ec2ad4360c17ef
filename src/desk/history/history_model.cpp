#include "desk/history/history_model.h"

#include <QDateTime>
#include <QLocale>

namespace ombrek {
namespace {

bool fits(const HistoryView::Row& row, const QStringList& words) {
    const QString text =
        QString::fromStdString(row.line.station + " " + row.line.what + " " + row.line.text) + QChar(' ') +
        row.day + QChar(' ') + QDateTime::fromSecsSinceEpoch(row.line.at).date().toString(Qt::ISODate);
    const QStringList have = text.split(QChar(' '), Qt::SkipEmptyParts);
    // Each word begins a word of the line, so that C1 is not C11's end but R1 finds R14 too while one types.
    return std::all_of(words.begin(), words.end(), [&](const QString& word) {
        return std::any_of(have.begin(), have.end(),
                           [&](const QString& h) { return h.startsWith(word, Qt::CaseInsensitive); });
    });
}

}  // namespace

HistoryView historyView(const Judged& judged, const QString& words) {
    HistoryView out;
    const QStringList wanted = words.split(QChar(' '), Qt::SkipEmptyParts);
    for (HistoryLine& line : history(judged)) {
        const QDateTime at = QDateTime::fromSecsSinceEpoch(line.at);
        HistoryView::Row row{QLocale::c().toString(at.date(), QStringLiteral("ddd d MMM yyyy")),
                             at.time().toString(QStringLiteral("HH:mm")), std::move(line)};
        ++out.all;
        if (fits(row, wanted)) out.rows.push_back(std::move(row));
    }
    out.now =
        QStringLiteral("What happened to %1, newest first.").arg(QString::fromStdString(judged.kit().name));
    out.why = QStringLiteral("F types a part, a station or a day; Esc or Enter comes back to the keys.");
    return out;
}

}  // namespace ombrek
