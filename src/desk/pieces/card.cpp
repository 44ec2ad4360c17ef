#include "desk/pieces/card.h"

#include <QGridLayout>
#include <QPainter>
#include <QResizeEvent>
#include <algorithm>

#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "look/verdict_mark.h"

namespace ombrek {

/// A caution's own mark (a bar in a frame) and its sentence.
class CautionLine : public QWidget {
 public:
    explicit CautionLine(QWidget* parent) : QWidget(parent), label_(textLabel(14, false, "", this)) {
        auto* layout = new QHBoxLayout(this);
        layout->setContentsMargins(26, 2, 0, 2);
        layout->addWidget(label_);
    }
    void setText(const QString& text) {
        say(label_, text);
        setVisible(!text.isEmpty());
        setAccessibleName(QStringLiteral("Caution: ") + text);
    }
    const QLabel& label() const { return *label_; }

 protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const QColor c = coloursOf(*this).fail;
        p.setPen(QPen(c, 2));
        p.drawRoundedRect(QRectF(2, 4, 16, 16), 3, 3);
        p.setPen(QPen(c, 2.4, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(QPointF(10, 8), QPointF(10, 12.5));
        p.drawPoint(QPointF(10, 16.2));
    }

 private:
    QLabel* label_;
};

namespace {

constexpr int kSides = 42;           ///< left and right margins [px]
constexpr int kMark = 16, kGap = 8;  ///< a mark, and what lies between columns [px]

/// Distances in a card, roomy and close [px].
struct Spacing {
    int rows, parts, margin;
};
constexpr Spacing kRoomy{9, 9, 16}, kClose{1, 3, 8};

/// A small verdict mark as a widget.
class MarkDot : public QWidget {
 public:
    MarkDot(VerdictState state, QWidget* parent) : QWidget(parent), state_(state) {
        setFixedSize(kMark, kMark);
    }

 protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        drawVerdictMark(p, QRectF(1, 1, 14, 14), state_, coloursOf(*this));
    }

