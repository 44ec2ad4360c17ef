#include "desk/pieces/reading_card.h"

#include <cmath>

#include "desk/pieces/big_number.h"
#include "desk/pieces/gauge.h"
#include "desk/pieces/text.h"
#include "desk/pieces/verdict_line.h"

namespace ombrek {
namespace {

constexpr int kSmall = 64, kLarge = 92, kDoubled = 184;  ///< height of the number's type [px]

}  // namespace

ReadingCard::ReadingCard(QWidget* parent)
    : Card(parent),
      head_(textLabel(20, true)),
      beside_(textLabel(17)),
      hint_(textLabel(14, false, "soft")),
      number_(new BigNumber(kLarge)),
      verdict_(new VerdictLine),
      gauge_(new Gauge) {
    setTitle(QString());
    auto* sheet = new QWidget;
    auto* layout = new QVBoxLayout(sheet);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(4);
    auto* heads = new QHBoxLayout;
    beside_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    heads->addWidget(head_, 1);
    heads->addWidget(beside_, 1);
    layout->addLayout(heads);
    auto* row = new QHBoxLayout;
    row->addWidget(number_, 1);
    row->addWidget(verdict_, 1);
    layout->addLayout(row);
    layout->addWidget(gauge_);
    layout->addWidget(hint_);
    addBody(sheet);
}

void ReadingCard::show(const Content& content) {
    const Verdict& v = content.verdict;
    head_->setText(content.head);
    beside_->setText(content.beside);
    const bool read = std::isfinite(v.reading);
    if (read) {
        const SplitText split = splitQuantity(v.reading, v.unit, figuresFor(v.limits));
        number_->show(QString::fromStdString(split.number), QString::fromStdString(split.unit));
    } else {
        number_->showWord(content.word);
    }
    verdict_->show(v.state, v.sentence.empty() ? content.waiting : QString::fromStdString(v.sentence));
    gauge_->show(v, content.nominal);
    hint_->setText(!content.hint.isEmpty() ? content.hint
                   : read && v.uncertainty > 0
                       ? QStringLiteral("Bar: the meter's own error, ±%1. Hatched: one cannot be sure.")
                             .arg(QString::fromStdString(formatQuantity(v.uncertainty, v.unit, 2)))
                       : QString());
}

void ReadingCard::size() {
    const bool small = compact_ || close_;
    number_->setPixels(doubled_ ? kDoubled : small ? kSmall : kLarge);
    hint_->setVisible(!small);
}

void ReadingCard::setCompact(bool on) {
    compact_ = on;
    size();
}

void ReadingCard::setDoubled(bool on) {
    doubled_ = on;
    size();
}

void ReadingCard::setClose(bool on) {
    Card::setClose(on);
    close_ = on;
    size();
}

}  // namespace ombrek
