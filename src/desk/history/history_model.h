#pragma once

#include <QString>
#include <vector>

#include "station/history.h"

namespace ombrek {

/// What the History page shows.
struct HistoryView {
    QString now, why;
    struct Row {
        QString day, time;  ///< "Thu 26 Nov 2026", "21:14"
        HistoryLine line;
    };
    std::vector<Row> rows;  ///< that fit, newest first
    std::size_t all = 0;    ///< before the filter
};

/// @param words  all of them must be found: a part, a station, a day ("26 nov", "2026-11-26"), any word of
/// the line; upper or lower case
HistoryView historyView(const Judged& judged, const QString& words);

}  // namespace ombrek
