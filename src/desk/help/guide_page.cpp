#include "desk/help/guide_page.h"

#include <QScrollBar>
#include <QTextBrowser>

#include "desk/help/guide.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "look/colours.h"

namespace ombrek {

GuidePage::GuidePage(Session& session)
    : Page(session, QStringLiteral("Guide")), text_(new QTextBrowser), list_(new StateList) {
    text_->setFont(benchFont(16));
    text_->setFrameShape(QFrame::NoFrame);
    text_->setOpenLinks(false);
    text_->setFocusPolicy(Qt::TabFocus);
    text_->setAccessibleName(QStringLiteral("Guide"));
    connect(text_, &QTextBrowser::anchorClicked, this, [this](const QUrl& url) {
        const QString file = url.fileName();
        if (!guideText(file).isEmpty()) return begin(file);
        session_.say(QStringLiteral("This leads out of the guide: %1").arg(url.toString()));
    });
    auto* card = new Card;
    card->addBody(text_, 1);
    card->fillWithBody();
    big()->addWidget(card, 1);
    auto* index = new Card;
    index->setTitle(QStringLiteral("Pages, then words"));
    index->addBody(list_, 1);
    index->fillWithBody();
    side()->addWidget(index, 1);
    addKey("entry", "Down", "Up Down", "a page or a word", [this] { choose(1); });
    addRare("the-one-before", "Up", "the one before", [this] { choose(-1); });
    addKey("on", "Space", "Space", "on",
           [this] { text_->verticalScrollBar()->triggerAction(QAbstractSlider::SliderPageStepAdd); });
    addRare("up", "PgUp", "a screen back",
            [this] { text_->verticalScrollBar()->triggerAction(QAbstractSlider::SliderPageStepSub); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    connect(list_, &StateList::picked, this, [this](int row) { showEntry(std::size_t(row)); });
}

void GuidePage::begin(const QString& about) {
    const auto& entries = guideEntries();
    if (about == QStringLiteral("about")) {
        setNow(QStringLiteral("About Ombrek"), QString());
        text_->setMarkdown(aboutText(qs(session_.book().path().string())));
        return;
    }
    if (about.startsWith(QStringLiteral("words "))) {
        const auto words = wordsIn(about.mid(6));
        return showWords(words, words.empty() ? QStringLiteral("No word of the trade stands on this page.")
                                              : QStringLiteral("Words on this page"));
    }
    for (std::size_t i = 0; i < entries.size(); ++i) {
        if (entries[i].about == about) return showEntry(i);
    }
    showEntry(0);
}

void GuidePage::choose(int by) {
    const int count = int(guideEntries().size());
    if (count > 0) showEntry(std::size_t((int(at_) + by + count) % count));
}

void GuidePage::showEntry(std::size_t at) {
    const auto& entries = guideEntries();
    if (entries.empty())
        return setNow(QStringLiteral("The guide is not here."),
                      QStringLiteral("It is installed beside the tables; look in docs/guide of the source."));
    at_ = std::min(at, entries.size() - 1);
    const GuideEntry& entry = entries[at_];
    if (entry.word) {
        showWords({entry}, QStringLiteral("Words of the trade"));
    } else {
        setNow(entry.title,
               QStringLiteral("Esc goes back to the page. Shift+F1 on any page explains its words."));
        text_->setMarkdown(guideText(entry.about));
    }
    list_->setLines(
        int(entries.size()),
        [this](int i) {
            const GuideEntry& e = guideEntries()[std::size_t(i)];
            return StateLine{VerdictState::notDone, e.title, e.word ? QString() : QStringLiteral("page"),
                             std::size_t(i) == at_, false,   true};
        },
        int(at_));
}

void GuidePage::showWords(const std::vector<GuideEntry>& words, const QString& head) {
    setNow(head, QStringLiteral("Esc goes back to the page."));
    QString text;
    for (const GuideEntry& word : words) text += QStringLiteral("**%1**: %2\n\n").arg(word.title, word.says);
    text_->setMarkdown(text);
}

QString GuidePage::copied() const {
    const QString chosen = text_->textCursor().selectedText();
    return chosen.isEmpty() ? text_->toPlainText() : chosen;
}

}  // namespace ombrek
