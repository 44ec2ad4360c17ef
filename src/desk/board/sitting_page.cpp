#include "desk/board/sitting_page.h"

#include <QPainter>
#include <algorithm>

#include "desk/board/free_evenings.h"
#include "desk/board/sitting_model.h"
#include "desk/pieces/card.h"
#include "desk/pieces/text.h"
#include "formats/calendar.h"
#include "station/board/work.h"

namespace ombrek {
namespace {

constexpr int kWeeks = 26;
constexpr double kMissed = 1.0 / 7;  ///< evenings that come to nothing (common practice)

}  // namespace

/// What a sitting wants in two columns, each thing with its reason; what finds no room is counted.
class WantView : public QWidget {
 public:
    using Group = SittingView::Group;
    WantView() { setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding); }

    void show(std::vector<Group> left, std::vector<Group> right) {
        columns_[0] = std::move(left);
        columns_[1] = std::move(right);
        QStringList words;
        for (const auto& column : columns_) {
            for (const Group& group : column) {
                words << group.heading;
                for (const auto& want : group.wants) words << qs(want.what);
            }
        }
        setAccessibleName(words.join(QStringLiteral(". ")));
        update();
    }

 protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        const double wide = (width() - 26) / 2.0;
        for (int c = 0; c < 2; ++c) paintColumn(p, columns_[c], QRectF(c * (wide + 26), 0, wide, height()));
    }

 private:
    /// Text wrapped to at most so many lines. @return where the next thing begins
    static double paintText(QPainter& p, const QRectF& room, const QString& text, int pixels, bool bold,
                            int lines = 2) {
        p.setFont(benchFont(pixels, bold));
        const QFontMetrics metrics(p.font());
        lines = std::min(lines, int(room.height()) / metrics.lineSpacing());
        if (lines < 1) return room.top();
        const QRect box(int(room.left()), int(room.top()), int(room.width()),
                        metrics.lineSpacing() * lines + 1);
        const QRect used = metrics.boundingRect(box, Qt::AlignLeft | Qt::TextWordWrap, text);
        p.drawText(box, Qt::AlignLeft | Qt::TextWordWrap, text);
        return room.top() + std::min(used.height(), box.height()) + 1;
    }

    void paintColumn(QPainter& p, const std::vector<Group>& groups, QRectF room) const {
        const Colours& c = coloursOf(*this);
        for (const Group& group : groups) {
            if (group.wants.empty()) continue;
            p.setPen(c.copper);
            room.setTop(paintText(p, room, group.heading, 14, true) + 2);
            for (std::size_t i = 0; i < group.wants.size(); ++i) {
                const auto& want = group.wants[i];
                p.setPen(c.ink);
                if (room.height() < 80 && i + 1 < group.wants.size()) {
                    paintText(p, room, QStringLiteral("and %1 more").arg(group.wants.size() - i), 14, false);
                    return;
                }
                room.setTop(paintText(p, room, qs(want.what), 15, false));
                p.setPen(c.soft);
                if (!want.why.empty()) room.setTop(paintText(p, room, qs(want.why), 13, false, 3));
                room.setTop(room.top() + 5);
            }
            room.setTop(room.top() + 8);
        }
    }

    std::vector<Group> columns_[2];
};

