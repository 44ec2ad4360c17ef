#include "report/board_drawing.h"

#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "kit/package.h"

namespace ombrek {
namespace {

constexpr double kLabelRoom = 46;  ///< above and below the board, for leaders' words
constexpr double kLabel = 92;      ///< width of one leader's words at most
constexpr double kFoot = 26;       ///< for the line under the board

QPainterPath outline(const QRectF& r, const Package& package) {
    QPainterPath path;
    if (package.round) {
        path.addEllipse(r);
    } else if (package.mark == Package::Mark::flat) {  // a transistor's D, its flat downwards
        path.moveTo(r.bottomLeft());
        path.lineTo(r.bottomRight());
        path.cubicTo(r.topRight() - QPointF(0, r.height() * 0.35),
                     r.topLeft() - QPointF(0, r.height() * 0.35), r.bottomLeft());
    } else {
        path.addRect(r);
    }
    return path;
}

/// The end that matters, drawn at the left of an unturned part.
void paintMark(QPainter& p, const QRectF& r, Package::Mark mark) {
    const double size = std::min(r.width(), r.height());
    if (size < 5) return;
    switch (mark) {
        case Package::Mark::band:
            p.fillRect(
                QRectF(r.left() + r.width() * 0.12, r.top(), std::max(1.6, r.width() * 0.12), r.height()),
                p.pen().color());
            break;
        case Package::Mark::plus: {
            const QPointF at(r.left() - 5, r.center().y() - r.height() * 0.3);
            p.drawLine(at - QPointF(3, 0), at + QPointF(3, 0));
            p.drawLine(at - QPointF(0, 3), at + QPointF(0, 3));
            break;
        }
        case Package::Mark::notch:
            p.drawArc(QRectF(r.left() - size * 0.14, r.center().y() - size * 0.14, size * 0.28, size * 0.28),
                      -90 * 16, 180 * 16);
            break;
        case Package::Mark::dot:
            p.drawEllipse(QPointF(r.left() + size * 0.16, r.center().y()), 1.8, 1.8);
            break;
        default:
            break;
    }
}

}  // namespace

double BoardDrawing::scale(const QRectF& room) const {
    const double above = leaders ? 2 * kLabelRoom + kFoot : 4;
    return zoom * std::min((room.width() - 4) / board.width, (room.height() - above) / board.height);
}

QPointF BoardDrawing::at(double x, double y, const QRectF& room) const {
    const double s = scale(room);
    const double seen = mirrored ? board.width - x : x;
    if (zoom <= 1) {
        const QPointF origin(room.left() + (room.width() - board.width * s) / 2,
                             room.top() + (leaders ? kLabelRoom : 2));
        return origin + QPointF(seen * s, y * s);
    }
    const double centre = mirrored ? board.width - middle.x : middle.x;
    return room.center() + QPointF((seen - centre) * s, (y - middle.y) * s);
}

QRectF BoardDrawing::onScreen(const Place& place, const QRectF& room) const {
    const bool turned = std::fabs(std::fmod(std::fabs(place.turn), 180.0) - 90.0) < 45.0;
    const double s = scale(room);
    const double w = (turned ? place.height : place.width) * s, h = (turned ? place.width : place.height) * s;
    const QPointF middleOf = at(place.x, place.y, room);
    return {middleOf.x() - w / 2, middleOf.y() - h / 2, w, h};
}

void BoardDrawing::paintPiece(QPainter& p, const BoardPiece& piece, const QRectF& room,
                              const Colours& c) const {
    const Place& place = *piece.part->place;
    const Package package = packageOf(*piece.part);
    const double s = scale(room);
    const QRectF own(-place.width * s / 2, -place.height * s / 2, place.width * s, place.height * s);
    const QPointF middleOf = at(place.x, place.y, room);
    if (!room.intersects(QRectF(middleOf.x() - own.width(), middleOf.y() - own.width(), 2 * own.width(),
                                2 * own.width() + own.height())))
        return;
    using Fitting = BoardPiece::Fitting;
    const bool now = piece.fitting == Fitting::now;
    // The outline is turned, not the painter: a hatch that is turned with it is ten times as slow.
    QTransform turned;
    turned.translate(middleOf.x(), middleOf.y());
    turned.scale(mirrored ? -1 : 1, 1);
    turned.rotate(place.turn);
    const QPainterPath shape = turned.map(outline(own, package));
    if (piece.fitting == Fitting::in) {
        p.setRenderHint(QPainter::Antialiasing, false);
        p.fillPath(shape, QBrush(c.boardInk, Qt::BDiagPattern));
        p.setRenderHint(QPainter::Antialiasing);
    } else if (now) {
        p.fillPath(shape, c.card);
    }
    // Upright rectangles are sharp without smoothing, and drawn in a fraction of the time.
    const bool upright = !package.round && package.mark != Package::Mark::flat &&
                         std::fabs(std::remainder(place.turn, 90.0)) < 1e-6;
    if (upright && !now) p.setRenderHint(QPainter::Antialiasing, false);
    const bool behind = place.underside != mirrored;
    p.setPen(QPen(now ? c.copper : c.boardInk, now ? 2.6 : 1, behind ? Qt::DotLine : Qt::SolidLine));
    p.setBrush(Qt::NoBrush);
    p.drawPath(shape);
    p.setRenderHint(QPainter::Antialiasing);
    if (package.mark != Package::Mark::none && package.mark != Package::Mark::flat) {
        const QTransform before = p.transform();
        p.setTransform(turned, true);
        paintMark(p, own, package.mark);
        p.setTransform(before);
    }
    const QRectF r = onScreen(place, room);
    p.setBrush(Qt::NoBrush);
    if (now || piece.alike) {
        p.setPen(QPen(c.copper, 2, now ? Qt::SolidLine : Qt::DashLine));
        p.drawRoundedRect(r.adjusted(-5, -5, 5, 5), 6, 6);
    }
    if (piece.suspect) {
        p.setPen(QPen(c.fail, 2.5, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawRect(r.adjusted(-4, -4, 4, 4));
    }
    if (piece.mend) {  // struck out until it is mended
        p.setPen(QPen(c.fail, 2));
        p.drawLine(r.topLeft() - QPointF(4, 4), r.bottomRight() + QPointF(4, 4));
        p.drawLine(r.bottomLeft() + QPointF(-4, 4), r.topRight() + QPointF(4, -4));
    }
    const bool room4name = r.width() > 26 && r.height() > 13;
    if (room4name && (piece.fitting != Fitting::in || zoom > 1)) {
        p.setFont(benchFont(zoom > 1.5 ? 14 : 12));
        p.setPen(now ? c.ink : c.boardInk);
        const QString name = QString::fromStdString(piece.part->ref);
        if (piece.fitting == Fitting::in) {  // a plate, so that the hatch does not run through the name
            QRectF plate = QFontMetricsF(p.font()).boundingRect(name).adjusted(-3, -1, 3, 1);
            plate.moveCenter(r.center());
            p.fillRect(plate, c.board);
        }
        p.drawText(r, Qt::AlignCenter, name);
    }
}

void BoardDrawing::paintLeaders(QPainter& p, const QRectF& room, const Colours& c) const {
    const QRectF edge = zoom > 1 ? room.adjusted(0, kLabelRoom, 0, -kLabelRoom - 4)
                                 : QRectF(at(mirrored ? board.width : 0, 0, room),
                                          at(mirrored ? 0 : board.width, board.height, room));
    std::vector<std::pair<QRectF, const Part*>> above, below;
    for (const BoardPiece& piece : pieces) {
        if (piece.fitting != BoardPiece::Fitting::now) continue;
        const QRectF r = onScreen(*piece.part->place, room);
        if (!edge.intersects(r)) continue;
        (r.center().y() < edge.center().y() ? above : below).emplace_back(r, piece.part);
    }
    const double foot = zoom > 1 ? 0 : kFoot;
    const auto labels = [&](std::vector<std::pair<QRectF, const Part*>>& row, bool top) {
        std::sort(row.begin(), row.end(),
                  [](const auto& a, const auto& b) { return a.first.center().x() < b.first.center().x(); });
        const double step = std::min(kLabel, room.width() / double(std::max<std::size_t>(1, row.size())));
        double next = room.left();
        for (std::size_t i = 0; i < row.size(); ++i) {
            const auto& [r, part] = row[i];
            const double last = room.right() - double(row.size() - i) * step;
            const double x = std::clamp(r.center().x() - step / 2, next, std::max(next, last));
            next = x + step;
            const double y = top ? edge.top() - kLabelRoom : edge.bottom() + foot;
            const QPointF end(x + step / 2, top ? edge.top() - 6 : edge.bottom() + foot);
            p.setPen(QPen(c.copper, 1.3));
            p.drawLine(QPointF(r.center().x(), top ? r.top() - 5 : r.bottom() + 5), end);
            p.setFont(benchFont(17, true));
            p.setPen(c.ink);
            p.drawText(QRectF(x, y, step, 21), Qt::AlignCenter, QString::fromStdString(part->ref));
            p.setFont(benchFont(14));
            p.drawText(QRectF(x + 2, y + 20, step - 4, 20), Qt::AlignCenter,
                       QFontMetrics(p.font()).elidedText(QString::fromStdString(part->value), Qt::ElideRight,
                                                         int(step - 4)));
        }
    };
    labels(above, true);
    labels(below, false);
}

void BoardDrawing::paint(QPainter& p, const QRectF& room, const Colours& c) const {
    if (board.width <= 0 || board.height <= 0) return;
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF edge = QRectF(at(0, 0, room), at(board.width, board.height, room)).normalized();
    const QRectF clip = zoom > 1 && leaders ? room.adjusted(0, kLabelRoom, 0, -kLabelRoom) : room;
    const auto paintPieces = [&](bool now) {
        for (const BoardPiece& piece : pieces) {
            if ((piece.fitting == BoardPiece::Fitting::now) == now) paintPiece(p, piece, room, c);
        }
    };
    p.save();
    p.setClipRect(clip);
    p.setPen(QPen(c.boardInk, 1.4));
    p.setBrush(c.board);
    p.drawRoundedRect(edge, 6, 6);
    paintPieces(false);
    p.restore();
    if (leaders) paintLeaders(p, room, c);  // under the ringed parts: a leader that passes one is not its own
    p.save();
    p.setClipRect(clip);
    paintPieces(true);
    p.restore();
}

}  // namespace ombrek
