#include "desk/page.h"

#include <QDir>
#include <QFileInfo>
#include <QKeyEvent>
#include <QPainter>

#include "desk/paper/paper_model.h"
#include "desk/pieces/card.h"
#include "desk/pieces/fitted_column.h"
#include "desk/pieces/key_cap.h"
#include "desk/pieces/text.h"
#include "formats/files.h"
#include "formats/kit_edit.h"
#include "look/verdict_mark.h"
#include "station/notes.h"
#include "station/subjects.h"

namespace ombrek {

/// What happened last, with a mark when it went wrong.
class NoteLine : public QWidget {
 public:
    explicit NoteLine(QWidget* parent) : QWidget(parent) {
        setFixedHeight(24);
        setObjectName(QStringLiteral("note"));
    }
    void show(const QString& text, VerdictState state) {
        text_ = text;
        state_ = state;
        setAccessibleName(text);
        update();
    }

 protected:
    void paintEvent(QPaintEvent*) override {
        if (text_.isEmpty()) return;
        QPainter p(this);
        const Colours& c = coloursOf(*this);
        const bool marked = state_ != VerdictState::notDone;
        if (marked) drawVerdictMark(p, QRectF(0, 4, 16, 16), state_, c);
        p.setFont(benchFont(15));
        p.setPen(marked ? c.ink : c.soft);
        const QRectF room(marked ? 24 : 0, 0, width() - 24.0, height());
        p.drawText(room, Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetrics(p.font()).elidedText(text_, Qt::ElideRight, int(room.width())));
    }

 private:
    QString text_;
    VerdictState state_ = VerdictState::notDone;
};

Page::Page(Session& session, const QString& name, QWidget* parent)
    : QWidget(parent),
      session_(session),
      name_(name),
      now_(textLabel(30, true)),
      why_(textLabel(15, false, "soft")),
      big_(new FittedColumn(10)),
      side_(new FittedColumn(16)),
      entryRow_(new QWidget),
      entryPrompt_(textLabel(15)),
      entryMeaning_(textLabel(17, true, "copper")),
      entry_(new QLineEdit),
      note_(new NoteLine(this)),
      keyRow_(new QWidget) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(name);
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(30, 22, 26, 10);
    all->setSpacing(6);
    all->addWidget(now_);
    all->addWidget(why_);
    all->addSpacing(6);

    auto* middle = new QHBoxLayout;
    middle->setSpacing(22);
    middle->addWidget(big_, 1);
    middle->addWidget(side_);
    all->addLayout(middle, 1);

    auto* entryLayout = new QHBoxLayout(entryRow_);
    entryLayout->setContentsMargins(0, 0, 0, 0);
    entryPrompt_->setWordWrap(false);
    entry_->setFont(benchFont(20));
    entry_->setFixedWidth(320);
    entryLayout->addWidget(entryPrompt_);
    entryLayout->addWidget(entry_);
    entryMeaning_->setWordWrap(false);
    entryMeaning_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    entryLayout->addSpacing(10);
    entryLayout->addWidget(entryMeaning_, 1);
    connect(entry_, &QLineEdit::textChanged, this, [this] { showMeaning(); });
    entryRow_->hide();
    all->addWidget(entryRow_);
    all->addWidget(note_);
    keyRow_->setLayout(new FlowLayout(22, 4));
    all->addWidget(keyRow_);
    now_->setMinimumHeight(40);
    // Pages with an Enter of their own get it as a shortcut first; on the others it comes here.
    connect(entry_, &QLineEdit::returnPressed, this, [this] { enter(); });
    connect(&work_, &LongWork::progressed, this, [this](double share) {
        if (work_.running())
            showLine(QStringLiteral("Working, %1\u202f%. Esc stops it.").arg(int(share * 100)),
                     VerdictState::notDone);
    });
    connect(&work_, &LongWork::ended, this, [this] { showLine(QString(), VerdictState::notDone); });
    connect(&work_, &LongWork::failed, this, [this](const QString& why) {
        showLine(QStringLiteral("It could not be finished: %1.").arg(why), VerdictState::fail);
    });
}

QVBoxLayout* Page::big() { return big_->column(); }

QVBoxLayout* Page::side() { return side_->column(); }

void Page::setNow(const QString& sentence, const QString& why) {
    say(now_, sentence);
    say(why_, why);
    setAccessibleDescription(sentence + QStringLiteral(" ") + why);
}

