#include "desk/key_sheet.h"

#include <QKeyEvent>
#include <QPainter>
#include <QVBoxLayout>

#include "desk/page.h"
#include "desk/pieces/key_cap.h"
#include "desk/pieces/text.h"
#include "desk/rooms.h"

namespace ombrek {

KeySheet::KeySheet(Rooms& rooms) : QWidget(rooms.centralWidget()), rooms_(rooms) {
    setFocusPolicy(Qt::StrongFocus);
    setObjectName(QStringLiteral("keys-sheet"));
    setAccessibleName(QStringLiteral("Keys"));
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(60, 36, 40, 30);
    hide();
}

void KeySheet::open() {
    delete columns_;
    columns_ = new QWidget;
    layout()->addWidget(columns_);
    auto* row = new QHBoxLayout(columns_);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(40);
    auto* left = new QVBoxLayout;
    auto* right = new QVBoxLayout;
    row->addLayout(left, 1);
    row->addLayout(right, 1);
    fill(left, QStringLiteral("Keys on %1").arg(rooms_.page()->name()), rooms_.page()->actions());
    fill(right, QStringLiteral("Everywhere"), rooms_.actions());
    if (rooms_.page()->takesNumbers()) {
        auto* digits = textLabel(14, false, "soft");
        digits->setText(QStringLiteral("0 … 9 type a reading; Enter takes it, Esc leaves."));
        left->insertWidget(left->count() - 1, digits);
    }
    setGeometry(rooms_.centralWidget()->rect());
    show();
    raise();
    setFocus();
}

void KeySheet::fill(QVBoxLayout* column, const QString& title, const QList<QAction*>& acts) {
    column->setSpacing(2);
    auto* head = textLabel(24, true);
    head->setText(title);
    column->addWidget(head);
    column->addSpacing(10);
    for (QAction* act : acts) {
        auto* cap = new KeyCap(act, act->property(act::kKey).toString());
        connect(cap, &KeyCap::chosen, this, &KeySheet::leave);
        column->addWidget(cap);
    }
    column->addStretch(1);
}

void KeySheet::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), coloursOf(*this).paper);
}

void KeySheet::leave() {
    hide();
    rooms_.page()->takeFocus();
}

void KeySheet::keyPressEvent(QKeyEvent*) { leave(); }
void KeySheet::mousePressEvent(QMouseEvent*) { leave(); }

}  // namespace ombrek
