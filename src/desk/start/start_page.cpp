#include "desk/start/start_page.h"

#include <algorithm>
#include <filesystem>

#include "book/daily_copy.h"
#include "desk/person.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "formats/files.h"
#include "formats/kit_json.h"

namespace ombrek {

StartPage::StartPage(Session& session)
    : Page(session, QStringLiteral("Start")), list_(new StateList), how_(new Card) {
    auto* card = new Card;
    card->setTitle(QStringLiteral("Kits and builds"));
    card->addBody(list_, 1);
    card->fillWithBody();
    big()->addWidget(card, 1);
    how_->setTitle(QStringLiteral("How it goes"));
    how_->setText(
        QStringLiteral("Seven stations on one wire: the bag is checked, coils are wound, the board is "
                       "soldered, first power is given, "
                       "trimmers are set, the output is proved, and the report is signed.\n\n%1\n\nThe "
                       "practice bench answers as a multimeter, an L/C "
                       "meter, a counter and a "
                       "power meter on the practice kit: Ctrl+B starts it.")
            .arg(session.book().readOnly()
                     ? QStringLiteral("This book can be looked at, not written: nothing done here is kept.")
                     : QStringLiteral("Every key press is kept at once; switch off whenever you like.")));
    side()->addWidget(how_, 1);
    setEnter("begin-it", "begin it", [this] { begin(); });
    addKey("choose", "Down", "Up Down", "choose", [this] { choose(1); });
    addKey(
        "the-one-before", "Up", "Up", "the one before", [this] { choose(-1); }, false);
    addKey("open-a-kit-file", "O", "O", "open a kit file", [this] {
        askToOpen(this, kKitFile, [this](const QString& file) {
            session_.beginKit(file);
            person::remember(QStringLiteral("recent/kits"), file);
            if (session_.hasBuild()) emit left();
        });
    });
    addKey("restore", "D", "D", "daily copies of this book", [this] {
        copies_ = !copies_;
        if (copies_ && dailyCopies(session_.book().path()).empty())
            session_.say(QStringLiteral("There is no copy yet: one is made each day that the book is open."));
        refresh();
    });
    addKey("a-parts-list", "L", "L", "a parts list",
           [this] { emit wants(QStringLiteral("list"), QString()); });
    connect(list_, &StateList::picked, this, [this](int row) {
        at_ = row;
        refresh();
    });
    findKits();
}

void StartPage::findKits() {
    std::error_code error;
    for (const auto& file : std::filesystem::directory_iterator(dataFolder() / "demo", error)) {
        if (!file.path().filename().string().ends_with(".kit.json")) continue;
        const auto kit = readKitFile(file.path(), session_.tables().cores);
        if (!kit) continue;
        kits_.push_back(startEntry(kit->kit, qs(file.path().string())));
    }
    std::sort(kits_.begin(), kits_.end(),
              [](const StartEntry& a, const StartEntry& b) { return a.title < b.title; });
    const auto practice = std::find_if(kits_.begin(), kits_.end(), [](const StartEntry& e) {
        return e.kitFile.contains(QLatin1String("lantern"));
    });
    if (practice != kits_.end()) std::rotate(kits_.begin(), practice, practice + 1);
}

void StartPage::choose(int by) {
    if (entries_.empty()) return;
    at_ = (at_ + by + int(entries_.size())) % int(entries_.size());
    refresh();
}

void StartPage::begin() {
    if (entries_.empty()) return;
    const StartEntry entry = entries_[std::size_t(at_)];
    if (!entry.copyOf.empty()) return restore(entry.copyOf);
    if (!entry.book.isEmpty()) return emit wantsBook(entry.book);
    if (entry.build != 0) {
        session_.kept(session_.book().chooseBuild(entry.build));
    } else {
        session_.beginKit(entry.kitFile);
    }
    emit left();
}

/// The copy is opened as a book of its own; the present one stays as it is.
void StartPage::restore(const std::string& day) {
    const auto path = session_.book().path();
    for (const DailyCopy& copy : dailyCopies(path)) {
        if (copy.day != day) continue;
        work().start<Result<std::filesystem::path>>(
            [path, copy](const LongWork::Progress&) { return restoreCopy(path, copy); },
            [this](Result<std::filesystem::path> book) {
                if (!book) return session_.say(qs(book.error().text()), VerdictState::fail);
                emit wantsBook(qs(book->string()));
            });
    }
}

void StartPage::refresh() {
    std::vector<StartEntry> entries = kits_;
    for (StartEntry& entry : recentEntries(person::recent(QStringLiteral("recent/kits")),
                                           person::recent(QStringLiteral("recent/books")),
                                           qs(session_.book().path().string()), kits_))
        entries.push_back(std::move(entry));
    std::vector<std::string> days;
    if (copies_) {
        for (const DailyCopy& copy : dailyCopies(session_.book().path())) days.push_back(copy.day);
    }
    for (StartEntry& entry : copyEntries(days)) entries.push_back(std::move(entry));
    StartView v =
        startView(session_.book().builds(), entries, session_.kitTrouble(), session_.hasBuild(), at_);
    entries_ = std::move(v.entries);
    at_ = v.at;
    setNow(v.now, v.why);
    list_->setLines(std::move(v.lines));
}

}  // namespace ombrek
