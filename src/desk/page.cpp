#include "desk/page.h"

#include <QClipboard>
#include <QContextMenuEvent>
#include <QGuiApplication>
#include <QKeyEvent>
#include <QMenu>
#include <QPainter>
#include <QTimer>
#include <utility>

#include "desk/paper/paper_model.h"
#include "desk/pieces/card.h"
#include "desk/pieces/fitted_column.h"
#include "desk/pieces/key_cap.h"
#include "desk/pieces/state_list.h"
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
        setFixedHeight(withText(kLine));
        setObjectName(QStringLiteral("note"));
    }
    void show(const QString& text, VerdictState state) {
        text_ = text;
        state_ = state;
        setAccessibleName(text);
        takeRoom();
        update();
    }

 protected:
    void paintEvent(QPaintEvent*) override {
        if (text_.isEmpty()) return;
        QPainter p(this);
        const Colours& c = coloursOf(*this);
        if (marked()) drawVerdictMark(p, QRectF(0, withText(kLine) / 2.0 - 8, 16, 16), state_, c);
        p.setFont(benchFont(15));
        p.setPen(marked() ? c.ink : c.soft);
        p.drawText(room(), Qt::AlignLeft | Qt::AlignVCenter | Qt::TextWordWrap, text_);
    }
    void resizeEvent(QResizeEvent*) override { takeRoom(); }

 private:
    static constexpr int kLine = 24;
    bool marked() const { return state_ != VerdictState::notDone; }
    QRect room() const { return {marked() ? 24 : 0, 0, width() - 24, height()}; }
    /// As high as the sentence is: what is to be done stands at its end.
    void takeRoom() {
        const QRect lines = QFontMetrics(benchFont(15))
                                .boundingRect(QRect(0, 0, room().width(), 1000), Qt::TextWordWrap, text_);
        setFixedHeight(std::max(withText(kLine), lines.height()));
    }

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
    entry_->setMinimumWidth(withText(320));
    entryLayout->addWidget(entryPrompt_);
    entryLayout->addWidget(entry_, 1);
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
    connect(&work_, &LongWork::ended, this, [this] {
        showLine(QString(), VerdictState::notDone);
        // After what the work gives, which may say more, or be the next piece of work.
        QTimer::singleShot(0, this, [this] {
            if (work_.running() || whenDone_.isEmpty()) return;
            const QString line = std::exchange(whenDone_, QString());
            if (note_->accessibleName().isEmpty()) showLine(line, VerdictState::notDone);
        });
    });
    connect(&work_, &LongWork::failed, this, [this](const QString& why) {
        showLine(QStringLiteral("It could not be finished: %1.").arg(why), VerdictState::fail);
    });
}

QVBoxLayout* Page::big() { return big_->column(); }

QVBoxLayout* Page::side() { return side_->column(); }

void Page::setNow(const QString& sentence, const QString& why) {
    // What was said belongs to what was in hand then; it goes when something else is, unless it was said just
    // now.
    constexpr qint64 kJustNow = 1000;  // ms
    if (sentence != now_->text() && said_.isValid() && said_.elapsed() > kJustNow && !work_.running() &&
        !troubled_)
        showLine(QString(), VerdictState::notDone);
    say(now_, sentence);
    say(why_, why);
    setAccessibleDescription(sentence + QStringLiteral(" ") + why);
}

QAction* Page::addKey(const char* id, const char* sequence, const char* shown, const char* does,
                      std::function<void()> done, bool common) {
    QList<QKeySequence> sequences{QKeySequence(QString::fromUtf8(sequence))};
    if (sequences.first() == QKeySequence(Qt::Key_Return)) sequences << QKeySequence(Qt::Key_Enter);
    QAction* action = act::make(this, QString::fromUtf8(id), QString::fromUtf8(shown), sequences,
                                QString::fromUtf8(does), common);
    action->setShortcutContext(Qt::WidgetWithChildrenShortcut);
    if (sequences.first() == QKeySequence(Qt::Key_Escape)) {  // what is open on the page goes first
        done = [this, leave = std::move(done)] {
            if (!entryRow_->isHidden()) return closeEntry();
            if (session_.waiting()) return session_.callOff();
            leave();
        };
    }
    connect(action, &QAction::triggered, this, std::move(done));
    addAction(action);
    addCap(action);
    return action;
}

void Page::addCap(QAction* action) {
    auto* cap = new KeyCap(action, action->property(act::kKey).toString());
    cap->setVisible(action->property(act::kCommon).toBool());
    keyRow_->layout()->addWidget(cap);
}

void Page::takesPaper(const char* word) {
    paper_ = word;
    const QString paper = QString::fromLatin1(word);
    const std::string does = std::string("enter ") + word + " from the paper";
    addRare("from-the-paper", "Ins", does.c_str(),
            [this, paper] { emit wants(QStringLiteral("paper"), paper); });
    addRare("paste-from-the-paper", "Ctrl+V", "paste them", [this, paper] {
        if (offerPasted()) return;
        emit wants(QStringLiteral("paper"), paper + QStringLiteral(" paste"));
    });
}

/// One short line that was copied, on a page that wants a value, is that value.
bool Page::offerPasted() {
    const QString text = QGuiApplication::clipboard()->text().trimmed();
    return !text.isEmpty() && text.size() < 40 && !text.contains(QChar('\n')) && takesNumbers() &&
           offer(text);
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
        act(QStringLiteral("from-the-paper"))->property(act::kCommon).toBool() == empty)
        return;
    paperCard_->setVisible(empty);
    for (const char* id : {"from-the-paper", "paste-from-the-paper"}) setCommon(id, empty);
}

