#pragma once

#include <QString>
#include <vector>

#include "book/book.h"
#include "judged/history.h"

namespace ombrek {

/// What the History page shows.
struct HistoryView {
    QString now, why;
    QString reach;  ///< how far back things can be taken back
    struct Row {
        QString day, time;  ///< "Thu 26 Nov 2026", "21:14"
        HistoryLine line;
    };
    std::vector<Row> rows;  ///< that fit, newest first
    std::size_t all = 0;    ///< before the filter
};

/// @param words  all of them must be found: a part, a station, a day ("26 nov", "2026-11-26"), any word of
/// the line; upper or lower case
/// @param oldest  the oldest action that can be taken back
HistoryView historyView(const Judged& judged, const QString& words,
                        const std::optional<Book::Undoable>& oldest = std::nullopt);

/// The designator that was typed, in the kit's own letters: "q5" is "Q5". Empty when the kit has none such.
std::string refOf(const Kit& kit, const QString& typed);

/// What is said when a repair is noted: "Q5 is mended. To be measured again: Q5 final, Power, 6 more."
QString repairTold(const Kit& kit, const Repair& repair);

}  // namespace ombrek
