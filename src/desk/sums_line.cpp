#include "desk/sums_line.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QVBoxLayout>

#include "desk/pieces/text.h"
#include "desk/session.h"

namespace ombrek {

SumsLine::SumsLine(const std::vector<MagneticCore>& cores, QWidget* parent)
    : QFrame(parent),
      cores_(cores),
      typed_(new QLineEdit),
      answer_(textLabel(17, true, "copper")),
      working_(textLabel(13, false, "soft")),
      today_(textLabel(13, false, "soft")),
      remaining_(textLabel(13, false, "soft")) {
    setObjectName(QStringLiteral("bottom"));
    setFixedHeight(withText(62));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(30, 6, 26, 6);
    row->setSpacing(14);
    auto* name = textLabel(14, false, "soft");
    name->setText(QStringLiteral("Sums"));
    name->setWordWrap(false);
    row->addWidget(name);
    typed_->setFont(benchFont(17));
    typed_->setFixedWidth(withText(250));
    typed_->setPlaceholderText(QStringLiteral("Ctrl+K, then 104 or 4k7"));
    typed_->setAccessibleName(QStringLiteral("Sums"));
    typed_->installEventFilter(this);
    row->addWidget(typed_);
    auto* answers = new QVBoxLayout;
    answers->setSpacing(0);
    answer_->setWordWrap(false);
    working_->setWordWrap(false);
    for (QLabel* label : {answer_, working_})
        label->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    answers->addWidget(answer_);
    answers->addWidget(working_);
    row->addLayout(answers, 1);
    auto* sitting = new QVBoxLayout;
    sitting->setSpacing(0);
    for (QLabel* label : {today_, remaining_}) {
        label->setAlignment(Qt::AlignRight);
        label->setWordWrap(false);
        sitting->addWidget(label);
    }
    row->addLayout(sitting);
    connect(typed_, &QLineEdit::textChanged, this, [this] { answer(); });
}

void SumsLine::setLow(bool low) {
    setFixedHeight(withText(low ? 46 : 62));
    const int edge = low ? 2 : 6;
    layout()->setContentsMargins(30, edge, 26, edge);
}

void SumsLine::begin() {
    typed_->setFocus();
    typed_->selectAll();
}

void SumsLine::setSitting(const QString& today, const QString& left) {
    say(today_, today);
    say(remaining_, left);
    fitSitting();
}

void SumsLine::resizeEvent(QResizeEvent* event) {
    QFrame::resizeEvent(event);
    fitSitting();
}

/// The sitting's words are left out where they would lie under the sums.
void SumsLine::fitSitting() {
    const int words = std::max(today_->sizeHint().width(), remaining_->sizeHint().width());
    const bool fits = typed_->x() + typed_->width() + 60 + words <= width();
    for (QLabel* label : {today_, remaining_}) label->setVisible(fits);
}

void SumsLine::answer() {
    at_ = 0;
    answers_.clear();
    const QString text = typed_->text().trimmed();
    if (text.isEmpty()) {
        answer_->clear();
        working_->clear();
        return;
    }
    auto found = answerSum(text.toStdString(), cores_);
    if (!found) {
        answer_->clear();
        working_->setText(qs(found.error().sentence));
        return;
    }
    answers_ = std::move(*found);
    showNext(0);
}

void SumsLine::showNext(int by) {
    if (answers_.empty()) return;
    at_ = (at_ + answers_.size() + std::size_t(by + int(answers_.size()))) % answers_.size();
    const SumAnswer& a = answers_[at_];
    answer_->setText(qs(a.text));
    QString working = qs(a.working.text()).replace(QChar('\n'), QStringLiteral("; "));
    if (answers_.size() > 1) {
        working = QStringLiteral("%1 (%2 of %3, Down for the next). %4")
                      .arg(qs(a.meaning))
                      .arg(at_ + 1)
                      .arg(answers_.size())
                      .arg(working);
    }
    working_->setText(working);
    working_->setToolTip(working);
    answer_->setAccessibleName(qs(a.meaning + ": " + a.text));
}

bool SumsLine::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress) return QFrame::eventFilter(watched, event);
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Down || key == Qt::Key_Up) {
        showNext(key == Qt::Key_Down ? 1 : -1);
        return true;
    }
    if (key == Qt::Key_Escape) {
        emit left();
        return true;
    }
    if (key == Qt::Key_Return || key == Qt::Key_Enter) {
        if (!answers_.empty()) {
            const SumAnswer& a = answers_[at_];
            emit used(qs(formatQuantity(a.value, a.unit, 9)));
        }
        return true;
    }
    return QFrame::eventFilter(watched, event);
}

}  // namespace ombrek
