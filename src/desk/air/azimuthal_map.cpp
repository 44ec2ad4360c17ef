#include "desk/air/azimuthal_map.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/quantity/quantity.h"
#include "look/colours.h"

namespace ombrek {
namespace {

constexpr double kWorld = 20015;  ///< half way round [km]

/// Where the edge of the map lies: a little beyond the farthest dot.
double reachOf(double farthest) {
    for (const double edge : {300.0, 1000.0, 2500.0, 5000.0, 10000.0}) {
        if (farthest * 1.1 <= edge) return edge;
    }
    return kWorld;
}

double ringOf(double reach) {
    for (const double step : {100.0, 250.0, 500.0, 1000.0, 2500.0}) {
        if (reach / step <= 4.1) return step;
    }
    return 5000;
}

}  // namespace

AzimuthalMap::AzimuthalMap(const std::vector<Coastline>& coast, QWidget* parent)
    : QWidget(parent), coast_(coast) {}

void AzimuthalMap::layCoast() {
    shore_.clear();
    for (const Coastline& line : coast_) {
        std::vector<MapPoint> piece;
        for (const auto& [longitude, latitude] : line) piece.push_back(onMap(home_, {latitude, longitude}));
        shore_.push_back(std::move(piece));
    }
}

void AzimuthalMap::show(const Result<Place2d>& home, const std::vector<Dot>& dots) {
    if (home && (!known_ || home->latitude != home_.latitude || home->longitude != home_.longitude)) {
        home_ = *home;
        layCoast();
    }
    known_ = home.has_value();
    dots_.clear();
    double farthest = 250;
    for (const Dot& dot : dots) {
        if (!known_) break;
        const MapPoint at = onMap(home_, dot.place);
        farthest = std::max(farthest, std::hypot(at.east, at.north));
        dots_.emplace_back(at, dot);
    }
    reach_ = reachOf(farthest);
    setAccessibleName(known_ ? QStringLiteral("Map about your place, %1 places on it").arg(dots_.size())
                             : QStringLiteral("Map: your locator is not said"));
    update();
}

void AzimuthalMap::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    p.setFont(benchFont(13));
    if (!known_) {
        p.setPen(c.soft);
        p.drawText(rect(), Qt::AlignCenter | Qt::TextWordWrap,
                   QStringLiteral("Say your locator (Ctrl+, then Locator), and contacts stand on a map here."));
        return;
    }
    const double radius = std::min(width(), height()) / 2.0 - 6;
    const QPointF middle(width() / 2.0, height() / 2.0);
    const auto at = [&](const MapPoint& m) {
        return middle + QPointF(m.east, -m.north) * (radius / reach_);
    };
    QPainterPath disc;
    disc.addEllipse(middle, radius, radius);
    p.setPen(QPen(c.line, 1.5));
    p.setBrush(c.paper);
    p.drawPath(disc);
    p.save();
    p.setClipPath(disc);
    p.setPen(QPen(c.soft, 1));
    for (const auto& piece : shore_) {
        for (std::size_t i = 1; i < piece.size(); ++i) {
            const MapPoint &a = piece[i - 1], &b = piece[i];
            const double nearest = std::min(std::hypot(a.east, a.north), std::hypot(b.east, b.north));
            // Beside the antipode two near points lie on two sides of the map.
            if (nearest < reach_ && std::hypot(a.east - b.east, a.north - b.north) < kWorld / 4)
                p.drawLine(at(a), at(b));
        }
    }
    p.restore();
    const double ring = ringOf(reach_);
    p.setBrush(Qt::NoBrush);
    for (double km = ring; km < reach_ * 0.99; km += ring) {
        const double r = km / reach_ * radius;
        p.setPen(QPen(c.line, 1, Qt::DashLine));
        p.drawEllipse(middle, r, r);
        p.setPen(c.soft);
        p.drawText(QRectF(middle.x() - 50, middle.y() - r - 9, 100, 18), Qt::AlignCenter,
                   QString::fromStdString(decimals(km, 0)) + (km + ring >= reach_ * 0.99 ? QStringLiteral("\u202fkm") : QString()));
    }
    for (const bool marked : {false, true}) {
        for (const auto& [point, dot] : dots_) {
            if (dot.inHand != marked) continue;
            const QPointF place = at(point);
            if (marked) {
                p.setPen(QPen(c.copper, 2));
                p.drawLine(middle, place);
            }
            p.setPen(dot.heard ? QPen(c.pass, 1.5) : QPen(c.card, 1));
            p.setBrush(dot.heard ? QBrush(Qt::NoBrush) : QBrush(marked ? c.copper : c.pass));
            const double r = marked ? 6 : dot.heard ? 3.5 : 4;
            p.drawEllipse(place, r, r);
        }
    }
    p.setPen(Qt::NoPen);
    p.setBrush(c.ink);
    p.drawEllipse(middle, 4, 4);
}

}  // namespace ombrek
