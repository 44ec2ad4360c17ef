#include "desk/tune/adjuster_view.h"

#include <QPainter>
#include <cmath>
#include <numbers>

#include "desk/session.h"
#include "look/colours.h"

namespace ombrek {
namespace {

constexpr int kSize = 150;

/// Of an adjuster that turns: the angle at its least, counterclockwise from three o'clock, and how far it
/// goes, clockwise [radians]. Half a turn for a trimmer, ten hours for all else.
struct Sweep {
    double least, sweep;
};
Sweep sweepOf(const Adjuster& a) {
    if (a.kind == Adjuster::Kind::trimmer) return {std::numbers::pi, std::numbers::pi};
    return {std::numbers::pi * 4 / 3, std::numbers::pi * 5 / 3};
}

QPointF onCircle(const Adjuster& a, QPointF middle, double position, double radius) {
    const Sweep s = sweepOf(a);
    const double angle = s.least - s.sweep * position;
    return middle + QPointF(std::cos(angle), -std::sin(angle)) * radius;
}

void drawPlates(QPainter& p, QPointF middle, double position, const Colours& c) {
    p.setPen(Qt::NoPen);
    p.setBrush(c.core);
    p.drawEllipse(middle, 50, 50);
    p.setBrush(c.copperLight);  // the stator plate: the lower half
    p.drawPie(QRectF(31, 31, 88, 88), 180 * 16, 180 * 16);
    p.setBrush(c.copper);  // the rotor plate covers it more and more
    p.drawPie(QRectF(37, 37, 76, 76), int((180 - 180 * position) * 16), 180 * 16);
}

void drawSlot(QPainter& p, const Adjuster& a, QPointF middle, double position, const Colours& c) {
    const QPointF end = onCircle(a, middle, position, 15);
    p.setPen(QPen(c.card, 5, Qt::SolidLine, Qt::RoundCap));
    p.drawLine(end, 2 * middle - end);
    p.setPen(QPen(c.ink, 3, Qt::SolidLine, Qt::RoundCap));
    p.drawLine(onCircle(a, middle, position, 52), onCircle(a, middle, position, 64));
}

/// What has no angle: a number in its range, as a column that fills.
void drawColumn(QPainter& p, const Adjuster& a, double position, double wanted, const Colours& c) {
    const QRectF box(60, 16, 30, 118);
    p.setPen(QPen(c.line, 1.5));
    p.setBrush(c.core);
    p.drawRoundedRect(box, 6, 6);
    p.setPen(Qt::NoPen);
    p.setBrush(c.copper);
    const double top = box.bottom() - box.height() * position;
    p.drawRoundedRect(QRectF(box.left(), top, box.width(), box.bottom() - top), 6, 6);
    p.setPen(QPen(c.ink, 3));
    const double to = box.bottom() - box.height() * wanted;
    p.drawLine(QPointF(box.left() - 8, to), QPointF(box.right() + 8, to));
    p.setFont(benchFont(12));
    p.setPen(c.soft);
    p.drawText(QRectF(92, box.bottom() - 12, 56, 16), Qt::AlignLeft | Qt::AlignVCenter,
               qs(positionText(a, 0)));
    p.drawText(QRectF(92, box.top() - 4, 56, 16), Qt::AlignLeft | Qt::AlignVCenter, qs(positionText(a, 1)));
}

bool turns(const Adjuster& a) {
    return a.kind != Adjuster::Kind::jumper && a.kind != Adjuster::Kind::menu &&
           a.kind != Adjuster::Kind::coil;
}

}  // namespace

AdjusterView::AdjusterView(QWidget* parent) : QWidget(parent) { setFixedSize(kSize, kSize); }

void AdjusterView::show(const Adjuster& adjuster, double position, double wanted) {
    adjuster_ = adjuster;
    position_ = std::clamp(position, 0.0, 1.0);
    wanted_ = std::clamp(wanted, 0.0, 1.0);
    setAccessibleName(QStringLiteral("It stands at %1, go to %2")
                          .arg(qs(positionText(adjuster, position_)), qs(positionText(adjuster, wanted_))));
    update();
}

void AdjusterView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    if (!turns(adjuster_)) return drawColumn(p, adjuster_, position_, wanted_, c);
    const QPointF middle(kSize / 2.0, kSize / 2.0);
    if (adjuster_.kind == Adjuster::Kind::trimmer) {
        drawPlates(p, middle, position_, c);
    } else {
        p.setPen(QPen(c.line, 1.5));
        p.setBrush(c.core);
        p.drawEllipse(middle, 50, 50);
        p.setPen(Qt::NoPen);
        p.setBrush(c.copper);
        p.drawEllipse(middle, 34, 34);
    }
    drawSlot(p, adjuster_, middle, position_, c);
    p.setPen(QPen(c.copper, 2.5));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(onCircle(adjuster_, middle, wanted_, 66), 5, 5);
    p.setFont(benchFont(12));
    p.setPen(c.soft);
    const bool trimmer = adjuster_.kind == Adjuster::Kind::trimmer;
    const double y = trimmer ? 78 : 128;
    p.drawText(QRectF(0, y, trimmer ? 22 : 44, 18), Qt::AlignCenter, QStringLiteral("0"));
    p.drawText(QRectF(trimmer ? 122 : 106, y, trimmer ? 28 : 44, 18), Qt::AlignCenter,
               trimmer ? QStringLiteral("100") : qs(positionText(adjuster_, 1)).section(QChar(0x202f), 0, 0));
}

void drawKnob(QPainter& p, const QRectF& box, const Adjuster& a, double position, double wanted,
              const QWidget& on) {
    const Colours& c = coloursOf(on);
    const QPointF middle = box.center();
    const double radius = box.width() / 2 - 6;
    p.setPen(QPen(c.ink, 1.5));
    p.setBrush(c.rail);
    p.drawEllipse(middle, radius, radius);
    p.setPen(QPen(c.ink, 3, Qt::SolidLine, Qt::RoundCap));
    p.drawLine(onCircle(a, middle, position, 3), onCircle(a, middle, position, radius - 3));
    if (std::isnan(wanted)) return;
    p.setPen(Qt::NoPen);
    p.setBrush(c.copper);
    p.drawEllipse(onCircle(a, middle, std::clamp(wanted, 0.0, 1.0), radius + 5), 4, 4);
}

}  // namespace ombrek
