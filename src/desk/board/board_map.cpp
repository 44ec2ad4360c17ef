#include "desk/board/board_map.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "look/colours.h"

namespace ombrek {
namespace {

constexpr double kLabelRoom = 118;  ///< beside the board, for leaders' words

bool roundShape(const Part& part) { return part.kind == PartKind::coil || part.kind == PartKind::trimmer || part.value.find("µF") != std::string::npos; }

}  // namespace

BoardMap::BoardMap(QWidget* parent) : QWidget(parent) { setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding); }

void BoardMap::show(const Board& board, std::vector<BoardView::Piece> pieces, bool mirrored) {
    board_ = board;
    pieces_ = std::move(pieces);
    mirrored_ = mirrored;
    QStringList now;
    for (const auto& piece : pieces_) {
        if (piece.fitting == BoardView::Fitting::now) now << QString::fromStdString(piece.part->ref);
    }
    setAccessibleName(QStringLiteral("The board%1; to be fitted: %2").arg(mirrored ? QStringLiteral(", solder side") : QString(), now.join(QStringLiteral(", "))));
    update();
}

QRectF BoardMap::onScreen(const Place& place) const {
    const double scale = std::min((width() - 2 * kLabelRoom) / board_.width, (height() - 34.0) / board_.height);
    const QPointF origin((width() - board_.width * scale) / 2, 6);
    const double x = mirrored_ ? board_.width - place.x : place.x;
    const bool turned = std::fabs(std::fmod(std::fabs(place.turn), 180.0) - 90.0) < 45.0;
    const double w = (turned ? place.height : place.width) * scale, h = (turned ? place.width : place.height) * scale;
    return {origin.x() + x * scale - w / 2, origin.y() + place.y * scale - h / 2, w, h};
}

void BoardMap::drawPiece(QPainter& p, const BoardView::Piece& piece) const {
    const Colours& c = coloursOf(*this);
    const QRectF r = onScreen(*piece.part->place);
    QPainterPath shape;
    if (roundShape(*piece.part)) {
        shape.addEllipse(r);
    } else {
        shape.addRoundedRect(r, 2, 2);
    }
    using Fitting = BoardView::Fitting;
    if (piece.fitting == Fitting::in) {
        p.fillPath(shape, QBrush(c.boardInk, Qt::BDiagPattern));
        p.setPen(QPen(c.boardInk, 1.2));
    } else if (piece.fitting == Fitting::now) {
        p.fillPath(shape, c.card);
        p.setPen(QPen(c.copper, 2.6));
    } else {
        p.setPen(QPen(c.boardInk, 0.9));
    }
    p.setBrush(Qt::NoBrush);
    p.drawPath(shape);
    if (piece.fitting == Fitting::now) {
        p.setPen(QPen(c.copper, 2));
        p.drawRoundedRect(r.adjusted(-5, -5, 5, 5), 6, 6);
    }
    const bool named = piece.fitting == Fitting::waits && r.width() > 26 && r.height() > 13;
    if (named) {
        p.setFont(benchFont(12));
        p.setPen(c.boardInk);
        p.drawText(r, Qt::AlignCenter, QString::fromStdString(piece.part->ref));
    }
}

void BoardMap::drawLeaders(QPainter& p) const {
    const Colours& c = coloursOf(*this);
    const Place whole{board_.width / 2, board_.height / 2, board_.width, board_.height, 0};
    const QRectF board = onScreen(whole);
    std::vector<std::pair<QRectF, const Part*>> left, right;
    for (const auto& piece : pieces_) {
        if (piece.fitting != BoardView::Fitting::now) continue;
        const QRectF r = onScreen(*piece.part->place);
        (r.center().x() < board.center().x() ? left : right).emplace_back(r, piece.part);
    }
    const auto column = [&](std::vector<std::pair<QRectF, const Part*>>& labels, bool onLeft) {
        std::sort(labels.begin(), labels.end(), [](const auto& a, const auto& b) { return a.first.center().y() < b.first.center().y(); });
        double y = board.top();
        const double step = std::min(40.0, board.height() / std::max<std::size_t>(1, labels.size()));
        for (std::size_t i = 0; i < labels.size(); ++i) {
            const QRectF& r = labels[i].first;
            const double rest = double(labels.size() - i) * step;
            y = std::clamp(r.center().y() - 10, y, std::max(y, board.bottom() - rest));
            const double edge = onLeft ? board.left() - 6 : board.right() + 6;
            p.setPen(QPen(c.copper, 1.3));
            p.drawPolyline(QPolygonF({QPointF(onLeft ? r.left() - 5 : r.right() + 5, r.center().y()),
                                      QPointF(edge + (onLeft ? 2 : -2), y + 10), QPointF(edge - (onLeft ? 4 : -4), y + 10)}));
            const QRectF text(onLeft ? edge - kLabelRoom + 2 : edge + 8, y, kLabelRoom - 12, step);
            const int side = onLeft ? Qt::AlignRight : Qt::AlignLeft;
            p.setFont(benchFont(15, true));
            p.setPen(c.ink);
            p.drawText(text.adjusted(0, 0, 0, -step / 2), side | Qt::AlignVCenter, QString::fromStdString(labels[i].second->ref));
            if (step > 34) {
                p.setFont(benchFont(12));
                p.setPen(c.soft);
                p.drawText(text.adjusted(0, step / 2 - 2, 0, 0), side | Qt::AlignTop,
                           QFontMetrics(p.font()).elidedText(QString::fromStdString(labels[i].second->value), Qt::ElideRight, int(text.width())));
            }
            y += step;
        }
    };
    column(left, true);
    column(right, false);
}

void BoardMap::paintEvent(QPaintEvent*) {
    if (board_.width <= 0) return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    const Place whole{board_.width / 2, board_.height / 2, board_.width, board_.height, 0};
    const QRectF board = onScreen(whole);
    p.setPen(QPen(c.boardInk, 1.4));
    p.setBrush(c.board);
    p.drawRoundedRect(board, 6, 6);
    for (const auto& piece : pieces_) drawPiece(p, piece);
    drawLeaders(p);
    p.setFont(benchFont(13));
    p.setPen(c.soft);
    p.drawText(QRectF(board.left(), board.bottom() + 4, board.width(), 22), Qt::AlignLeft | Qt::AlignTop,
               mirrored_ ? QStringLiteral("From the solder side, mirrored") : QStringLiteral("From above, print towards you"));
    p.drawText(QRectF(board.left(), board.bottom() + 4, board.width(), 22), Qt::AlignRight | Qt::AlignTop,
               QStringLiteral("ringed: now · hatched: in · outline: waits"));
}

}  // namespace ombrek
