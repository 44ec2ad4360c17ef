#include "desk/pieces/card.h"

#include <QGridLayout>
#include <QPainter>
#include <algorithm>

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

constexpr int kLong = 26;  ///< characters of a value beyond which it is wrapped

/// A small verdict mark as a widget.
class MarkDot : public QWidget {
 public:
    MarkDot(VerdictState state, QWidget* parent) : QWidget(parent), state_(state) { setFixedSize(16, 16); }

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
    layout_->setContentsMargins(22, 16, 20, 16);
    layout_->setSpacing(9);
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
    title_->setVisible(!title.isEmpty());
    setAccessibleName(title);
}

void Card::setFacts(const std::vector<Fact>& facts) {
    if (facts == shown_) return;
    shown_ = facts;
    delete facts_;
    facts_ = nullptr;
    if (facts.empty()) return;
    facts_ = new QWidget(this);
    auto* grid = new QGridLayout(facts_);
    grid->setContentsMargins(0, 2, 0, 2);
    grid->setVerticalSpacing(9);
    grid->setHorizontalSpacing(8);
    grid->setColumnStretch(0, 1);
    const bool wide =
        std::any_of(facts.begin(), facts.end(), [](const Fact& f) { return f.value.size() > kLong; });
    grid->setColumnStretch(2, wide ? 2 : 0);
    int row = 0;
    for (const Fact& fact : facts) {
        auto* name = textLabel(15, false, "soft", facts_);
        name->setText(fact.name);
        name->setWordWrap(false);
        auto* value = textLabel(15, false, "", facts_);
        value->setText(fact.value);
        value->setWordWrap(fact.value.size() > kLong);
        value->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
        grid->addWidget(name, row, 0);
        if (fact.marked) grid->addWidget(new MarkDot(fact.state, facts_), row, 1);
        grid->addWidget(value, row, 2);
        ++row;
    }
    layout_->insertWidget(1, facts_);
    facts_->show();
}

void Card::setText(const QString& text) {
    say(text_, text);
    text_->setVisible(!text.isEmpty());
}

void Card::setCaution(const QString& text) { caution_->setText(text); }

void Card::addBody(QWidget* widget, int stretch) { body_->addWidget(widget, stretch); }

void Card::fillWithBody() {
    layout_->setStretchFactor(body_, 1);
    layout_->setStretch(layout_->count() - 1, 0);
}

}  // namespace ombrek
