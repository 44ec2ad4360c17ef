#include "desk/pieces/band_picker.h"

#include <QKeyEvent>
#include <QPainter>

#include "core/parts/bands.h"
#include "look/part_picture.h"

namespace ombrek {
namespace {

constexpr int kMost = 6, kPerRow = 7;

QString nameOf(int colour) { return QString::fromStdString(bandColours()[std::size_t(colour)]); }

/// "0" … "9", then the letters of the metals and pink.
QString keyOf(int colour) { return colour < 10 ? QString::number(colour) : nameOf(colour).left(1).toUpper(); }

int colours() { return int(bandColours().size()); }

}  // namespace

BandPicker::BandPicker(QWidget* parent) : QWidget(parent) {
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(252);
    setAccessibleName(QStringLiteral("Colour bands"));
    hide();
}

void BandPicker::begin() {
    bands_.clear();
    at_ = 1;
    show();
    setFocus();
    tell();
}

void BandPicker::tell() {
    setAccessibleDescription(bands_.join(QChar(' ')));
    emit changed(bands_);
    update();
}

void BandPicker::add(int colour) {
    if (bands_.size() >= kMost) return;
    bands_ << nameOf(colour);
    tell();
}

QRectF BandPicker::swatch(int colour) const {
    const double pitch = width() / double(kPerRow);
    const int column = colour % kPerRow, row = colour / kPerRow;
    return {pitch * column + 4, 110.0 + 70 * row, pitch - 8, 62};
}

void BandPicker::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    drawBands(p, QRectF(0, 4, width(), 92), bands_, std::max(4, std::min(kMost, int(bands_.size()) + 1)),
              int(bands_.size()), c);
    for (int i = 0; i < colours(); ++i) {
        const QRectF r = swatch(i);
        p.setPen(QPen(i == at_ ? c.copper : c.line, i == at_ ? 3 : 1));
        p.setBrush(c.card);
        p.drawRoundedRect(r, 6, 6);
        p.setPen(QPen(c.ink, 1));
        p.setBrush(bandColour(nameOf(i)));
        p.drawRect(QRectF(r.left() + 8, r.top() + 8, 16, r.height() - 16));
        p.setPen(c.ink);
        p.setFont(benchFont(18, true));
        p.drawText(QRectF(r.left() + 32, r.top() + 4, r.width() - 36, 28), Qt::AlignLeft | Qt::AlignVCenter,
                   keyOf(i));
        p.setFont(benchFont(14));
        p.drawText(QRectF(r.left() + 32, r.top() + 32, r.width() - 34, 24), Qt::AlignLeft | Qt::AlignVCenter,
                   nameOf(i));
    }
}

/// While bands are entered every plain key is the picker's, not the page's.
bool BandPicker::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride &&
        !(static_cast<QKeyEvent*>(event)->modifiers() & (Qt::ControlModifier | Qt::AltModifier)))
        event->accept();
    return QWidget::event(event);
}

void BandPicker::keyPressEvent(QKeyEvent* event) {
    const QString text = event->text().toUpper();
    switch (event->key()) {
        case Qt::Key_Escape:
            hide();
            emit left();
            return;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            hide();
            emit used(bands_);
            return;
        case Qt::Key_Backspace:
            if (!bands_.isEmpty()) bands_.removeLast();
            return tell();
        case Qt::Key_Space:
            return add(at_);
        case Qt::Key_Left:
        case Qt::Key_Right:
        case Qt::Key_Up:
        case Qt::Key_Down: {
            const int by = event->key() == Qt::Key_Left    ? -1
                           : event->key() == Qt::Key_Right ? 1
                           : event->key() == Qt::Key_Up    ? -kPerRow
                                                           : kPerRow;
            at_ = std::clamp(at_ + by, 0, colours() - 1);
            return update();
        }
        default:
            break;
    }
    for (int i = 0; i < colours(); ++i) {
        if (text == keyOf(i)) return add(i);
    }
    event->accept();  // no other key of the page works while bands are entered
}

void BandPicker::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < colours(); ++i) {
        if (swatch(i).contains(event->position())) {
            at_ = i;
            return add(i);
        }
    }
}

}  // namespace ombrek
