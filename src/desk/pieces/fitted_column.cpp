#include "desk/pieces/fitted_column.h"

#include <QCoreApplication>
#include <QEvent>
#include <algorithm>

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

/// A card that is left out has nobody told when it holds less.
bool FittedColumn::eventFilter(QObject* on, QEvent* event) {
    if (event->type() == QEvent::LayoutRequest && qobject_cast<QWidget*>(on)->isHidden() && !fitting_)
        QCoreApplication::postEvent(this, new QEvent(QEvent::LayoutRequest));
    return false;
}

void FittedColumn::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    fit();
}

void FittedColumn::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
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

std::vector<Card*> FittedColumn::cards() const {
    const auto found = findChildren<Card*>();
    return {found.begin(), found.end()};
}

void FittedColumn::leaveOut(QWidget* piece, bool out) {
    if (auto* card = qobject_cast<Card*>(piece)) {
        card->leaveOut(out);
        if (out) card->installEventFilter(this);
    } else {
        piece->setVisible(!out);
        if (out) leftOut_.push_back(piece);
    }
}

void FittedColumn::fit() {
    if (fitting_ || !isVisible()) return;
    fitting_ = true;
    // From the start each time, so that the same things in the same room always come out alike.
    for (QWidget* piece : leftOut_) piece->show();
    leftOut_.clear();
    for (Card* card : cards()) {
        card->leaveOut(false);
        card->setBrief(false);
        card->setClose(false);
    }
    share();
    giveWay();
    rest();
    fitting_ = false;
}

/// Whether all finds room, measured as it is now: what was changed inside is told outwards first, the
/// innermost first, or sizes would be those of before.
bool FittedColumn::fits() {
    const auto inside = findChildren<QWidget*>();
    for (auto each = inside.rbegin(); each != inside.rend(); ++each) {
        if ((*each)->layout() != nullptr) (*each)->layout()->activate();
    }
    column_->invalidate();
    return needed() <= height();
}

void FittedColumn::giveWay() {
    if (fits()) return;
    for (Card* card : cards()) card->setClose(true);
    for (int i = column_->count() - 1; i > 0 && !fits(); --i) {
        QWidget* piece = column_->itemAt(i)->widget();
        const auto* card = qobject_cast<Card*>(piece);
        if (piece == nullptr || piece->isHidden() || (card != nullptr && card->keeps())) continue;
        leaveOut(piece, true);
    }
    for (int i = column_->count() - 1; i >= 0 && !fits(); --i) {
        auto* card = qobject_cast<Card*>(column_->itemAt(i)->widget());
        if (card != nullptr && !card->isHidden() && !card->caution().isEmpty()) card->setBrief(true);
    }
    const auto bearsCaution = [](const Card* card) { return card->keeps() && !card->isHidden(); };
    const auto all = cards();
    QWidget* first = column_->itemAt(0) == nullptr ? nullptr : column_->itemAt(0)->widget();
    const auto* card = qobject_cast<Card*>(first);
    if (!fits() && first != nullptr && !first->isHidden() && !(card != nullptr && card->keeps()) &&
        std::any_of(all.begin(), all.end(), bearsCaution))
        leaveOut(first, true);
}

/// All that was asked for on the way is done here; left to come by itself, it would have this fitted again
/// without end.
void FittedColumn::rest() {
    fits();
    column_->activate();
    for (QWidget* each : findChildren<QWidget*>())
        QCoreApplication::removePostedEvents(each, QEvent::LayoutRequest);
    QCoreApplication::removePostedEvents(this, QEvent::LayoutRequest);
}

}  // namespace ombrek