QAction* Page::addKey(const char* id, const char* sequence, const char* shown, const char* does,
                      std::function<void()> act, bool common) {
    auto* action = new QAction(QString::fromUtf8(does), this);
    action->setObjectName(QString::fromUtf8(id));
    action->setProperty(kKey, QString::fromUtf8(shown));
    action->setProperty(kCommon, common);
    QList<QKeySequence> sequences{QKeySequence(QString::fromUtf8(sequence))};
    if (sequences.first() == QKeySequence(Qt::Key_Return)) sequences << QKeySequence(Qt::Key_Enter);
    action->setShortcuts(sequences);
    action->setShortcutContext(Qt::WidgetWithChildrenShortcut);
    action->setAutoRepeat(false);
    if (sequences.first() == QKeySequence(Qt::Key_Escape)) {  // what is open on the page goes first
        act = [this, leave = std::move(act)] {
            if (entryRow_->isHidden()) return leave();
            closeEntry();
        };
    }
    connect(action, &QAction::triggered, this, std::move(act));
    addAction(action);
    addCap(action);
    return action;
}

void Page::addCap(QAction* act) {
    auto* cap = new KeyCap(act, act->property(kKey).toString());
    cap->setVisible(act->property(kCommon).toBool());
    keyRow_->layout()->addWidget(cap);
}

void Page::takesPaper(const char* word) {
    paper_ = word;
    const QString paper = QString::fromLatin1(word);
    const std::string does = std::string("enter ") + word + " from the paper";
    addRare("from-the-paper", "Ins", does.c_str(),
            [this, paper] { emit wants(QStringLiteral("paper"), paper); });
    addRare("paste-from-the-paper", "Ctrl+V", "paste them",
            [this, paper] { emit wants(QStringLiteral("paper"), paper + QStringLiteral(" paste")); });
}

void Page::takesNotes(std::function<Subject()> inHand) {
    const auto none = [this](const Subject& at) {
        if (at.is(Subject::Kind::unknown)) session_.say(QStringLiteral("Nothing is in hand here."));
        return at.is(Subject::Kind::unknown);
    };
    addRare("erratum", "Shift+E", "erratum: what the paper has wrong here", [this, none, inHand] {
        const Subject at = inHand();
        if (none(at)) return;
        askText(QStringLiteral("What has the paper wrong at %1?").arg(qs(titleOf(session_.kit(), at))),
                qs(erratumAt(session_.kit(), at)), [this, at](const QString& text) {
                    session_.changeKit(
                        withErratum(session_.build().kitText, at, text.simplified().toStdString()),
                        "erratum at " + at.id);
                });
    });
    addRare("made-otherwise", "Shift+D", "made otherwise than the paper says, and why", [this, none, inHand] {
        const Subject at = inHand();
        if (none(at)) return;
        askText(QStringLiteral("%1: what is made otherwise, and why?").arg(qs(titleOf(session_.kit(), at))),
                qs(otherwiseAt(session_.build(), at)), [this, at](const QString& text) {
                    session_.kept(session_.book().remark(at.text(), text.simplified().toStdString()));
                });
    });
}

void Page::offerPaper(bool empty) {
    if (paperCard_ == nullptr && !empty) return;
    if (paperCard_ == nullptr) {
        const PaperRow& row = paperRow(paperOf(paper_));
        paperCard_ = new Card;
        paperCard_->setTitle(QStringLiteral("What it takes from the paper"));
        paperCard_->setText(
            QStringLiteral("Ctrl+V pastes what you copied in the manual, Ins writes it line by line:\n\n%1"
                           "\n\nWhat is not sure is asked before it is taken.")
                .arg(qs(std::string_view(row.example))));
        big()->insertWidget(0, paperCard_, 0);
    }
    if (paperCard_->isVisibleTo(this) == empty &&
        act(QStringLiteral("from-the-paper"))->property(kCommon).toBool() == empty)
        return;
    paperCard_->setVisible(empty);
    for (const char* id : {"from-the-paper", "paste-from-the-paper"}) setCommon(id, empty);
}

void Page::setCommon(const char* id, bool common) {
    QAction* found = act(QString::fromUtf8(id));
    if (found == nullptr || found->property(kCommon).toBool() == common) return;
    found->setProperty(kCommon, common);
    showCaps();
}

void Page::setEnter(const char* id, const char* does, std::function<void()> act) {
    enterAct_ = std::move(act);
    addKey(id, "Return", "Enter", does, [this] { enter(); });
}

void Page::showCaps() {
    for (KeyCap* cap : keyRow_->findChildren<KeyCap*>())
        cap->setVisible(cap->act()->property(kCommon).toBool());
}

void Page::enter() {
    if (entryRow_->isHidden()) {
        if (enterAct_) enterAct_();
        return;
    }
    const QString text = entry_->text().trimmed();
    if (open_.understand && !text.isEmpty()) {
        const Session::Entered entered = open_.understand(text);
        if (!entered.trouble.isEmpty()) return showLine(entered.trouble, VerdictState::cannotTell);
        if (!entered.doubt.isEmpty() && insisted_ != text) {
            insisted_ = text;
            return showLine(entered.doubt + QStringLiteral(" Enter again keeps it."), VerdictState::doubtful);
        }
    }
    const Wanted wanted = open_;
    closeEntry();
    troubled_ = false;
    if (!text.isEmpty() && wanted.use) wanted.use(text);
    // What was not understood stays to be mended.
    if (troubled_ && entryRow_->isHidden() && isVisible()) openEntry(wanted, text);
}

