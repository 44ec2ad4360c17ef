#include "desk/history/history_model.h"

#include <QDateTime>
#include <QLocale>
#include <algorithm>

#include "station/rests_on.h"
#include "station/subjects.h"

namespace ombrek {
namespace {

bool fits(const HistoryView::Row& row, const QStringList& words) {
    const QString text = QString::fromStdString(std::string(word(row.line.station)) + " " + row.line.what +
                                                " " + row.line.text) +
                         QChar(' ') + row.day + QChar(' ') +
                         QDateTime::fromSecsSinceEpoch(row.line.at).date().toString(Qt::ISODate);
    const QStringList have = text.split(QChar(' '), Qt::SkipEmptyParts);
    // Each word begins a word of the line, so that C1 is not C11's end but R1 finds R14 too while one types.
    return std::all_of(words.begin(), words.end(), [&](const QString& word) {
        return std::any_of(have.begin(), have.end(),
                           [&](const QString& h) { return h.startsWith(word, Qt::CaseInsensitive); });
    });
}

/// As far back as everything can be taken back.
QString reachOf(const std::optional<Book::Undoable>& oldest) {
    if (!oldest) return QStringLiteral("There is nothing to take back.");
    const QDateTime at = QDateTime::fromSecsSinceEpoch(oldest->at);
    return QStringLiteral("Z takes back, one by one, to %1 (\"%2\").")
        .arg(QLocale::c().toString(at, QStringLiteral("d MMM yyyy, HH:mm")),
             QString::fromStdString(oldest->name));
}

}  // namespace

std::string refOf(const Kit& kit, const QString& typed) {
    const QString wanted = typed.simplified();
    const auto same = [&](const std::string& ref) {
        return QString::fromStdString(ref).compare(wanted, Qt::CaseInsensitive) == 0;
    };
    for (const Part& part : kit.parts) {
        if (same(part.ref)) return part.ref;
    }
    for (const Coil& coil : kit.coils) {
        if (same(coil.ref)) return coil.ref;
    }
    return "";
}

QString repairTold(const Kit& kit, const Repair& repair) {
    const std::vector<Subject> again = shownAgain(kit, repair.ref);
    QString out = QStringLiteral("%1 is mended. ").arg(QString::fromStdString(repair.ref));
    if (again.empty()) return out + QStringLiteral("Nothing that is read rests on it.");
    constexpr std::size_t kNamed = 3;
    QStringList named;
    for (std::size_t i = 0; i < std::min(kNamed, again.size()); ++i)
        named += QString::fromStdString(titleOf(kit, again[i]));
    if (again.size() > kNamed) named += QStringLiteral("%1 more").arg(again.size() - kNamed);
    return out + QStringLiteral("To be measured again: %1.").arg(named.join(QStringLiteral(", ")));
}

HistoryView historyView(const Judged& judged, const QString& words,
                        const std::optional<Book::Undoable>& oldest) {
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
    out.reach = reachOf(oldest);
    return out;
}

}  // namespace ombrek
