#include "report/joint_picture.h"

#include <QPainterPath>

namespace ombrek {
namespace {

/// Solder on one pad: a hollow slope from the pad's edge up the lead.
QPainterPath slope(double middle, double half, double base, double rise) {
    QPainterPath path(QPointF(middle - half, base));
    path.quadTo(QPointF(middle - half * 0.22, base - rise * 0.08), QPointF(middle, base - rise));
    path.quadTo(QPointF(middle + half * 0.22, base - rise * 0.08), QPointF(middle + half, base));
    path.closeSubpath();
    return path;
}

}  // namespace

void drawJoint(QPainter& p, const QRectF& room, std::optional<Finding::What> what, const Colours& c) {
    using What = Finding::What;
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    const double w = room.width(), base = room.top() + room.height() * 0.66, lead = w * 0.06;
    const double at[2] = {room.left() + w * 0.3, room.left() + w * 0.7};
    const bool two = what == What::bridge || what == What::flux;
    const QRectF board(room.left(), base, w, room.height() * 0.2);
    p.setPen(QPen(c.boardInk, 1));
    p.setBrush(c.board);
    p.drawRect(board);
    const double half = w * 0.17, rise = room.height() * 0.34;
    for (int i = two ? 0 : 1; i < 2; ++i) {
        const double x = two ? at[i] : room.center().x();
        p.setPen(Qt::NoPen);
        p.setBrush(c.copper);
        p.drawRect(QRectF(x - half, base - 3, 2 * half, 3));
        if (what != What::missed) {
            p.setPen(QPen(c.ink, 1.2));
            p.setBrush(what == What::dry ? c.notDone : c.line);
            if (what == What::dry) {  // a ball that stands off the pad, a ring round the lead
                p.drawEllipse(QPointF(x, base - rise * 0.55), half * 0.75, rise * 0.42);
            } else {
                p.drawPath(slope(x, half, base - 3, rise));
            }
        }
        p.setPen(Qt::NoPen);
        p.setBrush(c.soft);
        p.drawRect(QRectF(x - lead / 2, base - rise - 6, lead, rise + board.height() + 12));
    }
    p.setPen(QPen(c.ink, 1.2));
    if (what == What::bridge) {
        QPainterPath path(QPointF(at[0], base - 3));
        path.quadTo(QPointF(room.center().x(), base - rise * 0.9), QPointF(at[1], base - 3));
        path.closeSubpath();
        p.setBrush(c.line);
        p.drawPath(path);
    } else if (what == What::flux) {
        p.setPen(QPen(c.copper, 1.4, Qt::DotLine));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(QRectF(at[0] + half * 0.4, base - 12, at[1] - at[0] - half * 0.8, 12), 5, 5);
    } else if (what == What::turned || what == What::other) {
        p.setFont(benchFont(int(room.height() * 0.3), true));
        p.drawText(QRectF(room.left(), room.top(), w, room.height() * 0.4), Qt::AlignCenter,
                   what == What::turned ? QStringLiteral("\u21c4") : QStringLiteral("?"));
    }
    p.restore();
}

}  // namespace ombrek