 private:
    VerdictState state_;
};

}  // namespace

Card::Card(QWidget* parent)
    : QFrame(parent),
      layout_(new QVBoxLayout(this)),
      title_(textLabel(16, true, "", this)),
      body_(new QVBoxLayout),
      text_(textLabel(14, false, "", this)),
      caution_(new CautionLine(this)) {
    setObjectName(QStringLiteral("card"));
    layout_->setContentsMargins(22, kRoomy.margin, 20, kRoomy.margin);
    layout_->setSpacing(kRoomy.parts);
    layout_->addWidget(title_);
    layout_->addLayout(body_);
    layout_->addWidget(text_);
    layout_->addWidget(caution_);
    layout_->addStretch(1);
    title_->hide();
    text_->hide();
    caution_->hide();
}

void Card::setTitle(const QString& title) {
    say(title_, title);
    if (!brief_) title_->setVisible(!title.isEmpty());
    setAccessibleName(title);
}

void Card::setFacts(const std::vector<Fact>& facts) {
    if (facts == shown_) return;
    setBrief(false);  // the column looks again
    shown_ = facts;
    delete facts_;
    facts_ = nullptr;
    names_.clear();
    values_.clear();
    if (facts.empty()) return;
    facts_ = new QWidget(this);
    auto* grid = new QGridLayout(facts_);
    grid->setContentsMargins(0, 2, 0, 2);
    grid->setVerticalSpacing((close_ ? kClose : kRoomy).rows);
    grid->setHorizontalSpacing(kGap);
    grid->setColumnStretch(0, 1);
    int row = 0;
    for (const Fact& fact : facts) {
        auto* name = textLabel(15, false, "soft", facts_);
        name->setText(fact.name);
        name->setWordWrap(false);
        auto* value = textLabel(15, false, "", facts_);
        value->setText(fact.value);
        value->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
        grid->addWidget(name, row, 0);
        if (fact.marked) grid->addWidget(new MarkDot(fact.state, facts_), row, 1);
        grid->addWidget(value, row, 2);
        names_.push_back(name);
        values_.push_back(value);
        ++row;
    }
    wrapValues();
    layout_->insertWidget(1, facts_);
    facts_->show();
}

void Card::setClose(bool on) {
    if (on == close_) return;
    close_ = on;
    const Spacing& s = on ? kClose : kRoomy;
    layout_->setContentsMargins(22, s.margin, 20, s.margin);
    layout_->setSpacing(s.parts);
    if (facts_ != nullptr) static_cast<QGridLayout*>(facts_->layout())->setVerticalSpacing(s.rows);
}

void Card::setBrief(bool on) {
    if (on == brief_) return;
    brief_ = on;
    for (const auto& piece : put_) {
        if (piece) piece->show();
    }
    put_.clear();
    if (!on) return;
    std::vector<QWidget*> pieces{facts_, text_, title_};
    for (int i = 0; i < body_->count(); ++i) pieces.push_back(body_->itemAt(i)->widget());
    for (QWidget* piece : pieces) {
        if (piece == nullptr || piece->isHidden()) continue;
        piece->hide();
        put_.emplace_back(piece);
    }
}

void Card::leaveOut(bool out) {
    if (out == leftOut_) return;
    leftOut_ = out;
    QFrame::setVisible(wanted_ && !leftOut_);
}

void Card::setVisible(bool on) {
    wanted_ = on;
    QFrame::setVisible(on && !leftOut_);
}

QString Card::caution() const { return caution_->isHidden() ? QString() : caution_->label().text(); }

const QLabel* Card::cautionLabel() const { return &caution_->label(); }

void Card::resizeEvent(QResizeEvent* event) {
    QFrame::resizeEvent(event);
    if (event->oldSize().width() != event->size().width()) wrapValues();
}

/// A value that finds no room beside the longest name goes on in a second line; where even its longest word
/// finds none, the names do.
void Card::wrapValues() {
    int longest = 0, word = 0;
    for (const QLabel* name : names_)
        longest = std::max(longest, name->fontMetrics().horizontalAdvance(name->text()) + 2);
    for (const QLabel* value : values_) {
        for (const QString& one : value->text().split(QChar(' ')))
            word = std::max(word, value->fontMetrics().horizontalAdvance(one) + 2);
    }
    const bool marked = std::any_of(shown_.begin(), shown_.end(), [](const Fact& f) { return f.marked; });
    const int whole = width() - kSides - kGap - (marked ? kMark + kGap : 0);
    const int named = std::min(longest, std::max(whole - word, whole / 3));
    for (QLabel* name : names_) {
        const bool wraps = name->fontMetrics().horizontalAdvance(name->text()) + 2 > named;
        name->setWordWrap(wraps);
        name->setMinimumWidth(wraps ? named : 0);
    }
    const int room = whole - named;
    for (QLabel* value : values_) {
        const int wide = value->fontMetrics().horizontalAdvance(value->text()) + 2;
        value->setWordWrap(wide > room);
        value->setMinimumWidth(std::clamp(wide, 0, std::max(room, 60)));
    }
}

void Card::setText(const QString& text) {
    if (text != text_->text()) setBrief(false);
    say(text_, text);
    if (!brief_) text_->setVisible(!text.isEmpty());
}

void Card::setCaution(const QString& text) { caution_->setText(text); }

void Card::addBody(QWidget* widget, int stretch) { body_->addWidget(widget, stretch); }

int Card::most() const {
    const auto* list = findChild<const StateList*>();
    if (!fills_ || list == nullptr || body_->count() != 1 || !list->isVisibleTo(this)) return QWIDGETSIZE_MAX;
    const int around = hasHeightForWidth() ? heightForWidth(width()) : sizeHint().height();
    return around - list->sizeHint().height() +
           std::max(list->wholeHeight(), list->minimumSizeHint().height());
}

void Card::fillWithBody() {
    fills_ = true;
    layout_->setStretchFactor(body_, 1);
    layout_->setStretch(layout_->count() - 1, 0);
}

}  // namespace ombrek
