#include "desk/pieces/gauge.h"

#include <QPainter>
#include <QPolygonF>
#include <algorithm>
#include <cmath>

#include "look/verdict_mark.h"

namespace ombrek {

Gauge::Gauge(QWidget* parent) : QWidget(parent) { setMinimumHeight(90); }

void Gauge::show(const Verdict& verdict, double nominal) {
    verdict_ = verdict;
    nominal_ = nominal;
    shown_ = std::isfinite(verdict.limits.low) || std::isfinite(verdict.limits.high);
    setAccessibleName(shown_ ? QString::fromStdString(verdict.sentence) : QString());
    update();
}

void Gauge::paintEvent(QPaintEvent*) {
    if (!shown_) return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    Limits limits = verdict_.limits;
    const bool openLow = std::isinf(limits.low), openHigh = std::isinf(limits.high);
    const double reach = std::isfinite(verdict_.reading) ? std::fabs(verdict_.reading) : 0;
    if (openHigh) limits.high = std::max(limits.low * 4, reach * 1.3);
    if (openLow) limits.low = std::min(0.0, limits.high - 2 * std::max(reach, std::fabs(limits.high)));
    const double half = std::max((limits.high - limits.low) / 2, 1e-300),
                 middle = (limits.high + limits.low) / 2;
    const double left = 24, right = width() - 24.0, y = 42;
    const auto x = [&](double value) {
        const double t = std::clamp((value - middle) / half / 1.4, -1.0, 1.0);
        return (left + right) / 2 + t * (right - left) / 2;
    };
    const double guard = std::min(verdict_.uncertainty, half);
    const QRectF inside(QPointF(x(limits.low), y - 14), QPointF(x(limits.high), y + 14));
    p.fillRect(inside, c.passTint);
    if (!openLow)
        fillDoubtful(p, QRectF(QPointF(x(limits.low), y - 14), QPointF(x(limits.low + guard), y + 14)), c);
    if (!openHigh)
        fillDoubtful(p, QRectF(QPointF(x(limits.high - guard), y - 14), QPointF(x(limits.high), y + 14)), c);
    p.setPen(QPen(c.ink, 1.5));
    p.drawLine(QPointF(left, y), QPointF(right, y));
    p.setFont(benchFont(14));
    const auto tick = [&](double value, double length) {
        p.setPen(QPen(c.ink, 1.5));
        p.drawLine(QPointF(x(value), y), QPointF(x(value), y + length));
        p.setPen(c.soft);
        p.drawText(QRectF(x(value) - 80, y + 24, 160, 22), Qt::AlignHCenter | Qt::AlignTop,
                   QString::fromStdString(formatQuantity(value, verdict_.unit, figuresFor(verdict_.limits))));
    };
    if (!openLow) tick(limits.low, 20);
    if (!openHigh) tick(limits.high, 20);
    if (std::isfinite(nominal_) && limits.holds(nominal_) && !openLow && !openHigh) tick(nominal_, 16);
    if (!std::isfinite(verdict_.reading)) return;
    const double at = x(verdict_.reading);
    p.setPen(QPen(c.ink, 3));
    p.drawLine(QPointF(x(verdict_.reading - verdict_.uncertainty), y - 24),
               QPointF(x(verdict_.reading + verdict_.uncertainty), y - 24));
    p.setPen(Qt::NoPen);
    p.setBrush(c.ink);
    p.drawPolygon(QPolygonF({QPointF(at - 9, y - 26), QPointF(at + 9, y - 26), QPointF(at, y - 10)}));
}

}  // namespace ombrek
