#include "look/verdict_mark.h"

#include <QPainterPath>

namespace ombrek {
namespace {

void drawTick(QPainter& painter, const QRectF& r, const QColor& colour) {
    QPainterPath tick;
    tick.moveTo(r.left() + r.width() * 0.27, r.top() + r.height() * 0.52);
    tick.lineTo(r.left() + r.width() * 0.44, r.top() + r.height() * 0.69);
    tick.lineTo(r.left() + r.width() * 0.74, r.top() + r.height() * 0.33);
    painter.setPen(QPen(colour, r.width() * 0.12, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    painter.setBrush(Qt::NoBrush);
    painter.drawPath(tick);
}

}  // namespace

void drawVerdictMark(QPainter& painter, const QRectF& square, VerdictState state, const Colours& colours) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const QColor colour = colourOf(colours, state);
    const double stroke = square.width() * 0.11;
    const QRectF ring = square.adjusted(stroke / 2, stroke / 2, -stroke / 2, -stroke / 2);
    switch (state) {
        case VerdictState::pass:
            painter.setPen(Qt::NoPen);
            painter.setBrush(colour);
            painter.drawEllipse(square);
            drawTick(painter, square, colours.card);
            break;
        case VerdictState::doubtful:
            painter.setPen(QPen(colour, stroke));
            painter.setBrush(Qt::NoBrush);
            painter.drawEllipse(ring);
            painter.setPen(Qt::NoPen);
            painter.setBrush(colour);
            painter.drawPie(ring, 90 * 16, 180 * 16);
            break;
        case VerdictState::fail:
            painter.setPen(QPen(colour, square.width() * 0.2, Qt::SolidLine, Qt::FlatCap));
            painter.drawLine(square.topLeft() + QPointF(stroke, stroke),
                             square.bottomRight() - QPointF(stroke, stroke));
            painter.drawLine(square.topRight() + QPointF(-stroke, stroke),
                             square.bottomLeft() + QPointF(stroke, -stroke));
            break;
        case VerdictState::cannotTell: {
            QFont font = painter.font();
            font.setBold(true);
            font.setPixelSize(std::max(8, int(square.height())));
            painter.setFont(font);
            painter.setPen(colour);
            painter.drawText(square.adjusted(-4, -4, 4, 4), Qt::AlignCenter, QStringLiteral("?"));
            break;
        }
        case VerdictState::notDone:
            painter.setPen(QPen(colour, stroke * 0.8));
            painter.setBrush(Qt::NoBrush);
            painter.drawEllipse(ring);
            break;
    }
    painter.restore();
}

}  // namespace ombrek
