#include "desk/winding/reach_view.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "desk/session.h"
#include "look/colours.h"
#include "look/verdict_mark.h"

namespace ombrek {
namespace {

QString hertz(double value) { return qs(formatQuantity(value, Unit::hertz, 4)); }

void label(QPainter& p, double x, double y, const QString& text, const QColor& colour, int pixels = 14,
           bool bold = false) {
    p.setFont(benchFont(pixels, bold));
    p.setPen(colour);
    p.drawText(QRectF(x - 110, y, 220, pixels * 1.5), Qt::AlignHCenter | Qt::AlignTop, text);
}

}  // namespace

ReachView::ReachView(QWidget* parent) : QWidget(parent) { setMinimumHeight(330); }

void ReachView::show(const TrimmerCover& cover, double low, double high) {
    cover_ = cover;
    low_ = low;
    high_ = high;
    setAccessibleName(QStringLiteral("Trimmer: ") + qs(cover.sentence));
    update();
}

void ReachView::drawTravel(QPainter& p, const QRectF& r) const {
    const Colours& c = coloursOf(*this);
    const auto x = [&](double position) { return r.left() + r.width() * (0.1 + 0.8 * position); };
    const double y = r.center().y();
    fillDoubtful(p, QRectF(x(0), y - 16, x(1) - x(0), 32), c);
    p.fillRect(QRectF(x(0.15), y - 16, x(0.85) - x(0.15), 32), c.passTint);
    p.setPen(QPen(c.ink, 1.5));
    p.drawLine(QPointF(x(0), y), QPointF(x(1), y));
    for (const double at : {0.0, 0.15, 0.5, 0.85, 1.0}) {
        p.setPen(QPen(c.ink, 1.2));
        p.drawLine(QPointF(x(at), y - 9), QPointF(x(at), y + 9));
        label(p, x(at), y + 20, QStringLiteral("%1\u202f%").arg(at * 100), c.soft);
    }
    label(p, x(0), y + 38, QStringLiteral("least"), c.soft);
    label(p, x(1), y + 38, QStringLiteral("most"), c.soft);
    // Out of reach it stands beside the scale, as an arrow.
    const bool out = cover_.position < 0 || cover_.position > 1;
    const double at = x(std::clamp(cover_.position, -0.08, 1.08));
    p.setPen(Qt::NoPen);
    p.setBrush(out ? c.fail : c.copper);
    p.drawPolygon(QPolygonF{{at - 11, y - 40}, {at + 11, y - 40}, {at, y - 18}});
    label(p, at, y - 74,
          out ? QStringLiteral("out of reach")
              : QStringLiteral("the band: %1\u202f%").arg(std::lround(cover_.position * 100)),
          c.ink, 18, true);
}

void ReachView::drawFrequencies(QPainter& p, const QRectF& r) const {
    const Colours& c = coloursOf(*this);
    const double least = std::min(cover_.lowest, low_), most = std::max(cover_.highest, high_),
                 spare = (most - least) * 0.12;
    const auto x = [&](double f) {
        return r.left() + r.width() * (0.1 + 0.8 * (f - least + spare) / (most - least + 2 * spare));
    };
    const double y = r.center().y();
    p.setPen(QPen(c.line, 2));
    p.drawLine(QPointF(x(least - spare), y), QPointF(x(most + spare), y));
    p.setPen(QPen(c.copper, 10, Qt::SolidLine, Qt::FlatCap));
    p.drawLine(QPointF(x(cover_.lowest), y), QPointF(x(cover_.highest), y));
    label(p, x(cover_.lowest), y + 14, hertz(cover_.lowest), c.ink);
    label(p, x(cover_.highest), y + 14, hertz(cover_.highest), c.ink);
    const QRectF band(x(low_), y - 22, std::max(4.0, x(high_) - x(low_)), 44);
    p.setPen(QPen(c.ink, 2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(band);
    label(p, band.center().x(), y - 46, QStringLiteral("band %1").arg(hertz(std::sqrt(low_ * high_))), c.ink,
          14, true);
}

void ReachView::paintEvent(QPaintEvent*) {
    if (!(low_ > 0)) return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    p.setFont(benchFont(15, true));
    p.setPen(c.ink);
    p.drawText(QRectF(22, 14, width() - 40.0, 24), Qt::AlignLeft,
               QStringLiteral("Where the trimmer will stand"));
    const double half = height() / 2.0;
    drawTravel(p, QRectF(0, 30, width(), half - 20));
    p.setFont(benchFont(15, true));
    p.setPen(c.ink);
    p.drawText(QRectF(22, half + 6, width() - 40.0, 24), Qt::AlignLeft, QStringLiteral("What it covers"));
    drawFrequencies(p, QRectF(0, half + 24, width(), half - 40));
}

}  // namespace ombrek
