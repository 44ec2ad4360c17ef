#include "desk/pieces/fitted_column.h"

#include <QEvent>

#include "desk/pieces/card.h"

namespace ombrek {

FittedColumn::FittedColumn(int spacing, QWidget* parent) : QWidget(parent), column_(new QVBoxLayout(this)) {
    column_->setContentsMargins(0, 0, 0, 0);
    column_->setSpacing(spacing);
}

/// A card is as high as what it holds; one with a list or a picture takes what is left, no more than all its
/// rows want. What then is left is paper.
void FittedColumn::share() {
    QSpacerItem* rest = nullptr;
    for (int i = 0; i < column_->count(); ++i) {
        auto* card = qobject_cast<Card*>(column_->itemAt(i)->widget());
        if (card != nullptr) {
            if (!card->fills()) column_->setStretch(i, 0);
            if (const int most = card->most(); card->maximumHeight() != most) card->setMaximumHeight(most);
        }
        rest = column_->itemAt(i)->spacerItem();
    }
    if (rest == nullptr || !(rest->expandingDirections() & Qt::Vertical))
        column_->addItem(new QSpacerItem(0, 0, QSizePolicy::Minimum, QSizePolicy::Expanding));
}

bool FittedColumn::event(QEvent* event) {
    const bool asked = event->type() == QEvent::LayoutRequest;
    const bool done = QWidget::event(event);
    if (asked) fit();
    return done;
}

void FittedColumn::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    fit();
}

/// Height below which the layout cuts what is shown [px]: it takes what depends on the width for the least.
int FittedColumn::needed() const {
    int height = -column_->spacing();
    for (int i = 0; i < column_->count(); ++i) {
        QLayoutItem* item = column_->itemAt(i);
        if (item->isEmpty()) continue;
        height += column_->spacing() +
                  (item->hasHeightForWidth() ? item->heightForWidth(width()) : item->minimumSize().height());
    }
    return height;
}

/// What a card that is left out would want now: it may hold less than when it was.
int FittedColumn::heightOf(const QWidget& card) const {
    if (QLayout* layout = card.layout()) layout->invalidate();
    return card.hasHeightForWidth() ? card.heightForWidth(width()) : card.minimumSizeHint().height();
}

/// Height that is won by setting the cards closer [px].
int FittedColumn::closeSaves() const {
    int saved = 0;
    for (const Card* card : findChildren<Card*>()) saved += card->isVisibleTo(this) ? card->closeSaves() : 0;
    return saved;
}

void FittedColumn::setClose(bool on) {
    close_ = on;
    for (Card* card : findChildren<Card*>()) card->setClose(on);
}

void FittedColumn::fit() {
    if (fitting_ || !isVisible()) return;
    fitting_ = true;
    share();
    if (close_ && needed() + closeSaves() <= height() && leftOut_.empty()) setClose(false);
    if (!close_ && needed() > height()) setClose(true);
    while (!leftOut_.empty() && needed() + column_->spacing() + heightOf(*leftOut_.back()) <= height()) {
        leftOut_.back()->show();
        leftOut_.pop_back();
    }
    for (int i = column_->count() - 1; i > 0 && needed() > height(); --i) {
        QWidget* card = column_->itemAt(i)->widget();
        if (card == nullptr || !card->isVisibleTo(this)) continue;
        card->hide();
        column_->invalidate();
        leftOut_.push_back(card);
    }
    column_->activate();
    fitting_ = false;
}

}  // namespace ombrek
