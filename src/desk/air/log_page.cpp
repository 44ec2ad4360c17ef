#include "desk/air/log_page.h"

#include <algorithm>

#include "desk/air/azimuthal_map.h"
#include "desk/pieces/card.h"
#include "desk/pieces/find_field.h"
#include "desk/pieces/refused_words.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "formats/contact_adif.h"
#include "formats/contact_text.h"
#include "formats/files.h"
#include "formats/heard_csv.h"
#include "look/plot.h"

namespace ombrek {

LogPage::LogPage(Session& session)
    : Page(session, QStringLiteral("Log")),
      find_(new FindField(QStringLiteral("Find in the log"), QStringLiteral("QX1 40m 2026-11"))),
      found_(textLabel(14, false, "soft")),
      list_(new StateList),
      contact_(new Card),
      mapCard_(new Card),
      heard_(new Card),
      plot_(new Plot),
      map_(new AzimuthalMap(session.tables().coast)) {
    big()->addWidget(find_);
    big()->addWidget(found_);
    auto* sheet = new Card;
    sheet->addBody(list_, 1);
    sheet->fillWithBody();
    big()->addWidget(sheet, 3);
    mapCard_->addBody(map_, 1);
    mapCard_->fillWithBody();
    big()->addWidget(mapCard_, 3);
    side()->addWidget(contact_, 0);
    heard_->setTitle(QStringLiteral("Who hears the rig"));
    heard_->addBody(plot_, 1);
    heard_->fillWithBody();
    side()->addWidget(heard_, 1);
    addKeys();
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

void LogPage::addKeys() {
    setEnter("change-the-contact", "change it", [this] { change(); });
    addKey("add-a-contact", "A", "A", "add a contact", [this] {
        askContact(
            beginContact(*session_.log(), session_.hasBuild() ? &session_.judged() : nullptr, wallClock()),
            QString());
    });
    addKey("find", "F", "F", "find", [this] { find_->setFocus(); });
    addKey("line", "Down", "Up Down", "a line", [this] { choose(1); });
    addKey("with-this-rig", "R", "R", "with this rig, or not", [this] { toggleRig(); });
    addKey("take-in-a-log", "I", "I", "take in ADIF",
           [this] { askToOpen(this, kLogFile, [this](const QString& f) { takeIn(f); }); });
    addKey("give-out-the-log", "X", "X", "write ADIF", [this] { giveOut(); });
    addKey("take-in-reports", "V", "V", "reports of receivers",
           [this] { askToOpen(this, kHeardFile, [this](const QString& f) { takeReports(f); }); });
    addKey("back", "Esc", "Esc", "back", [this] {
        if (working()) return work().stop();
        emit left();
    });
    addRare("the-line-before", "Up", "the line before", [this] { choose(-1); });
    addRare("take-the-contact-out", "Delete", "take the contact out", [this] {
        if (const Contact* c = inHand()) session_.kept(session_.book().removeContact(c->id));
    });
}

/// What the rig was proved to give [W]; 0: nothing.
double LogPage::wattsOfRig() const {
    if (!session_.hasBuild()) return 0;
    const auto& power = session_.judged().proof().power;
    return power ? power->watts : 0;
}

const Contact* LogPage::inHand() const {
    const bool there = log_ && at_ >= 0 && at_ < int(view_.rows.size());
    return there ? &log_->contacts[view_.rows[std::size_t(at_)]] : nullptr;
}

void LogPage::refresh() {
    const Contact* before = inHand();
    const std::int64_t id = before != nullptr ? before->id : 0;
    log_ = session_.log();
    view_ = logView(*log_, find_->text(), rig(), std::size_t(-1));
    const auto same = std::find_if(view_.rows.begin(), view_.rows.end(),
                                   [&](std::size_t i) { return log_->contacts[i].id == id; });
    at_ = same == view_.rows.end() ? 0 : int(same - view_.rows.begin());
    setNow(view_.now, view_.why);
    say(found_, view_.found);
    found_->setVisible(!view_.found.isEmpty());
    showRow();
}

void LogPage::showRow() {
    const Contact* c = inHand();
    list_->setLines(
        int(view_.rows.size()),
        [log = log_, rows = view_.rows, at = at_, rig = rig()](int row) {
            return logLine(log->contacts[rows[std::size_t(row)]], rig, row == at);
        },
        at_);
    contact_->setTitle(c != nullptr ? qs(c->call) : QStringLiteral("No contact yet"));
    contact_->setFacts(c != nullptr ? contactFacts(*c, ownLocator(), rig() != 0 && c->build == rig())
                                    : std::vector<Fact>());
    contact_->setText(c != nullptr
                          ? QString()
                          : QStringLiteral("A, then for example:\n\nQX1ABC 599 579 Tom JO62qm, Kiel\n\n"
                                           "A frequency as 7.031, a band as 40m, a power as 3W or a time as "
                                           "18:30 may stand anywhere behind the callsign."));
    auto dots = view_.dots;
    if (c != nullptr) {
        if (const auto place = placeOfLocator(c->locator)) dots.push_back({*place, false, true});
    }
    map_->show(placeOfLocator(ownLocator().toStdString()), dots);
    const PlotData heard = heardPlot(*log_, rig(), ownLocator());
    plot_->setVisible(!heard.series.empty());
    if (!heard.series.empty()) plot_->show(heard);
    heard_->setText(heardSentence(*log_, rig(), ownLocator(), wattsOfRig()));
}

Session::Entered LogPage::understand(const Contact& known, const QString& line) const {
    Session::Entered out;
    const auto read = readContactLine(line.toStdString(), known, wallClock());
    if (!read) {
        out.trouble = qs(read.error().sentence);
        return out;
    }
    out.shows = qs(contactLine(*read));
    const auto twice = std::find_if(log_->contacts.begin(), log_->contacts.end(), [&](const Contact& c) {
        return c.id != read->id && sameContactKey(c) == sameContactKey(*read);
    });
    if (twice != log_->contacts.end())
        out.doubt =
            QStringLiteral("%1 is in the log already in this minute, on this band.").arg(qs(read->call));
    else if (read->band.empty() && read->frequency == 0)
        out.doubt = QStringLiteral("No band is said.");
    return out;
}

void LogPage::askContact(const Contact& known, const QString& line) {
    wantReading(
        known.id != 0 ? QStringLiteral("Change it") : QStringLiteral("Call, sent, received"),
        [this, known](const QString& text) { return understand(known, text); },
        [this, known](const QString& text) { keepTyped(known, text); });
    offer(line);
    wantNothing();
}

void LogPage::keepTyped(const Contact& known, const QString& line) {
    const auto read = readContactLine(line.toStdString(), known, wallClock());
    if (!read) return session_.say(qs(read.error().sentence), VerdictState::cannotTell);
    const bool kept = session_.kept(read->id != 0 ? session_.book().changeContact(*read)
                                                  : session_.book().addContact(*read));
    if (!kept || read->id != 0) return;
    const bool first =
        read->build != 0 && std::none_of(log_->contacts.begin(), log_->contacts.end(), [&](const Contact& c) {
            return c.build == read->build && !(c.call == read->call && c.at == read->at);
        });
    session_.say(first
                     ? QStringLiteral("%1 is in the log: the first contact of this rig.").arg(qs(read->call))
                     : QStringLiteral("%1 is in the log.").arg(qs(read->call)),
                 VerdictState::pass);
}

void LogPage::change() {
    if (const Contact* c = inHand()) askContact(*c, qs(contactLine(*c)));
}

void LogPage::toggleRig() {
    const Contact* c = inHand();
    if (c == nullptr) return;
    if (rig() == 0) return session_.say(QStringLiteral("No kit is in hand: begin one first."));
    Contact changed = *c;
    changed.build = c->build == rig() ? 0 : rig();
    session_.kept(session_.book().changeContact(changed));
}

bool LogPage::openFile(const QString& path) {
    takeIn(path);
    return true;
}

bool LogPage::takeText(const QString& text) {
    takeBytes([bytes = text.toStdString()]() -> Result<std::string> { return bytes; });
    return true;
}

void LogPage::takeIn(const QString& file) {
    takeBytes([path = file.toStdString()] { return readFile(path, kLargestLog); });
}

/// Read a log and keep what is new of it, all off the window's thread; one action.
void LogPage::takeBytes(std::function<Result<std::string>()> read) {
    std::map<std::string, std::int64_t> rigs;
    for (const auto& b : session_.book().builds()) rigs.emplace(b.kitName, b.id);
    const bool begun = work().start<Result<LogTaken>>(
        [this, read = std::move(read), rigs,
         path = session_.book().path()](const LongWork::Progress& progress) -> Result<LogTaken> {
            const auto bytes = read();
            if (!bytes) return tl::make_unexpected(bytes.error());
            const auto there = Book::readContacts(path);
            if (!there) return tl::make_unexpected(there.error());
            const auto rigOf = [&](const std::string& name) {
                const auto hit = rigs.find(name);
                return hit == rigs.end() ? std::int64_t(0) : hit->second;
            };
            auto taken = takeAdif(*bytes, *there, rigOf, wallClock(),
                                  [&](double share) { return progress(share / 2); });
            if (!taken) return taken;
            const auto kept = session_.book().importContacts(
                taken->contacts, [&](double share) { return progress(0.5 + share / 2); });
            if (!kept) return tl::make_unexpected(kept.error());
            return taken;
        },
        [this](Result<LogTaken> taken) {
            if (!taken) return session_.say(qs(taken.error().text()), VerdictState::fail);
            session_.book().announce();
            const bool sound = taken->refused.empty() && taken->doubts.empty();
            session_.say(QStringLiteral("%L1 contacts taken in, %L2 were there already; Z takes them back.")
                                 .arg(taken->contacts.size())
                                 .arg(taken->duplicates) +
                             (taken->refused.empty() ? refusedWords(taken->doubts, "were odd")
                                                     : refusedWords(taken->refused)),
                         sound ? VerdictState::pass : VerdictState::doubtful);
        });
    if (!begun) session_.say(QStringLiteral("Something is still being worked on."));
}

void LogPage::takeReports(const QString& file) {
    const std::int64_t rigNow = rig();
    const bool begun = work().start<Result<HeardTaken>>(
        [this, rigNow, path = file.toStdString(),
         book = session_.book().path()](const LongWork::Progress& progress) -> Result<HeardTaken> {
            const auto bytes = readFile(path, kLargestLog);
            if (!bytes) return tl::make_unexpected(bytes.error());
            const auto there = Book::readHeard(book);
            if (!there) return tl::make_unexpected(there.error());
            auto taken =
                readHeard(*bytes, *there, wallClock(), [&](double share) { return progress(share / 2); });
            if (!taken) return taken;
            for (Heard& h : taken->reports) h.build = rigNow;
            const auto kept = session_.book().importHeard(
                taken->reports, [&](double share) { return progress(0.5 + share / 2); });
            if (!kept) return tl::make_unexpected(kept.error());
            return taken;
        },
        [this](Result<HeardTaken> taken) {
            if (!taken) return session_.say(qs(taken.error().text()), VerdictState::fail);
            session_.book().announce();
            session_.say(QStringLiteral("%L1 reports taken in, %L2 were there already.")
                                 .arg(taken->reports.size())
                                 .arg(taken->duplicates) +
                             refusedWords(taken->refused),
                         taken->refused.empty() ? VerdictState::pass : VerdictState::doubtful);
        });
    if (!begun) session_.say(QStringLiteral("Something is still being worked on."));
}

void LogPage::giveOut() {
    std::map<std::int64_t, std::string> rigs;
    for (const auto& b : session_.book().builds()) rigs.emplace(b.id, b.kitName);
    const std::string call = session_.book().preference("callsign"),
                      own = session_.book().preference("locator");
    askToSave(this, kLogFile, QStringLiteral("log.adi"),
              [this, rigs, call, own, log = log_](const QString& file) {
                  const bool begun = work().start<Result<void>>(
                      [=](const LongWork::Progress&) {
                          return writeFile(file.toStdString(), writeLog(log->contacts, rigs, call, own,
                                                                        wallClock(), file.toStdString()));
                      },
                      [this, file](Result<void> written) {
                          session_.say(
                              written ? QStringLiteral("Written: %1").arg(file) : qs(written.error().text()),
                              written ? VerdictState::pass : VerdictState::fail);
                      });
                  if (!begun) session_.say(QStringLiteral("Something is still being worked on."));
              });
}

void LogPage::choose(int by) {
    const int count = int(view_.rows.size());
    if (count == 0) return;
    at_ = (at_ + by + count) % count;
    showRow();
}

}  // namespace ombrek