SittingPage::SittingPage(Session& session)
    : Page(session, QStringLiteral("This sitting")),
      return_(new Card),
      ahead_(new Card),
      pace_(new Card),
      finish_(new Card),
      wants_(new WantView) {
    return_->setTitle(QStringLiteral("Where you were"));
    ahead_->setTitle(QStringLiteral("What this sitting will want"));
    pace_->setTitle(QStringLiteral("Your pace"));
    finish_->setTitle(QStringLiteral("When it will be done"));
    ahead_->addBody(wants_, 1);
    ahead_->fillWithBody();
    big()->addWidget(return_, 0);
    big()->addWidget(ahead_, 1);
    side()->addWidget(pace_, 0);
    side()->addWidget(finish_, 1);
    setEnter("to-the-board", "to the board", [this] { emit left(); });
    addKey("how-long-this-sitting-is", "T", "T", "how long this sitting is to last", [this] {
        askText(QStringLiteral("Minutes, or hours as 2h"), QString(), [this](const QString& text) {
            const auto minutes = sittingMinutes(text);
            if (!minutes)
                return session_.say(QStringLiteral("A sitting lasts 10 minutes to 16 hours."),
                                    VerdictState::cannotTell);
            session_.kept(session_.book().prefer("sitting", std::to_string(int(*minutes))));
        });
    });
    addKey("free-evenings", "D", "D", "free evenings", [this] {
        askText(QStringLiteral("Free evenings"), qs(session_.book().preference("evenings")),
                [this](const QString& text) { setEvenings(text); });
    });
    addKey("write-them-as-a-calendar", "C", "C", "write them as a calendar", [this] { writeCalendar(); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

void SittingPage::begin(const QString&) { refresh(); }

void SittingPage::setEvenings(const QString& text) {
    if (const auto read = freeEvenings(text, wallClock(), kWeeks); !read)
        return session_.say(qs(read.error().sentence), VerdictState::cannotTell);
    session_.kept(session_.book().prefer("evenings", text.toStdString()));
}

/// The evenings it takes with odds of nine in ten, as appointments.
void SittingPage::writeCalendar() {
    if (!odds_ || evenings_.empty())
        return session_.say(QStringLiteral("First D: which evenings are free."), VerdictState::notDone);
    const std::size_t last = odds_->evening(0.9).value_or(evenings_.size() - 1);
    std::vector<Appointment> out;
    for (std::size_t i = 0; i <= last; ++i) {
        const FreeTime& e = evenings_[i];
        out.push_back({e.start, e.start + std::int64_t(e.minutes * 60), "Bench: " + session_.kit().name,
                       "Done by the end of it with odds of " +
                           std::to_string(int(std::lround(odds_->doneBy[i] * 100))) + " %.",
                       session_.kit().id + "-" + std::to_string(e.start) + "@ombrek"});
    }
    writeOut(kCalendarFile, qs(session_.kit().id) + QStringLiteral(".ics"),
             [out, now = wallClock()] { return QByteArray::fromStdString(calendarFile(out, now)); });
}

/// Simulate the schedules off the window's thread, once for each change of what is asked.
void SittingPage::reckon() {
    const std::string pattern = session_.book().preference("evenings");
    const auto left = workLeft(session_.kit(), session_.build());
    const QString asked = QStringLiteral("%1 %2 %3")
                              .arg(session_.build().id)
                              .arg(qs(pattern))
                              .arg(session_.build().steps.size());
    if (asked == asked_ || work().running()) return;
    asked_ = asked;
    odds_.reset();
    const auto evenings = freeEvenings(qs(pattern), wallClock(), kWeeks);
    evenings_ = evenings ? *evenings : std::vector<FreeTime>();
    if (evenings_.empty() || left.empty()) return;
    work().start<std::optional<FinishOdds>>(
        [pace = Pace(workDone(session_.kit(), session_.build())), left,
         free = evenings_](const LongWork::Progress& go) {
            return finishOdds(pace, left, free, kMissed, kSchedules, 1, go);
        },
        [this](std::optional<FinishOdds> odds) {
            odds_ = std::move(odds);
            showOdds();
        });
}

void SittingPage::showOdds() {
    const OddsView v = oddsView(evenings_, odds_, session_.book().preference("evenings"));
    finish_->setFacts(v.facts);
    finish_->setText(v.text);
}

void SittingPage::refresh() {
    if (!session_.hasBuild()) return;
    const std::string asked = session_.book().preference("sitting");
    SittingView v =
        sittingView(session_.judged(), asked.empty() ? 120 : std::max(10, std::atoi(asked.c_str())));
    setNow(v.now, v.why);
    return_->setVisible(!v.back.isEmpty());
    return_->setText(v.back);
    wants_->show(std::move(v.left), std::move(v.right));
    ahead_->setVisible(v.ahead);
    pace_->setFacts(v.pace);
    reckon();
    showOdds();
}

}  // namespace ombrek
