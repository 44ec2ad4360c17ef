#include "desk/board/free_evenings.h"

#include <QDateTime>
#include <QLocale>
#include <QRegularExpression>
#include <algorithm>

namespace ombrek {
namespace {

struct Weekly {
    std::vector<int> days;  ///< Monday is 1
    QTime at;
    double minutes = 120;
};

int dayOf(const QString& word) {
    for (int day = 1; day <= 7; ++day) {
        for (const QLocale& locale : {QLocale(QLocale::English), QLocale()}) {
            if (word.size() >= 2 &&
                locale.dayName(day, QLocale::LongFormat).startsWith(word, Qt::CaseInsensitive))
                return day;
        }
    }
    return 0;
}

Result<Weekly> readWeekly(const QString& text) {
    static const QRegularExpression blanks(QStringLiteral("\\s+"));
    static const QRegularExpression length(QStringLiteral("^(\\d+(?:[.,]\\d+)?)(h|min)$"));
    Weekly out;
    for (const QString& word : text.split(blanks, Qt::SkipEmptyParts)) {
        const auto hit = length.match(word);
        if (const int day = dayOf(word); day > 0) {
            out.days.push_back(day);
        } else if (const QTime time = QTime::fromString(word, QStringLiteral("H:mm")); time.isValid()) {
            out.at = time;
        } else if (hit.hasMatch()) {
            const double number = hit.captured(1).replace(QChar(','), QChar('.')).toDouble();
            out.minutes = hit.captured(2) == QStringLiteral("h") ? number * 60 : number;
        } else {
            return problem("evenings",
                           "\"" + word.left(30).toStdString() +
                               "\" is no day, time or length; write: Tue Thu 20:00 2h, Sat 14:00 3h.");
        }
    }
    if (out.days.empty() || !out.at.isValid() || out.minutes < 10 || out.minutes > 960)
        return problem("evenings",
                       "An evening wants its days, its time and 10 minutes to 16 hours: Tue 20:00 2h.");
    return out;
}

}  // namespace

Result<std::vector<FreeTime>> freeEvenings(const QString& pattern, std::int64_t now, int weeks) {
    const QDateTime today = QDateTime::fromSecsSinceEpoch(now);
    std::vector<FreeTime> out;
    for (const QString& part : pattern.split(QChar(','), Qt::SkipEmptyParts)) {
        const auto weekly = readWeekly(part);
        if (!weekly) return tl::make_unexpected(weekly.error());
        for (int day = 0; day < weeks * 7; ++day) {
            const QDate date = today.date().addDays(day);
            if (std::find(weekly->days.begin(), weekly->days.end(), date.dayOfWeek()) == weekly->days.end())
                continue;
            const std::int64_t start = QDateTime(date, weekly->at).toSecsSinceEpoch();
            if (start >= now) out.push_back({start, weekly->minutes});
        }
    }
    if (out.empty()) return problem("evenings", "Say when the bench is free: Tue Thu 20:00 2h.");
    std::sort(out.begin(), out.end(), [](const FreeTime& a, const FreeTime& b) { return a.start < b.start; });
    return out;
}

}  // namespace ombrek
