#include "desk/kit_sheet/kit_page.h"

#include <QFileInfo>

#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "formats/files.h"
#include "formats/kit_json.h"
#include "formats/kit_upgrade.h"
#include "formats/kit_variants.h"
#include "formats/next_builder.h"
#include "station/phrases.h"

namespace ombrek {
namespace {

constexpr std::uintmax_t kLargest = 16000000;  ///< of a kit file [bytes]

/// The page on which a thing is worked at.
const char* pageOf(const Subject& at) {
    switch (at.kind) {
        case Subject::Kind::part:
            return "parts-in";
        case Subject::Kind::coil:
            return "winding";
        case Subject::Kind::step:
            return "board";
        case Subject::Kind::check:
            return "first-light";
        case Subject::Kind::adjustment:
            return "tune";
        default:
            return "";
    }
}

}  // namespace

KitPage::KitPage(Session& session)
    : Page(session, QStringLiteral("The kit")),
      sheet_(new Card),
      facts_(new Card),
      rowCard_(new Card),
      bench_(new Card),
      list_(new StateList) {
    sheet_->addBody(list_, 1);
    sheet_->fillWithBody();
    big()->addWidget(sheet_, 1);
    facts_->setTitle(QStringLiteral("What the paper gave"));
    big()->addWidget(facts_, 0);
    side()->addWidget(rowCard_, 0);
    bench_->setTitle(QStringLiteral("Before starting"));
    side()->addWidget(bench_, 0);
    side()->addStretch(1);
    addKeys();
    connect(list_, &StateList::picked, this, [this](int row) {
        row_ = std::size_t(row);
        refresh();
    });
}

void KitPage::addKeys() {
    setEnter("go-to-it", "go to it", [this] { goTo(); });
    addKey("row", "Down", "Up Down", "a row", [this] { choose(1); });
    addKey("variant", "V", "V", "another variant", [this] { nextVariant(); });
    addKey("band", "N", "N", "for another band", [this] { emit wants(QStringLiteral("band"), QString()); });
    addKey("compare", "O", "O", "open another version, or an upgrade",
           [this] { askToOpen(this, kKitFile, [this](const QString& file) { openFile(file); }); });
    addKey("merge", "M", "M", "take theirs over", [this] { merge(); });
    addKey("write", "W", "W", "write the kit file", [this] { write(); });
    addKey("bench", "T", "T", "what lies on the bench", [this] { askBench(0); });
    addKey("back", "Esc", "Esc", "back", [this] {
        if (otherFile_.isEmpty()) return emit left();
        otherFile_.clear();
        row_ = 0;
        refresh();
    });
    addRare("times-of-the-builder-before", "P", "plan by the times of the builder before", [this] {
        if (!session_.hasBuild()) return;
        if (session_.changeKit(plannedByBuilderBefore(session_.build().kitText),
                               "times of the builder before"))
            session_.say(
                QStringLiteral("The plan goes by what the builder before you took. Z takes it back."),
                VerdictState::pass);
    });
    addRare("the-row-before", "Up", "the row before", [this] { choose(-1); });
}

void KitPage::begin(const QString& about) {
    otherFile_.clear();
    asked_.clear();
    row_ = 0;
    refresh();
    if (about == QStringLiteral("write")) write();
}

void KitPage::choose(int by) {
    const int count = int(view_.rows.size());
    if (count > 0) row_ = std::size_t((int(row_) + by + count) % count);
    refresh();
}

void KitPage::goTo() {
    if (row_ >= view_.rows.size()) return;
    const Subject& at = view_.rows[row_].at;
    if (*pageOf(at) != '\0') emit wants(QString::fromUtf8(pageOf(at)), qs(at.id));
}

void KitPage::nextVariant() {
    const auto& names = session_.kit().variants;
    if (names.size() < 2) return;
    const auto hit = std::find(names.begin(), names.end(), asked_.empty() ? session_.kit().variant : asked_);
    asked_ = hit == names.end() || hit + 1 == names.end() ? names.front() : *(hit + 1);
    askText(QStringLiteral("Which of %1").arg(qs(listed(names))), qs(asked_),
            [this](const QString& name) { takeVariant(name.simplified().toStdString()); });
}

void KitPage::takeVariant(const std::string& name) {
    asked_.clear();
    const std::string before = session_.build().kitText;
    const auto text = withVariant(before, name, session_.tables().cores);
    const std::vector<Subject> replaced = text ? replacedBetween(before, *text) : std::vector<Subject>{};
    const auto in = solderedIn(session_.kit(), session_.build(), replaced);
    if (!session_.changeKit(text, "variant " + name, replaced)) return;
    session_.say(in.empty() ? QStringLiteral("Now %1: %2 parts and coils are others. Z takes it back.")
                                  .arg(qs(name))
                                  .arg(replaced.size())
                            : QStringLiteral("Now %1. Soldered in and of the other variant: take out %2.")
                                  .arg(qs(name), qs(listed(in, 8))),
                 in.empty() ? VerdictState::notDone : VerdictState::doubtful);
}

void KitPage::write() {
    writeOut(kKitFile, qs(session_.kit().id) + QStringLiteral(".kit.json"),
             [text = session_.build().kitText] { return QByteArray::fromStdString(text); });
}

bool KitPage::openFile(const QString& path) {
    const bool begun = work().start<Result<std::string>>(
        [file = path.toStdString()](const LongWork::Progress&) { return readFile(file, kLargest); },
        [this, name = QFileInfo(path).fileName()](Result<std::string> text) {
            if (!text) return session_.say(qs(text.error().text()), VerdictState::fail);
            if (text->find("\"ombrek-upgrade\"") != std::string::npos) return upgrade(*text);
            const auto kit = readKit(*text, session_.tables().cores);
            if (!kit) return session_.say(qs(kit.error().text()), VerdictState::fail);
            other_ = std::move(*text);
            otherFile_ = name;
            row_ = 0;
            refresh();
        });
    if (!begun) session_.say(QStringLiteral("Something is still being worked on."));
    return true;
}

void KitPage::merge() {
    const auto merged =
        mergeKits(session_.build().kitText, other_, session_.build(), session_.tables().cores);
    if (!merged) return session_.say(qs(merged.error().text()), VerdictState::cannotTell);
    if (!session_.changeKit(merged->text, "merge of " + otherFile_.toStdString(), {}, merged->changed))
        return;
    otherFile_.clear();
    QStringList said{QStringLiteral("Taken over; your readings stand against the new values.")};
    if (!merged->changed.empty())
        said << QStringLiteral("Look again at %1.").arg(qs(listed(merged->changed, 6)));
    for (const std::string& kept : merged->kept) said << qs(kept);
    session_.say(said.join(QChar(' ')), VerdictState::doubtful);
    refresh();
}

/// Asked once, with what it does, before it is put on top.
void KitPage::upgrade(const std::string& text) {
    const auto upgraded = withUpgrade(session_.build().kitText, text, session_.tables().cores);
    if (!upgraded) return session_.say(qs(upgraded.error().text()), VerdictState::fail);
    QStringList said;
    for (const std::string& sentence : upgraded->says) said << qs(sentence);
    askText(QStringLiteral("Put \"%1\" on top of this rig? yes or no").arg(qs(upgraded->name)),
            QStringLiteral("yes"), [this, up = *upgraded](const QString& answer) {
                if (answer.simplified().toLower() != QStringLiteral("yes")) return;
                if (session_.changeKit(up.text, "upgrade " + up.name, up.again))
                    session_.say(
                        QStringLiteral("\"%1\" is on the plan (F3); %2 things are to be made, seen or "
                                       "measured again.")
                            .arg(qs(up.name))
                            .arg(up.again.size()),
                        VerdictState::doubtful);
            });
    session_.say(said.join(QChar(' ')), VerdictState::doubtful);
}

/// One word of the bench after another; an empty answer leaves it.
void KitPage::askBench(std::size_t word) {
    if (word >= benchWords().size()) return;
    const BenchWord& asked = benchWords()[word];
    askText(QString::fromUtf8(asked.asks), qs(session_.book().preference(asked.key)),
            [this, word, key = asked.key](const QString& text) {
                if (session_.kept(session_.book().prefer(key, text.simplified().toStdString())))
                    askBench(word + 1);
            });
}

void KitPage::refresh() {
    if (!session_.hasBuild()) {
        view_ = {};
        setNow(QStringLiteral("There is no kit yet."), QStringLiteral("Ctrl+N begins one. Esc goes back."));
        for (Card* card : {sheet_, facts_, rowCard_, bench_}) card->hide();
        return;
    }
    const Kit& kit = session_.kit();
    view_ = otherFile_.isEmpty() ? kitView(kit, session_.build())
                                 : compareView(compareKits(session_.build().kitText, other_), otherFile_);
    row_ = std::min(row_, view_.rows.empty() ? 0 : view_.rows.size() - 1);
    setNow(view_.now, view_.why);
    setAble("merge",
            otherFile_.isEmpty() ? QStringLiteral("O opens another version of the kit first.") : QString());
    setAble("variant", kit.variants.size() < 2
                           ? QStringLiteral("This kit comes in one variant. N reckons another band.")
                           : QString());
    sheet_->show();
    sheet_->setTitle(view_.title);
    sheet_->setText(view_.rows.empty() ? QStringLiteral("Nothing is noted.") : QString());
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < view_.rows.size(); ++i) {
        lines.push_back(view_.rows[i].line);
        lines.back().current = i == row_;
    }
    list_->setLines(std::move(lines));
    rowCard_->setVisible(!view_.rows.empty());
    if (!view_.rows.empty()) {
        rowCard_->setTitle(view_.rows[row_].line.right);
        rowCard_->setText(view_.rows[row_].whole);
    }
    facts_->setVisible(otherFile_.isEmpty());
    facts_->setFacts(materialFacts(kit));
    std::vector<Card::Fact> said;
    for (const BenchWord& word : benchWords()) {
        const QString text = qs(session_.book().preference(word.key));
        said.push_back({QString::fromUtf8(word.name), text.isEmpty() ? QStringLiteral("not said") : text});
    }
    bench_->show();
    bench_->setFacts(said);
    bench_->setText(QStringLiteral("T says what lies on your bench, for this kit and the next. ") +
                    readyText(kit));
}

}  // namespace ombrek
