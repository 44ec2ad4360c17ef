#include "desk/winding/coil_view.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "look/colours.h"

namespace ombrek {
namespace {

constexpr double kPi = std::numbers::pi;
constexpr double kStart = 210.0 / 180 * kPi;  ///< where the first turn lies, clockwise from the right
constexpr double kArc = 330.0 / 180 * kPi;

}  // namespace

static QPointF polar(QPointF middle, double radius, double angle) {
    return middle + QPointF(std::cos(angle - kPi / 2), std::sin(angle - kPi / 2)) * radius;
}

namespace {

void drawWireLine(QPainter& p, QPointF a, QPointF b, double thick, bool now, const Colours& c) {
    const QColor body = now ? c.copper : c.copperLight;
    p.setPen(QPen(body, thick, Qt::SolidLine, Qt::RoundCap));
    p.drawLine(a, b);
    p.setPen(QPen(now ? c.copperLight : c.copper, thick * 0.24, Qt::SolidLine, Qt::RoundCap));
    p.drawLine(a, b);
}

}  // namespace

CoilView::CoilView(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void CoilView::show(const WindingView& view, const Build& build, bool leftHanded) {
    windings_.clear();
    if (view.coil == nullptr) return update();
    const Coil& coil = *view.coil;
    for (std::size_t i = 0; i < coil.windings.size(); ++i) {
        windings_.push_back({build.winding(coil.ref, coil.windings[i].name).turns, coil.windings[i].turns,
                             QString::fromStdString(coil.windings[i].name), view.inHand == i});
    }
    ring_ = coil.core.shape == MagneticCore::Shape::ring;
    if (ring_) holeRatio_ = coil.core.innerDiameter / coil.core.outerDiameter;
    mirrored_ = coil.clockwise == leftHanded;
    sense_ = QStringLiteral("%1, %2 hand")
                 .arg(coil.clockwise ? QStringLiteral("clockwise on the board")
                                     : QStringLiteral("counter-clockwise on the board"),
                      leftHanded ? QStringLiteral("left") : QStringLiteral("right"));
    turns_ = view.turns;
    wanted_ = view.wanted;
    below_ = QString::fromStdString(view.tens);
    setAccessibleName(QStringLiteral("%1 of %2 turns on %3")
                          .arg(turns_)
                          .arg(wanted_)
                          .arg(QString::fromStdString(coil.ref)));
    update();
}

void CoilView::drawCount(QPainter& p, QPointF at, double room) const {
    const Colours& c = coloursOf(*this);
    const int pixels = std::max(44, int(room * 0.78));
    p.setFont(benchFont(pixels, true));
    p.setPen(c.ink);
    p.drawText(QRectF(at.x() - room, at.y() - pixels * 0.62, 2 * room, pixels * 1.24), Qt::AlignCenter,
               QString::number(turns_));
    p.setFont(benchFont(17));
    p.setPen(c.soft);
    p.drawText(QRectF(at.x() - room, at.y() - pixels * 0.62 - 20, 2 * room, 24), Qt::AlignCenter,
               QStringLiteral("of %1").arg(wanted_));
    p.drawText(QRectF(at.x() - room, at.y() + pixels * 0.54, 2 * room, 26), Qt::AlignCenter, below_);
}

void CoilView::drawRing(QPainter& p) const {
    const Colours& c = coloursOf(*this);
    const QPointF middle(width() / 2.0, height() / 2.0 - 6);
    const double outer = std::min(width(), height()) / 2.0 - 44;
    const double inner = outer * std::clamp(holeRatio_, 0.42, 0.7);
    QPainterPath ring;
    ring.addEllipse(middle, outer, outer);
    ring.addEllipse(middle, inner, inner);
    p.setPen(QPen(c.notDone, 1.5));
    p.setBrush(c.core);
    p.drawPath(ring);

    int places = 0;
    for (const Part& part : windings_) places += std::max(part.turns, part.wanted) + 1;
    const double pitch = kArc / std::max(places, 8);
    const double thick = std::clamp(inner * pitch * 0.62, 4.0, 15.0);
    double angle = kStart;
    const auto polar = [this](QPointF m, double radius, double at) {
        return ombrek::polar(m, radius, mirrored_ ? -at : at);
    };
    for (const Part& part : windings_) {
        const double first = angle;
        const int drawn = std::max(part.turns, part.wanted);
        for (int i = 0; i < drawn; ++i, angle += pitch) {
            const QPointF a = polar(middle, inner - 6, angle - pitch * 0.22),
                          b = polar(middle, outer + 6, angle + pitch * 0.22);
            if (i < part.turns) {
                drawWireLine(p, a, b, thick, part.inHand || windings_.size() == 1, c);
            } else {
                p.setPen(QPen(c.notDone, 1.4, Qt::DashLine));
                p.drawLine(polar(middle, inner + 2, angle), polar(middle, outer - 2, angle));
            }
            const bool ten = (i + 1) % 10 == 0;
            if (!ten) continue;
            const QPointF at = polar(middle, outer + 26, angle);
            const bool reached = i < part.turns;
            p.setPen(QPen(c.ink, 1.4));
            p.setBrush(reached ? c.ink : c.card);
            p.drawEllipse(at, 14, 14);
            p.setFont(benchFont(13, true));
            p.setPen(reached ? c.card : c.ink);
            p.drawText(QRectF(at - QPointF(14, 14), QSizeF(28, 28)), Qt::AlignCenter, QString::number(i + 1));
        }
        if (part.turns > 0) {  // the tail where this winding begins
            drawWireLine(p, polar(middle, outer + 6, first + pitch * 0.22),
                         polar(middle, outer + 40, first - 0.06), thick, part.inHand || windings_.size() == 1,
                         c);
            p.setFont(benchFont(13));
            p.setPen(c.ink);
            const QPointF at = polar(middle, outer + 54, first - 0.08);
            const QString name =
                windings_.size() > 1 ? part.name + QStringLiteral(" starts") : QStringLiteral("start");
            p.drawText(QRectF(at - QPointF(60, 10), QSizeF(120, 20)), Qt::AlignCenter, name);
        }
        angle += pitch;
    }
    drawCount(p, middle, inner * 0.9);
    p.setFont(benchFont(13));
    p.setPen(c.soft);
    p.drawText(QRectF(0, height() - 20.0, width() - 8.0, 20), Qt::AlignRight | Qt::AlignVCenter, sense_);
}

void CoilView::drawTwoHole(QPainter& p) const {
    const Colours& c = coloursOf(*this);
    const double unit = std::min(width() / 2.6, double(height())) / 2.0 - 20;
    const QRectF body(width() / 2.0 - unit * 1.5, height() / 2.0 - unit * 0.86, unit * 3.0, unit * 1.72);
    p.setPen(QPen(c.notDone, 1.5));
    p.setBrush(c.core);
    p.drawRoundedRect(body, unit * 0.8, unit * 0.8);
    const QPointF left(width() / 2.0 - unit * 0.82, height() / 2.0),
        right(width() / 2.0 + unit * 0.82, height() / 2.0);
    p.setBrush(c.paper);
    p.drawEllipse(left, unit * 0.46, unit * 0.46);
    p.drawEllipse(right, unit * 0.46, unit * 0.46);
    // Each turn is a line between the holes, the first winding from below, the next from above.
    double y[2] = {left.y() + unit * 0.34, left.y() - unit * 0.34};
    for (std::size_t w = 0; w < windings_.size(); ++w) {
        const Part& part = windings_[w];
        const double step =
            unit * 0.66 / std::max(10, std::max(part.turns, part.wanted)) * (w % 2 == 0 ? -1 : 1) * 0.9;
        for (int i = 0; i < std::max(part.turns, part.wanted); ++i) {
            double& at = y[w % 2];
            const QPointF a(left.x() + unit * 0.3, at), b(right.x() - unit * 0.3, at);
            if (i < part.turns) {
                drawWireLine(p, a, b, std::clamp(std::fabs(step) * 0.7, 3.0, 9.0), part.inHand, c);
            } else {
                p.setPen(QPen(c.notDone, 1.2, Qt::DashLine));
                p.drawLine(a, b);
            }
            at += step;
        }
    }
    drawCount(p, {width() / 2.0, body.bottom() + 74}, 110);
}

void CoilView::paintEvent(QPaintEvent*) {
    if (windings_.empty()) return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    ring_ ? drawRing(p) : drawTwoHole(p);
}

}  // namespace ombrek
