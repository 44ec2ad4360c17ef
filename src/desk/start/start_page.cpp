#include "desk/start/start_page.h"

#include <algorithm>
#include <filesystem>

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
                       "trimmers are set, the output is proved, and the report is signed.\n\nEvery key press "
                       "is kept at once; "
                       "switch off whenever you like.\n\nThe practice bench answers as a multimeter, an L/C "
                       "meter, a counter and a "
                       "power meter on the practice kit: Ctrl+P starts it."));
    side()->addWidget(how_, 1);
    setEnter("begin-it", "begin it", [this] { begin(); });
    addKey("choose", "Down", "Up Down", "choose", [this] { choose(1); });
    addKey(
        "the-one-before", "Up", "Up", "the one before", [this] { choose(-1); }, false);
    addKey("open-a-kit-file", "O", "O", "open a kit file", [this] {
        askText(QStringLiteral("Kit file"), QString(), [this](const QString& file) {
            session_.beginKit(file);
            if (session_.hasBuild()) emit left();
        });
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
        const Kit& k = kit->kit;
        kits_.push_back({QStringLiteral("%1, %2").arg(qs(k.name), qs(k.summary)),
                         QStringLiteral("%1 parts, %2 coils, %3 steps")
                             .arg(k.parts.size())
                             .arg(k.coils.size())
                             .arg(k.steps.size()),
                         qs(file.path().string()), 0});
    }
    std::sort(kits_.begin(), kits_.end(), [](const Entry& a, const Entry& b) { return a.title < b.title; });
    const auto practice = std::find_if(kits_.begin(), kits_.end(), [](const Entry& e) {
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
    const Entry entry = entries_[std::size_t(at_)];
    if (entry.build != 0) {
        session_.keep(session_.book().chooseBuild(entry.build));
    } else {
        session_.beginKit(entry.kitFile);
    }
    emit left();
}

void StartPage::refresh() {
    entries_.clear();
    for (const auto& b : session_.book().builds()) {
        entries_.push_back({QStringLiteral("%1, begun").arg(qs(b.kitName)), QStringLiteral("go on with it"),
                            QString(), b.id});
    }
    entries_.insert(entries_.end(), kits_.begin(), kits_.end());
    at_ = std::clamp(at_, 0, std::max(0, int(entries_.size()) - 1));
    if (!session_.kitTrouble().isEmpty()) {
        setNow(QStringLiteral("The kit of this build cannot be read."),
               session_.kitTrouble() +
                   QStringLiteral(
                       " The build is kept as it is; choose another, or begin one. Z takes the last action "
                       "back."));
    } else {
        setNow(
            session_.hasBuild() ? QStringLiteral("Go on with a build, or begin another kit.")
                                : QStringLiteral("Begin: choose a kit and press Enter."),
            QStringLiteral("The first is the practice kit. O opens a kit file; L takes a parts list, pasted "
                           "or as a table."));
    }
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < entries_.size(); ++i) {
        lines.push_back({entries_[i].build ? VerdictState::pass : VerdictState::notDone, entries_[i].title,
                         entries_[i].detail, int(i) == at_, false});
    }
    list_->setLines(std::move(lines));
}

}  // namespace ombrek