void Page::setCommon(const char* id, bool common) {
    QAction* found = act(QString::fromUtf8(id));
    if (found == nullptr || found->property(act::kCommon).toBool() == common) return;
    found->setProperty(act::kCommon, common);
    showCaps();
}

void Page::setAble(const char* id, const QString& whyNot) {
    if (QAction* found = act(QString::fromUtf8(id))) act::setAble(*found, whyNot);
}

void Page::setEnter(const char* id, const char* does, std::function<void()> done) {
    enterAct_ = std::move(done);
    addKey(id, "Return", "Enter", does, [this] { enter(); });
}

void Page::showCaps() {
    for (KeyCap* cap : keyRow_->findChildren<KeyCap*>())
        cap->setVisible(cap->act()->property(act::kCommon).toBool());
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

void Page::writeOut(const FileWish& wish, const QString& name, std::function<QByteArray()> bytes,
                    std::function<void()> then) {
    askToSave(
        this, wish, name, [this, bytes = std::move(bytes), then = std::move(then)](const QString& file) {
            const bool begun = work_.start<Result<void>>(
                [file, bytes](const LongWork::Progress&) {
                    return writeFile(file.toStdString(), bytes().toStdString());
                },
                [this, file, then](Result<void> written) {
                    showLine(written ? QStringLiteral("Written: %1").arg(file) : qs(written.error().text()),
                             written ? VerdictState::pass : VerdictState::fail);
                    if (written && then) then();
                });
            if (!begun)
                showLine(QStringLiteral("Something is still being worked on."), VerdictState::cannotTell);
        });
}

QString Page::copied() const {
    for (const StateList* list : findChildren<StateList*>()) {
        if (list->isVisible() && list->inHand())
            return list->inHand()->text + QChar('\t') + list->inHand()->right;
    }
    return now_->text() + QChar('\n') + why_->text();
}

bool Page::offer(const QString& text) {
    if (!reading_.use) return false;
    openEntry(reading_, text);
    return true;
}

/// Why the act of this key cannot be done now; empty when there is none. The keys of an act that can be done
/// do not come here.
QString Page::whyNot(const QKeyEvent& event) const {
    const QKeySequence pressed(event.keyCombination());
    for (const QList<QAction*>& acts : {actions(), window()->actions()}) {
        for (const QAction* act : acts) {
            if (!act->isEnabled() && act->shortcuts().contains(pressed))
                return act->property(act::kWhyNot).toString();
        }
    }
    return {};
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
        } else if (session_.waiting()) {
            session_.callOff();
        } else {
            emit left();
        }
    } else if (reading && reading_.use && entryRow_->isHidden()) {
        offer(text);
    } else if (event->matches(QKeySequence::Paste)) {  // a page without a paste of its own
        if (auto* paste = window()->findChild<QAction*>(QStringLiteral("paste"), Qt::FindDirectChildrenOnly))
            paste->trigger();
    } else if (const QString why = whyNot(*event); !why.isEmpty()) {
        showLine(why, VerdictState::notDone);
    } else {
        QWidget::keyPressEvent(event);
    }
}

/// The page's acts where the mouse is, those that stand at the foot first.
void Page::contextMenuEvent(QContextMenuEvent* event) {
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->setToolTipsVisible(true);
    auto* more = new QMenu(QStringLiteral("More"), menu);
    for (QAction* act : actions()) {
        if (act->isEnabled()) (act->property(act::kCommon).toBool() ? menu : more)->addAction(act);
    }
    menu->addSeparator();
    if (!more->isEmpty()) menu->addMenu(more);
    for (const char* id : {"copy", "find", "undo"}) {
        if (auto* act = window()->findChild<QAction*>(QString::fromUtf8(id), Qt::FindDirectChildrenOnly))
            menu->addAction(act);
    }
    menu->popup(event->globalPos());
}

void Page::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    takeFocus();
}

void Page::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    const int usual = width() < 1000 ? 312 : 372;  // half as much more as the text
    side_->setFixedWidth(std::min((usual + withText(usual)) / 2, width() / 2));
    const bool low = height() < 680;
    layout()->setContentsMargins(30, low ? 10 : 22, 26, low ? 6 : 10);
    layout()->setSpacing(low ? 3 : 6);
    // Little height for text of this size: the keys at the foot give way first ("?" and the menu have them
    // all), then the reason under the now line.
    const double lines = height() / double(withText(24));
    why_->setVisible(!bigOnly_ && lines >= 17);
    static_cast<FlowLayout*>(keyRow_->layout())->setMostLines(lines < 20 ? 1 : lines < 27 ? 2 : 0);
    if (!bigOnly_) setCompact(low);
}

void Page::setBigOnly(bool on) {
    bigOnly_ = on;
    side_->setVisible(!on && side()->count() > 0);  // a page without facts gives their room away
    why_->setVisible(!on);
    keyRow_->setVisible(!on);
}

void Page::sayWhenDone(const QString& line) {
    if (work_.running()) {
        whenDone_ = line;
    } else {
        showLine(line, VerdictState::notDone);
    }
}

void Page::showLine(const QString& line, VerdictState state) {
    said_.start();
    troubled_ = state == VerdictState::cannotTell;
    // Where nothing is kept, that stands wherever nothing else is said.
    if (line.isEmpty() && session_.book().readOnly())
        return note_->show(qs(session_.book().readOnlyReason()), VerdictState::doubtful);
    note_->show(line, state);
}

}  // namespace ombrek
