#include "desk/board/board_map.h"

namespace ombrek {
namespace {

constexpr int kLegend = 24;

}  // namespace

BoardMap::BoardMap(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("map"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void BoardMap::show(BoardDrawing drawing) {
    drawing_ = std::move(drawing);
    QStringList now;
    for (const BoardPiece& piece : drawing_.pieces) {
        if (piece.fitting == BoardPiece::Fitting::now) now << QString::fromStdString(piece.part->ref);
    }
    setAccessibleName(QStringLiteral("The board%1; to be fitted: %2")
                          .arg(drawing_.mirrored ? QStringLiteral(", solder side") : QString(),
                               now.join(QStringLiteral(", "))));
    update();
}

void BoardMap::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Colours& c = coloursOf(*this);
    if (drawing_.board.width <= 0 || drawing_.pieces.empty()) {
        p.setFont(benchFont(20));
        p.setPen(c.soft);
        p.drawText(rect().adjusted(30, 0, -30, 0), Qt::AlignCenter | Qt::TextWordWrap,
                   QStringLiteral("No places are known for this kit's parts.\n\nI reads a placement table "
                                  "(designator, x, y); until then the plan beside this is all there is."));
        return;
    }
    drawing_.paint(p, QRectF(rect()).adjusted(0, 0, 0, -kLegend), c);
    const QRectF line(0, height() - kLegend, width(), kLegend);
    p.setFont(benchFont(13));
    p.setPen(c.soft);
    p.drawText(line, Qt::AlignLeft | Qt::AlignVCenter,
               drawing_.mirrored ? QStringLiteral("From the solder side, mirrored")
                                 : QStringLiteral("From above, print towards you"));
    p.drawText(line, Qt::AlignRight | Qt::AlignVCenter,
               QStringLiteral("ringed: now · hatched: in · outline: waits"));
}

}  // namespace ombrek
