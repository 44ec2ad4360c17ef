#include "desk/page.h"

#include <QDir>
#include <QKeyEvent>
#include <QPainter>

#include "desk/pieces/text.h"
#include "formats/files.h"
#include "look/verdict_mark.h"

namespace ombrek {

/// What happened last, with a mark when it went wrong.
class NoteLine : public QWidget {
 public:
    explicit NoteLine(QWidget* parent) : QWidget(parent) { setFixedHeight(24); }
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
      big_(new QVBoxLayout),
      side_(new QVBoxLayout),
      sideBox_(new QWidget),
      entryRow_(new QWidget),
      entryPrompt_(textLabel(15)),
      entry_(new QLineEdit),
      note_(new NoteLine(this)),
      keyRow_(textLabel(14, false, "soft")) {
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
    middle->addLayout(big_, 1);
    side_->setContentsMargins(0, 0, 0, 0);
    side_->setSpacing(16);
    sideBox_->setLayout(side_);
    middle->addWidget(sideBox_);
    all->addLayout(middle, 1);

    auto* entryLayout = new QHBoxLayout(entryRow_);
    entryLayout->setContentsMargins(0, 0, 0, 0);
    entryPrompt_->setWordWrap(false);
    entry_->setFont(benchFont(20));
    entry_->setFixedWidth(320);
    entryLayout->addWidget(entryPrompt_);
    entryLayout->addWidget(entry_);
    entryLayout->addStretch(1);
    entryRow_->hide();
    all->addWidget(entryRow_);
    all->addWidget(note_);
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
}

void Page::setNow(const QString& sentence, const QString& why) {
    say(now_, sentence);
    say(why_, why);
    setAccessibleDescription(sentence + QStringLiteral(" ") + why);
}

QAction* Page::addKey(const char* sequence, const char* shown, const char* does, std::function<void()> act,
                      bool common) {
    auto* action = new QAction(QString::fromUtf8(does), this);
    QList<QKeySequence> sequences{QKeySequence(QString::fromUtf8(sequence))};
    if (sequences.first() == QKeySequence(Qt::Key_Return)) sequences << QKeySequence(Qt::Key_Enter);
    action->setShortcuts(sequences);
    action->setShortcutContext(Qt::WidgetWithChildrenShortcut);
    action->setAutoRepeat(false);
    connect(action, &QAction::triggered, this, std::move(act));
    addAction(action);
    keys_.push_back({QString::fromUtf8(shown), QString::fromUtf8(does), common});
    updateKeyRow();
    return action;
}

void Page::setEnter(const char* does, std::function<void()> act) {
    enterAct_ = std::move(act);
    addKey("Return", "Enter", does, [this] { enter(); });
}

void Page::updateKeyRow() {
    QStringList row;
    for (const Key& key : keys_) {
        if (key.common) row << key.key + QStringLiteral("\u2002") + key.does;
    }
    keyRow_->setText(row.join(QStringLiteral("\u2003\u2003")));
}

void Page::enter() {
    if (entryRow_->isVisible()) {
        const QString text = entry_->text().trimmed();
        const auto use = useOnce_ ? useOnce_ : use_;
        closeEntry();
        if (!text.isEmpty() && use) use(text);
        return;
    }
    if (enterAct_) enterAct_();
}

void Page::closeEntry() {
    useOnce_ = nullptr;
    entry_->clear();
    entryRow_->hide();
    setFocus();
}

void Page::wantReading(const QString& prompt, std::function<void(const QString&)> use) {
    prompt_ = prompt;
    use_ = std::move(use);
    if (!useOnce_) entryPrompt_->setText(prompt_);
}

void Page::askText(const QString& prompt, const QString& start, std::function<void(const QString&)> use) {
    useOnce_ = std::move(use);
    entryPrompt_->setText(prompt);
    entry_->setAccessibleName(prompt);
    entry_->setText(start);
    entryRow_->show();
    entry_->setFocus();
}

void Page::askFile(const QString& prompt, const QString& fileName, std::function<void(const QString&)> use) {
    askText(prompt, QDir::home().filePath(fileName), std::move(use));
}

void Page::writeOut(const QString& file, std::function<QByteArray()> bytes) {
    const bool begun = work_.start<Result<void>>(
        [file, bytes = std::move(bytes)](const LongWork::Progress&) {
            return writeFile(file.toStdString(), bytes().toStdString());
        },
        [this, file](Result<void> written) {
            showLine(written ? QStringLiteral("Written: %1").arg(file) : qs(written.error().text()),
                     written ? VerdictState::pass : VerdictState::fail);
        });
    if (!begun) showLine(QStringLiteral("Something is still being worked on."), VerdictState::notDone);
}

bool Page::offer(const QString& text) {
    if (!use_) return false;
    entryPrompt_->setText(prompt_);
    entry_->setText(text);
    entryRow_->show();
    entry_->setFocus();
    return true;
}

void Page::keyPressEvent(QKeyEvent* event) {
    const QString text = event->text();
    const bool digit = !text.isEmpty() && QStringLiteral("0123456789.,-").contains(text[0]) &&
                       !(event->modifiers() & (Qt::ControlModifier | Qt::AltModifier));
    if (event->key() == Qt::Key_Escape) {
        if (work_.running()) {
            work_.stop();
        } else if (entryRow_->isVisible()) {
            closeEntry();
        } else {
            emit left();
        }
    } else if (digit && use_ && !entryRow_->isVisible()) {
        entry_->setAccessibleName(prompt_);
        offer(text);
    } else {
        QWidget::keyPressEvent(event);
    }
}

void Page::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    if (!entryRow_->isVisible()) setFocus();
}

void Page::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    sideBox_->setFixedWidth(width() < 1000 ? 312 : 372);
    if (!bigOnly_) setCompact(height() < 680);
}

void Page::setBigOnly(bool on) {
    bigOnly_ = on;
    sideBox_->setVisible(!on && side_->count() > 0);  // a page without facts gives their room away
    why_->setVisible(!on);
    keyRow_->setVisible(!on);
}

void Page::showLine(const QString& line, VerdictState state) { note_->show(line, state); }

}  // namespace ombrek
