#include "desk/tune/trimmer_view.h"

#include <QPainter>
#include <cmath>
#include <numbers>

#include "look/colours.h"

namespace ombrek {

TrimmerView::TrimmerView(QWidget* parent) : QWidget(parent) { setFixedSize(150, 150); }

void TrimmerView::show(double position, double wanted) {
    position_ = position;
    wanted_ = wanted;
    setAccessibleName(QStringLiteral("Trimmer at %1 %, go to %2 %")
                          .arg(std::lround(position * 100))
                          .arg(std::lround(wanted * 100)));
    update();
}

void TrimmerView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    const QPointF middle(75, 75);
    const auto at = [&](double position,
                        double radius) {  // half a turn from least (left) to most (right), over the top
        const double angle = std::numbers::pi * (1.0 - position);
        return middle + QPointF(std::cos(angle), -std::sin(angle)) * radius;
    };
    p.setPen(Qt::NoPen);
    p.setBrush(c.core);
    p.drawEllipse(middle, 50, 50);
    p.setBrush(c.copperLight);  // the stator plate: the lower half
    p.drawPie(QRectF(31, 31, 88, 88), 180 * 16, 180 * 16);
    p.setBrush(c.copper);  // the rotor plate covers it more and more
    p.drawPie(QRectF(37, 37, 76, 76), int((180 - 180 * position_) * 16), 180 * 16);
    p.setPen(QPen(c.card, 5, Qt::SolidLine, Qt::RoundCap));
    p.drawLine(at(position_, 14), at(position_ + 1, 14));
    p.setPen(QPen(c.ink, 3, Qt::SolidLine, Qt::RoundCap));
    p.drawLine(at(position_, 52), at(position_, 64));
    p.setPen(QPen(c.copper, 2.5));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(at(std::clamp(wanted_, 0.0, 1.0), 66), 5, 5);
    p.setFont(benchFont(12));
    p.setPen(c.soft);
    p.drawText(QRectF(0, 78, 22, 18), Qt::AlignCenter, QStringLiteral("0"));
    p.drawText(QRectF(122, 78, 28, 18), Qt::AlignCenter, QStringLiteral("100"));
}

}  // namespace ombrek
