#include "desk/bench/talk_page.h"

#include "desk/bench/bench_page.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "instruments/bench.h"

namespace ombrek {
namespace {

constexpr int kLook = 200;  ///< [ms]

}  // namespace

TalkPage::TalkPage(Session& session)
    : Page(session, QStringLiteral("What was said")), list_(new StateList), all_(new Card), about_(new Card) {
    all_->addBody(list_, 1);
    all_->fillWithBody();
    big()->addWidget(all_, 1);
    about_->setTitle(QStringLiteral("To read it"));
    about_->setText(
        QStringLiteral("\u25c2 said to it, \u25b8 heard from it, \u00b7 what happened. Newest first; the "
                       "last 2000 are kept, as long as the window is open. What "
                       "cannot be printed stands as \\xNN."));
    side()->addWidget(about_, 0);
    side()->addStretch(1);
    setEnter("save-what-was-said", "save it", [this] { save(); });
    addKey("hold-what-was-said", "Space", "Space", "hold, or go on", [this] {
        held_ = !held_;
        refresh();
    });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    timer_.setInterval(kLook);
    connect(&timer_, &QTimer::timeout, this, [this] { follow(); });
}

void TalkPage::begin(const QString& about) {
    name_ = about;
    held_ = false;
    seen_ = -1;
    refresh();
}

void TalkPage::showEvent(QShowEvent* event) {
    Page::showEvent(event);
    timer_.start();
}

void TalkPage::hideEvent(QHideEvent* event) {
    timer_.stop();
    Page::hideEvent(event);
}

void TalkPage::follow() {
    const Talk* talk = session_.bench().talk(name_.toStdString());
    if (held_ || talk == nullptr || talk->count() == seen_) return;
    refresh();
}

void TalkPage::save() {
    const Talk* talk = session_.bench().talk(name_.toStdString());
    if (talk == nullptr || talk->lines().empty())
        return session_.say(QStringLiteral("Nothing was said yet."), VerdictState::cannotTell);
    QString head = QStringLiteral("Ombrek %1, %2\n").arg(QStringLiteral(OMBREK_VERSION), name_);
    for (const Instrument& one : session_.bench().instruments()) {
        if (qs(one.name) == name_)
            head += QStringLiteral("%1, %2, %3 %4\n")
                        .arg(wordsOf(one.way), qs(one.address), speaksOf(session_, one), qs(one.pattern));
    }
    writeOut(kTalkFile, name_ + QStringLiteral(".txt"),
             [text = head + talk->text()] { return text.toUtf8(); });
}

void TalkPage::refresh() {
    const Talk* talk = session_.bench().talk(name_.toStdString());
    all_->setTitle(name_);
    setNow(talk == nullptr || talk->lines().empty()
               ? QStringLiteral("Nothing was said to the %1 yet.").arg(name_)
               : QStringLiteral("What was said to the %1, and what it answered.").arg(name_),
           held_ ? QStringLiteral("Held: Space goes on.")
                 : QStringLiteral("Enter writes it to a file, for a report of a fault. Space holds it."));
    std::vector<StateLine> lines;
    if (talk != nullptr) {
        seen_ = talk->count();
        for (auto line = talk->lines().rbegin(); line != talk->lines().rend() && lines.size() < 200; ++line) {
            const QChar mark = line->who == Talk::Who::ombrek       ? QChar(0x25c2)
                               : line->who == Talk::Who::instrument ? QChar(0x25b8)
                                                                    : QChar(0xb7);
            lines.push_back(
                {VerdictState::notDone, QStringLiteral("%1 %2").arg(mark).arg(line->text),
                 QDateTime::fromMSecsSinceEpoch(line->at).toString(QStringLiteral("HH:mm:ss.zzz")), false,
                 false, true});
        }
    }
    list_->setLines(std::move(lines));
}

}  // namespace ombrek