void Page::openEntry(const Wanted& wanted, const QString& text) {
    open_ = wanted;
    insisted_.clear();
    entryPrompt_->setText(wanted.prompt);
    entry_->setAccessibleName(wanted.prompt);
    entry_->setText(text);
    entryRow_->show();
    showMeaning();
    entry_->setFocus();
}

/// What the text would be kept as, beside it, before Enter.
void Page::showMeaning() {
    const QString text = entry_->text().trimmed();
    QString meaning;
    if (open_.understand && !text.isEmpty()) {
        const Session::Entered entered = open_.understand(text);
        meaning = !entered.trouble.isEmpty() ? entered.trouble : QStringLiteral("= ") + entered.shows;
    }
    say(entryMeaning_, meaning);
    entry_->setAccessibleDescription(meaning);
}

void Page::closeEntry() {
    open_ = {};
    entry_->clear();
    entryRow_->hide();
    setFocus();
}

void Page::takeFocus() {
    if (entryRow_->isHidden()) {
        setFocus();
    } else {
        entry_->setFocus();
    }
}

void Page::wantReading(const QString& prompt, const Reading& pattern) {
    wantReading(
        prompt, [this, pattern](const QString& text) { return session_.understand(pattern, text); },
        [this, pattern](const QString& text) { session_.type(pattern, text); });
}

void Page::wantReading(const QString& prompt, std::function<Session::Entered(const QString&)> understand,
                       std::function<void(const QString&)> use) {
    reading_ = {prompt, std::move(understand), std::move(use)};
}

void Page::askText(const QString& prompt, const QString& start, std::function<void(const QString&)> use) {
    openEntry({prompt, nullptr, std::move(use)}, start);
}

void Page::askFile(const QString& prompt, const QString& fileName, std::function<void(const QString&)> use) {
    askText(prompt, QDir::home().filePath(fileName), std::move(use));
}

void Page::writeOut(const QString& file, std::function<QByteArray()> bytes, std::function<void()> then) {
    if (QFileInfo::exists(file) && agreed_ != file) {
        agreed_ = file;
        askText(QStringLiteral("Write over it, or another name"), file,
                [this, bytes = std::move(bytes), then = std::move(then)](const QString& again) {
                    writeOut(again, bytes, then);
                });
        return showLine(
            QStringLiteral("%1 is there already. Enter again writes over it; Esc leaves it.").arg(file),
            VerdictState::doubtful);
    }
    agreed_.clear();
    const bool begun = work_.start<Result<void>>(
        [file, bytes = std::move(bytes)](const LongWork::Progress&) {
            return writeFile(file.toStdString(), bytes().toStdString());
        },
        [this, file, then = std::move(then)](Result<void> written) {
            showLine(written ? QStringLiteral("Written: %1").arg(file) : qs(written.error().text()),
                     written ? VerdictState::pass : VerdictState::fail);
            if (written && then) then();
        });
    // The name stays in the entry, to be given again.
    if (!begun) showLine(QStringLiteral("Something is still being worked on."), VerdictState::cannotTell);
}

bool Page::offer(const QString& text) {
    if (!reading_.use) return false;
    openEntry(reading_, text);
    return true;
}

void Page::keyPressEvent(QKeyEvent* event) {
    const QString text = event->text();
    // Digits and signs, and what an overload begins with: OL, open, inf, >20M.
    const bool reading = !text.isEmpty() && QStringLiteral("0123456789.,-+>oOiI\u221e").contains(text[0]) &&
                         !(event->modifiers() & (Qt::ControlModifier | Qt::AltModifier));
    if (event->key() == Qt::Key_Escape) {
        if (work_.running()) {
            work_.stop();
        } else if (!entryRow_->isHidden()) {
            closeEntry();
        } else {
            emit left();
        }
    } else if (reading && reading_.use && entryRow_->isHidden()) {
        offer(text);
    } else {
        QWidget::keyPressEvent(event);
    }
}

void Page::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    takeFocus();
}

void Page::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    side_->setFixedWidth(width() < 1000 ? 312 : 372);
    if (!bigOnly_) setCompact(height() < 680);
}

void Page::setBigOnly(bool on) {
    bigOnly_ = on;
    side_->setVisible(!on && side()->count() > 0);  // a page without facts gives their room away
    why_->setVisible(!on);
    keyRow_->setVisible(!on);
}

void Page::showLine(const QString& line, VerdictState state) {
    troubled_ = state == VerdictState::cannotTell;
    note_->show(line, state);
}

}  // namespace ombrek
