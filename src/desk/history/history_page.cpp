#include "desk/history/history_page.h"

#include "desk/history/time_line.h"

#include "desk/pieces/card.h"
#include "desk/pieces/find_field.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"

namespace ombrek {

HistoryPage::HistoryPage(Session& session)
    : Page(session, QStringLiteral("History")),
      find_(new FindField(QStringLiteral("Find in the history"), QStringLiteral("T1 winding 26 nov"))),
      found_(textLabel(14, false, "soft")),
      time_(new TimeLine),
      list_(new StateList),
      row_(new Card) {
    big()->addWidget(find_);
    big()->addWidget(found_);
    big()->addWidget(time_);
    auto* sheet = new Card;
    sheet->addBody(list_, 1);
    sheet->fillWithBody();
    big()->addWidget(sheet, 1);
    side()->addWidget(row_, 1);
    setEnter("station", "go to its station", [this] {
        if (at_ >= int(view_.rows.size()) || view_.rows[std::size_t(at_)].line.station == Station::none)
            return;
        emit wants(qs(idOf(view_.rows[std::size_t(at_)].line.station)), QString());
    });
    addKey("find", "F", "F", "find", [this] { find_->setFocus(); });
    addKey("line", "Down", "Up Down", "a line", [this] { choose(1); });
    addKey("repair", "R", "R", "repairs", [this] { emit wants(QStringLiteral("repairs"), QString()); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    addRare("line-before", "Up", "the line before", [this] { choose(-1); });
    connect(find_, &FindField::left, this, [this] { setFocus(); });
    connect(find_, &QLineEdit::textChanged, this, [this] {
        at_ = 0;
        refresh();
    });
    connect(list_, &StateList::picked, this, [this](int row) {
        at_ = row;
        showRow();
    });
}

void HistoryPage::begin(const QString& about) {
    at_ = 0;
    find_->setText(about);
}

void HistoryPage::refresh() {
    if (!session_.hasBuild()) {
        view_ = {};
        setNow(QStringLiteral("Nothing has happened yet: begin a kit first."),
               QStringLiteral("Esc goes back."));
    } else {
        view_ = historyView(session_.judged(), find_->text(), session_.book().oldestUndo());
        setNow(view_.now, view_.why);
    }
    at_ = std::clamp(at_, 0, std::max(0, int(view_.rows.size()) - 1));
    found_->setText(QStringLiteral("%L1 of %L2. %3").arg(view_.rows.size()).arg(view_.all).arg(view_.reach));
    showRow();
}

void HistoryPage::showRow() {
    std::vector<HistoryLine> lines;
    for (const auto& row : view_.rows) lines.push_back(row.line);
    time_->show(lines, session_.build().started, wallClock(),
                at_ < int(view_.rows.size()) ? view_.rows[std::size_t(at_)].line.at : 0);
    list_->setLines(
        int(view_.rows.size()),
        [this, at = at_](int row) {
            const auto& [day, time, line] = view_.rows[std::size_t(row)];
            return StateLine{line.state,
                             qs(line.what) + QStringLiteral(": ") + qs(line.text) +
                                 (line.retired ? QStringLiteral(" (changed since)") : QString()),
                             day.section(QChar(' '), 1, 2) + QStringLiteral(", ") + time, row == at, false};
        },
        at_);
    if (view_.rows.empty()) {
        row_->setTitle(QStringLiteral("Nothing fits"));
        row_->setFacts({});
        row_->setText(QString());
        return;
    }
    const auto& [day, time, line] = view_.rows[std::size_t(at_)];
    row_->setTitle(qs(line.what));
    std::vector<Card::Fact> facts{{QStringLiteral("Day"), day}, {QStringLiteral("Time"), time}};
    if (line.station != Station::none) facts.push_back({QStringLiteral("Station"), qs(word(line.station))});
    row_->setFacts(facts);
    const QString text = qs(line.text);
    row_->setText(text.left(1).toUpper() + text.mid(1) + QChar('.') +
                  (line.retired
                       ? QStringLiteral("\nIt was changed since: this reading tells of what is no more.")
                       : QString()));
}

void HistoryPage::choose(int by) {
    const int count = int(view_.rows.size());
    if (count == 0) return;
    at_ = (at_ + by + count) % count;
    showRow();
}

}  // namespace ombrek
