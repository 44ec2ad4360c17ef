#include "desk/air/repairs_page.h"

#include <algorithm>

#include "desk/history/history_model.h"
#include "desk/history/time_line.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "formats/calendar.h"
#include "report/photo_file.h"
#include "report/report_html.h"
#include "station/rests_on.h"
#include "station/subjects.h"

namespace ombrek {
namespace {

QString nameOf(const Repair& r) {
    const QString what = qs(r.noticed.empty() ? r.found : r.noticed);
    return r.ref.empty() ? what : qs(r.ref) + (what.isEmpty() ? QString() : QStringLiteral(": ") + what);
}

QString stateWord(const RepairState& s) {
    if (s.repair->open()) return QStringLiteral("open");
    return s.closed() ? QStringLiteral("closed") : QStringLiteral("%1 to show again").arg(s.open());
}

}  // namespace

RepairsPage::RepairsPage(Session& session)
    : Page(session, QStringLiteral("Repairs")),
      list_(new StateList),
      again_(new StateList),
      repair_(new Card),
      shown_(new Card),
      time_(new Card),
      line_(new TimeLine) {
    auto* sheet = new Card;
    sheet->setTitle(QStringLiteral("Troubles and repairs, newest first"));
    sheet->addBody(list_, 1);
    sheet->fillWithBody();
    big()->addWidget(sheet, 2);
    shown_->setTitle(QStringLiteral("To be shown again: before, and since"));
    shown_->addBody(again_, 1);
    shown_->fillWithBody();
    big()->addWidget(shown_, 3);
    time_->setTitle(QStringLiteral("From the bag to today"));
    time_->addBody(line_, 0);
    big()->addWidget(time_, 0);
    side()->addWidget(repair_, 1);
    addKeys();
    connect(list_, &StateList::picked, this, [this](int row) {
        at_ = row;
        showRow();
    });
}

void RepairsPage::addKeys() {
    setEnter("show-the-next-again", "show the next again", [this] { goOn(); });
    addKey("something-is-wrong", "N", "N", "something is wrong", [this] { notice(); });
    addKey("there-again", "S", "S", "there again", [this] { seenAgain(); });
    addKey("it-is-mended", "M", "M", "mended", [this] { askMended(); });
    addKey("a-repair", "Down", "Up Down", "a repair", [this] { choose(1); });
    addRare("the-repair-before", "Up", "the repair before", [this] { choose(-1); });
    addKey("photograph", "V", "V", "a photograph", [this] { photograph(); });
    addKey("check-again-each-year", "K", "K", "check again each year", [this] { askRecheck(); });
    addKey("line-of-time", "H", "H", "line of time", [this] {
        const RepairState* s = inHand();
        emit wants(QStringLiteral("history"), s != nullptr ? qs(s->repair->ref) : QString());
    });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

const RepairState* RepairsPage::inHand() const {
    return at_ >= 0 && at_ < int(states_.size()) ? &states_[std::size_t(at_)] : nullptr;
}

/// What waits to be shown again is in hand first.
void RepairsPage::begin(const QString&) {
    at_ = 0;
    refresh();
    const auto waits = std::find_if(states_.begin(), states_.end(),
                                    [](auto& s) { return !s.repair->open() && !s.closed(); });
    if (waits != states_.end()) at_ = int(waits - states_.begin());
    refresh();
}

void RepairsPage::notice() {
    if (!session_.hasBuild()) return;
    askText(QStringLiteral("What do you see, hear or read?"), QString(), [this](const QString& text) {
        Repair r;
        r.noticed = text.simplified().toStdString();
        at_ = 0;
        if (session_.kept(session_.book().noticed(r)))
            session_.say(QStringLiteral("Kept as open. S when it is there again, M when it is mended."));
    });
}

void RepairsPage::seenAgain() {
    const RepairState* s = inHand();
    if (s == nullptr || !s->repair->open())
        return session_.say(QStringLiteral("Take an open trouble in hand, or N writes one down."),
                            VerdictState::cannotTell);
    askText(QStringLiteral("There again: what did you do then?"), QString(),
            [this, id = s->repair->id](const QString& text) {
                session_.kept(session_.book().sawAgain(id, text.simplified().toStdString()));
            });
}

void RepairsPage::askMended() {
    if (!session_.hasBuild()) return;
    const RepairState* s = inHand();
    const Repair base = s != nullptr && s->repair->open() ? *s->repair : Repair();
    askText(QStringLiteral("Which part or coil"), qs(base.ref), [this, base](const QString& typed) {
        Repair r = base;
        r.ref = refOf(session_.kit(), typed);
        if (r.ref.empty())
            return session_.say(QStringLiteral("This kit has no part or coil %1: type its designator.")
                                    .arg(typed.simplified()),
                                VerdictState::cannotTell);
        askFound(r);
    });
}

void RepairsPage::askFound(const Repair& repair) {
    askText(QStringLiteral("%1: what was found").arg(qs(repair.ref)), QString(),
            [this, repair](const QString& typed) {
                Repair r = repair;
                r.found = typed.simplified().toStdString();
                askDone(r);
            });
}

void RepairsPage::askDone(const Repair& repair) {
    askText(QStringLiteral("%1: what was done").arg(qs(repair.ref)), QString(),
            [this, repair](const QString& typed) {
                Repair r = repair;
                r.done = typed.simplified().toStdString();
                askParts(r);
            });
}

/// What went in and from where; "-" for nothing. What is promised from a drawer is named.
void RepairsPage::askParts(const Repair& repair) {
    QString from;
    for (const Promise& p : session_.book().promises()) {
        if (p.build != session_.build().id || p.ref != repair.ref) continue;
        for (const StockLine& line : session_.book().stock()) {
            if (line.id == p.stock)
                from = QStringLiteral("%1 from drawer %2").arg(qs(line.what), qs(line.drawer));
        }
    }
    askText(QStringLiteral("%1: what was put in, from where; - for nothing").arg(qs(repair.ref)),
            from.isEmpty() ? QStringLiteral("-") : from, [this, repair](const QString& typed) {
                Repair r = repair;
                const QString parts = typed.simplified();
                if (parts != QStringLiteral("-")) r.parts = parts.toStdString();
                r.who = session_.book().preference("who");
                r.again = keptSubjects(shownAgain(session_.kit(), r.ref));
                at_ = 0;
                if (session_.kept(session_.book().repaired(r)))
                    session_.say(repairTold(session_.kit(), r), VerdictState::doubtful);
            });
}

void RepairsPage::photograph() {
    const RepairState* s = inHand();
    if (s == nullptr)
        return session_.say(QStringLiteral("There is no repair to keep it with."), VerdictState::cannotTell);
    askToOpen(this, kPictureFile,
              [this, step = photoStep(*s->repair), after = !s->repair->open()](const QString& file) {
                  const bool begun = work().start<Result<QByteArray>>(
                      [file](const LongWork::Progress&) { return readPhoto(file); },
                      [this, step, after](Result<QByteArray> bytes) {
                          if (!bytes) return session_.say(qs(bytes.error().text()), VerdictState::cannotTell);
                          if (session_.kept(session_.book().keepPhoto(step, after, bytes->toStdString())))
                              session_.say(
                                  QStringLiteral("Kept with the repair, %1 kB.").arg(bytes->size() / 1000));
                      });
                  if (!begun) session_.say(QStringLiteral("Another picture is still being read."));
              });
}

/// Once a year: the reference, and power with its harmonics (common practice). For the desktop's calendar.
void RepairsPage::askRecheck() {
    if (!session_.hasBuild()) return;
    constexpr std::int64_t kYear = 365LL * 86400, kHour = 3600;
    const std::int64_t now = wallClock(), first = now - now % 86400 + kYear + 19 * kHour;
    const std::string name = session_.kit().name, id = session_.kit().id;
    std::vector<Appointment> all{{first, first + kHour, name + ": check the reference again",
                                  "The counter against a known frequency, then the rig's own.",
                                  id + "-reference", true}};
    if (session_.kit().ratings.transmits())
        all.push_back({first + kHour, first + 2 * kHour, name + ": check power and harmonics again",
                       "Into the dummy load, at the rated supply, every band.", id + "-power", true});
    writeOut(kCalendarFile, qs(id) + QStringLiteral("-again.ics"),
             [all, now] { return QByteArray::fromStdString(calendarFile(all, now)); });
}

/// To the station of the first thing that is not shown again.
void RepairsPage::goOn() {
    const RepairState* s = inHand();
    if (s == nullptr) return;
    const auto open =
        std::find_if(s->again.begin(), s->again.end(), [](const AgainLine& l) { return !l.shown; });
    if (open == s->again.end() || open->station == Station::none)
        return session_.say(QStringLiteral("Nothing of this repair waits to be shown again."));
    const bool banded = open->station == Station::proof;
    emit wants(qs(idOf(open->station)), banded ? qs(open->subject.band) : qs(open->subject.id));
}

void RepairsPage::choose(int by) {
    const int count = int(states_.size());
    if (count == 0) return;
    at_ = (at_ + by + count) % count;
    showRow();
}

void RepairsPage::showRow() {
    std::vector<StateLine> lines, again;
    for (int i = 0; i < int(states_.size()); ++i) {
        const RepairState& s = states_[std::size_t(i)];
        const VerdictState state = s.repair->open() ? VerdictState::fail
                                   : s.closed()     ? VerdictState::pass
                                                    : VerdictState::notDone;
        lines.push_back({state,
                         dayOf(s.repair->open() ? s.repair->seen : s.repair->at) + QStringLiteral("  ") +
                             nameOf(*s.repair),
                         stateWord(s), i == at_});
    }
    list_->setLines(std::move(lines));
    const RepairState* s = inHand();
    if (s == nullptr) {
        again_->setLines({});
        repair_->setTitle(QStringLiteral("No repair yet"));
        repair_->setFacts({});
        repair_->setText(
            QStringLiteral("N writes down what is wrong; it stays open with every time it is seen (S). M "
                           "says what was mended: Ombrek then asks at the stations for what rested on it, "
                           "and closes the repair when all of it is shown."));
        return;
    }
    for (const AgainLine& l : s->again) {
        QString right = (l.before.empty() ? QStringLiteral("–") : qs(l.before)) + QStringLiteral("  →  ") +
                        (l.after.empty() ? QStringLiteral("–") : qs(l.after));
        if (!l.change.empty()) right += QStringLiteral("  (") + qs(l.change) + QChar(')');
        again.push_back({l.shown ? VerdictState::pass : l.state, qs(l.title), right});
    }
    shown_->setVisible(!again.empty());
    again_->setLines(std::move(again));
    const Repair& r = *s->repair;
    repair_->setTitle(r.ref.empty() ? QStringLiteral("Open trouble") : qs(r.ref));
    std::vector<Fact> facts;
    const auto add = [&](const char* name, const QString& value) {
        if (!value.isEmpty()) facts.push_back({QString::fromUtf8(name), value});
    };
    add("Noticed", r.noticed.empty()
                       ? QString()
                       : qs(r.noticed) + (r.seen > 0 ? QStringLiteral(", ") + dayOf(r.seen) : QString()));
    add("Found", qs(r.found));
    add("Done", qs(r.done));
    add("Put in", qs(r.parts));
    add("By", qs(r.who));
    const auto photos =
        std::count_if(session_.build().photos.begin(), session_.build().photos.end(),
                      [&](const PhotoLine& p) { return repairOf(session_.build(), p) == &r; });
    if (photos > 0) add("Photographs", QString::number(photos));
    add("State", stateWord(*s));
    repair_->setFacts(facts);
    QString seen;
    for (const Sighting* sighting : s->sightings)
        seen += dayOf(sighting->at) + QStringLiteral(": ") + qs(sighting->text) + QChar('\n');
    repair_->setText(seen.isEmpty() ? QString() : QStringLiteral("There again:\n") + seen);
}

void RepairsPage::refresh() {
    if (!session_.hasBuild()) return;
    states_ = repairStates(session_.judged());
    at_ = std::clamp(at_, 0, std::max(0, int(states_.size()) - 1));
    const auto open = std::count_if(states_.begin(), states_.end(), [](auto& s) { return s.repair->open(); });
    const auto waits = std::count_if(states_.begin(), states_.end(),
                                     [](auto& s) { return !s.repair->open() && !s.closed(); });
    if (states_.empty())
        setNow(QStringLiteral("Nothing was mended yet."),
               QStringLiteral("N when something is wrong, M when something was mended."));
    else if (waits > 0)
        setNow(
            QStringLiteral("Show again what the repair made doubtful."),
            QStringLiteral(
                "Enter goes to the station of the next one; the repair closes when all of it is in order."));
    else if (open > 0)
        setNow(QStringLiteral("%1 not mended yet.")
                   .arg(open == 1 ? QStringLiteral("One trouble is")
                                  : QStringLiteral("%1 troubles are").arg(open)),
               QStringLiteral("S when it is there again, M when it is mended."));
    else
        setNow(QStringLiteral("Every repair is closed."),
               QStringLiteral("N when something is wrong, M when something was mended."));
    line_->show(history(session_.judged()), session_.build().started, wallClock(), 0);
    showRow();
}

}  // namespace ombrek
