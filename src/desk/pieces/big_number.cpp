#include "desk/pieces/big_number.h"

#include <QPainter>

#include "look/colours.h"

namespace ombrek {

BigNumber::BigNumber(int pixels, QWidget* parent) : QWidget(parent), pixels_(pixels) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void BigNumber::show(const QString& number, const QString& unit) {
    number_ = number;
    unit_ = unit;
    quiet_ = false;
    setAccessibleName(number + QChar(' ') + unit);
    update();
}

void BigNumber::showWord(const QString& word) {
    show(word, QString());
    quiet_ = true;
}

void BigNumber::setPixels(int pixels) {
    pixels_ = pixels;
    updateGeometry();
}

void BigNumber::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Colours& c = coloursOf(*this);
    int pixels = quiet_ ? pixels_ / 2 : pixels_;
    const auto widthAt = [&](int size) {
        return QFontMetrics(benchFont(size, !quiet_)).horizontalAdvance(number_) +
               QFontMetrics(benchFont(size * 2 / 5)).horizontalAdvance(unit_) + size / 4;
    };
    while (pixels > (quiet_ ? 22 : 28) && widthAt(pixels) > width()) pixels -= 2;
    const QFont large = benchFont(pixels, !quiet_);
    p.setFont(large);
    p.setPen(quiet_ ? c.soft : c.ink);
    const int baseline = (height() + QFontMetrics(large).capHeight()) / 2;
    p.drawText(0, baseline, number_);
    const int x = QFontMetrics(large).horizontalAdvance(number_) + pixels / 5;
    p.setFont(benchFont(pixels * 2 / 5));
    p.setPen(c.soft);
    p.drawText(x, baseline, unit_);
}

}  // namespace ombrek
