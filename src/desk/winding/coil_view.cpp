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
    setObjectName(QStringLiteral("coil"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void CoilView::show(const WindingView& view, const Build& build, bool leftHanded) {
    windings_.clear();
    if (view.coil == nullptr) return update();
    const Coil& coil = *view.coil;
    for (std::size_t i = 0; i < coil.windings.size(); ++i) {
        Part part{build.winding(coil.ref, coil.windings[i].name).turns,
                  coil.windings[i].turns,
                  QString::fromStdString(coil.windings[i].name),
                  view.inHand == i,
                  {},
                  i > 0 && coil.windings[i].start && woundTogether(coil, i).front() == i,
                  {}};
        const auto together = woundTogether(coil, i);
        part.strands = int(together.size());
        part.strand = int(std::find(together.begin(), together.end(), i) - together.begin());
        part.inHand =
            view.inHand && std::find(together.begin(), together.end(), *view.inHand) != together.end();
        if (i < view.lay.size()) part.lay = view.lay[i];
        for (const Winding::Tap& tap : coil.windings[i].taps)
            part.taps.emplace_back(tap.at, QString::fromStdString(tap.name));
        windings_.push_back(part);
    }
    ring_ = coil.core.shape == MagneticCore::Shape::ring;
    if (ring_) holeRatio_ = coil.core.innerDiameter / coil.core.outerDiameter;
    mirrored_ = leftHanded;
    const QString sense = coil.clockwise ? QStringLiteral("Clockwise") : QStringLiteral("Counter-clockwise");
    sense_ = leftHanded ? sense + QStringLiteral(" on the board; as the left hand holds it, turned over")
                        : sense + QStringLiteral(", as it sits on the board");
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

/// One winding where it lies: its turns, the ten-marks, its taps, and the tails towards their holes.
void CoilView::drawLaid(QPainter& p, const Part& part, const Ring& ring) const {
    const Colours& c = coloursOf(*this);
    const auto at = [&](double radius, double angle) {
        return polar(ring.middle, radius, ring.hand * angle);
    };
    const int drawn = std::max(part.turns, part.wanted);
    const double step = part.lay.sweep / std::max(drawn, 1);
    // Wires twisted together lie side by side in every turn.
    const double thick =
        std::clamp(ring.inner * std::fabs(step) * 0.62 / part.strands, part.strands > 1 ? 3.0 : 4.0, 15.0);
    const double aside = step * 0.8 * ((part.strand + 0.5) / part.strands - 0.5);
    const bool live = part.inHand || std::none_of(windings_.begin(), windings_.end(),
                                                  [](const Part& other) { return other.inHand; });
    const double lift = part.over ? 9 : 0;  // over a winding that is there already
    for (int i = 0; i < drawn; ++i) {
        const double angle = part.lay.start + step * (i + 0.5) + aside;
        if (i < part.turns) {
            drawWireLine(p, at(ring.inner - 6 - lift, angle - step * 0.22),
                         at(ring.outer + 6 + lift, angle + step * 0.22), thick, live, c);
        } else {
            p.setPen(QPen(part.over ? c.soft : c.notDone, 1.4, Qt::DashLine));
            p.drawLine(at(ring.inner + 2 - lift, angle), at(ring.outer - 2 + lift, angle));
        }
        if ((i + 1) % 10 == 0 && part.strand == 0)
            drawTen(p, at(ring.outer + 26, angle), i + 1, i < part.turns);
    }
    for (const auto& [turn, name] : part.taps) {
        const double angle = part.lay.start + step * turn;
        drawTail(p, at(ring.outer + 4, angle), at(ring.outer + 36, angle), name, thick * 0.7,
                 part.turns >= turn, live);
    }
    if (part.strand > 0) return;  // the bundle has its tails together
    const QString prefix = windings_.size() > 1 ? part.name + QStringLiteral(" ") : QString();
    const double finish = part.lay.start + part.lay.sweep;
    drawTail(p, at(ring.outer + 6 + lift, part.lay.start + step * 0.7), at(ring.outer + 42, part.lay.start),
             prefix + QStringLiteral("start"), thick, part.turns > 0, live);
    drawTail(p, at(ring.outer + 6 + lift, finish - step * 0.3), at(ring.outer + 42, finish),
             prefix + QStringLiteral("finish"), thick, part.wanted > 0 && part.turns >= part.wanted, live);
}

void CoilView::drawTen(QPainter& p, QPointF at, int turns, bool reached) const {
    const Colours& c = coloursOf(*this);
    p.setPen(QPen(c.ink, 1.4));
    p.setBrush(reached ? c.ink : c.card);
    p.drawEllipse(at, 14, 14);
    p.setFont(benchFont(13, true));
    p.setPen(reached ? c.card : c.ink);
    p.drawText(QRectF(at - QPointF(14, 14), QSizeF(28, 28)), Qt::AlignCenter, QString::number(turns));
}

/// A tail to its hole, drawn when it is there, and its name beyond the hole.
void CoilView::drawTail(QPainter& p, QPointF from, QPointF hole, const QString& name, double thick,
                        bool there, bool live) const {
    const Colours& c = coloursOf(*this);
    if (there) drawWireLine(p, from, hole, thick, live, c);
    p.setPen(QPen(live ? c.ink : c.notDone, 1.4));
    p.setBrush(c.paper);
    p.drawEllipse(hole, 5, 5);
    if (!live) return;  // the names of the winding in hand; all of them would not find room
    const QPointF away = hole - QPointF(width() / 2.0, height() / 2.0);
    const double length = std::max(1.0, std::hypot(away.x(), away.y()));
    p.setFont(benchFont(13));
    p.setPen(c.ink);
    const double wide = QFontMetrics(p.font()).horizontalAdvance(name) + 6;
    QRectF box(0, 0, wide, 18);
    box.moveCenter(hole + QPointF(away.x() / length * (wide / 2 + 8), away.y() / length * 17));
    const double fits = std::clamp(box.left(), 0.0, std::max(0.0, width() - wide));
    if (std::fabs(fits - box.left()) > 8)  // no room beside the hole: over or under it
        box.moveCenter({box.center().x(), hole.y() + (away.y() < 0 ? -16 : 16)});
    box.moveLeft(std::clamp(box.left(), 0.0, std::max(0.0, width() - wide)));
    box.moveTop(std::clamp(box.top(), 0.0, std::max(0.0, height() - box.height())));
    QColor plate = c.paper;
    plate.setAlpha(225);
    p.fillRect(box, plate);
    p.drawText(box, Qt::AlignCenter, name);
}

void CoilView::drawRing(QPainter& p) const {
    const Colours& c = coloursOf(*this);
    const QPointF middle(width() / 2.0, height() / 2.0 - 6);
    const double outer = std::min(width(), height()) / 2.0 - 68;
    const double inner = outer * std::clamp(holeRatio_, 0.42, 0.7);
    QPainterPath ring;
    ring.addEllipse(middle, outer, outer);
    ring.addEllipse(middle, inner, inner);
    p.setPen(QPen(c.notDone, 1.5));
    p.setBrush(c.core);
    p.drawPath(ring);

    const double hand = mirrored_ ? -1 : 1;
    for (const Part& part : windings_) drawLaid(p, part, {middle, inner, outer, hand});
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
        if (part.strand > 0) continue;
        const double step =
            unit * 0.66 / std::max(10, std::max(part.turns, part.wanted)) * (w % 2 == 0 ? -1 : 1) * 0.9;
        for (int i = 0; i < std::max(part.turns, part.wanted); ++i) {
            double& at = y[w % 2];
            const QPointF a(left.x() + unit * 0.3, at), b(right.x() - unit * 0.3, at);
            if (i < part.turns) {
                const double thick = std::clamp(std::fabs(step) * 0.7, 3.0, 9.0) / part.strands;
                for (int k = 0; k < part.strands; ++k) {
                    const QPointF aside(0, thick * 1.2 * (k - (part.strands - 1) / 2.0));
                    drawWireLine(p, a + aside, b + aside, std::max(thick, 2.0), part.inHand, c);
                }
            } else {
                p.setPen(QPen(c.notDone, 1.2, Qt::DashLine));
                p.drawLine(a, b);
            }
            at += step;
        }
    }
    drawCount(p, {width() / 2.0, body.bottom() + 74}, 110);
}

void CoilView::mousePressEvent(QMouseEvent*) { emit clicked(); }

void CoilView::paintEvent(QPaintEvent*) {
    if (windings_.empty()) return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    ring_ ? drawRing(p) : drawTwoHole(p);
}

}  // namespace ombrek
