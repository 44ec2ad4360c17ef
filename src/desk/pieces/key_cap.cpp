#include "desk/pieces/key_cap.h"

#include <QKeyEvent>
#include <QPainter>

#include "look/colours.h"

namespace ombrek {
namespace {

int capHeight() { return withText(26); }
constexpr int kGap = 8;  ///< between the cap and its words

/// Space and Enter on a cap that has the focus click it, whatever the page does with them.
bool clicks(const QKeyEvent& event) {
    return event.key() == Qt::Key_Space || event.key() == Qt::Key_Return || event.key() == Qt::Key_Enter;
}

}  // namespace

KeyCap::KeyCap(QAction* act, const QString& key, QWidget* parent)
    : QAbstractButton(parent), act_(act), key_(key) {
    setFocusPolicy(Qt::TabFocus);
    setCursor(Qt::PointingHandCursor);
    connect(this, &QAbstractButton::clicked, act, [this, act] {
        emit chosen();
        act->trigger();
    });
    connect(act, &QAction::changed, this, &KeyCap::follow);
    follow();
}

void KeyCap::follow() {
    if (!act_) return;
    setEnabled(act_->isEnabled());
    setText(act_->iconText());
    setToolTip(act_->toolTip());
    setAccessibleName(act_->text());
    setAccessibleDescription(act_->toolTip());
    updateGeometry();
    update();
}

int KeyCap::capWidth() const {
    return std::max(capHeight() - 2, QFontMetrics(benchFont(13, true)).horizontalAdvance(key_) + 16);
}

QSize KeyCap::sizeHint() const {
    return {capWidth() + kGap + QFontMetrics(benchFont(14)).horizontalAdvance(text()) + 4, capHeight()};
}

bool KeyCap::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride && clicks(static_cast<QKeyEvent&>(*event))) event->accept();
    return QAbstractButton::event(event);
}

void KeyCap::keyPressEvent(QKeyEvent* event) {
    if (clicks(*event) && !event->isAutoRepeat()) return click();
    QAbstractButton::keyPressEvent(event);
}

void KeyCap::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    const bool hot = isEnabled() && (underMouse() || hasFocus());
    const QRectF cap(1.5, 2.5, capWidth() - 3.0, height() - 5.0);
    p.setPen(QPen(hot ? c.copper : c.line, hasFocus() ? 2.5 : 1.5));
    p.setBrush(isDown() ? c.line : c.card);
    p.drawRoundedRect(cap, 5, 5);
    p.setFont(benchFont(13, true));
    p.setPen(isEnabled() ? c.ink : c.notDone);
    p.drawText(cap, Qt::AlignCenter, key_);
    p.setFont(benchFont(14));
    p.setPen(!isEnabled() ? c.notDone : hot ? c.ink : c.soft);
    p.drawText(QRectF(capWidth() + kGap, 0, width() - capWidth() - kGap, height()),
               Qt::AlignLeft | Qt::AlignVCenter, text());
}

void KeyCap::enterEvent(QEnterEvent* event) {
    update();
    QAbstractButton::enterEvent(event);
}

void KeyCap::leaveEvent(QEvent* event) {
    update();
    QAbstractButton::leaveEvent(event);
}

FlowLayout::FlowLayout(int across, int down) : across_(across), down_(down) {
    setContentsMargins(0, 0, 0, 0);
}

FlowLayout::~FlowLayout() { qDeleteAll(items_); }

QLayoutItem* FlowLayout::takeAt(int index) {
    return index >= 0 && index < items_.size() ? items_.takeAt(index) : nullptr;
}

QSize FlowLayout::minimumSize() const {
    QSize out(0, 0);
    for (const QLayoutItem* item : items_) {
        if (!item->isEmpty()) out = out.expandedTo(item->minimumSize());
    }
    return out;
}

void FlowLayout::setGeometry(const QRect& rect) {
    QLayout::setGeometry(rect);
    arrange(rect, true);
}

/// @return height of all lines
int FlowLayout::arrange(const QRect& rect, bool place) const {
    QList<QLayoutItem*> shown;
    for (QLayoutItem* item : items_) {
        if (!item->isEmpty()) shown << item;
    }
    int x = rect.x(), y = rect.y(), line = 0, lines = 1;
    const auto fits = [&](int width) { return x == rect.x() || x + width <= rect.right() + 1; };
    for (qsizetype i = 0; i < shown.size(); ++i) {
        const QSize size = shown[i]->sizeHint();
        const bool last = i + 1 == shown.size();
        // On the last line that there may be, room is kept for the last thing.
        const int kept = last || lines != most_ ? 0 : across_ + shown.back()->sizeHint().width();
        if (!fits(size.width() + kept)) {
            if (lines == most_ && !last) {
                if (place) shown[i]->setGeometry({rect.x(), -10000, 0, 0});
                continue;
            }
            x = rect.x();
            y += line + down_;
            line = 0;
            ++lines;
        }
        if (place) shown[i]->setGeometry({{x, y}, size});
        x += size.width() + across_;
        line = std::max(line, size.height());
    }
    return y + line - rect.y();
}

}  // namespace ombrek
