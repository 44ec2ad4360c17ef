#include "desk/board/board_map.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "look/colours.h"

namespace ombrek {
namespace {

constexpr double kLabelRoom = 46;  ///< above and below the board, for leaders' words
constexpr double kLabel = 92;      ///< width of one leader's words at most
constexpr double kFoot = 26;       ///< for the line under the board

bool roundShape(const Part& part) {
    return part.kind == PartKind::coil || part.kind == PartKind::trimmer ||
           part.value.find("µF") != std::string::npos;
}

}  // namespace

BoardMap::BoardMap(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void BoardMap::show(const Board& board, std::vector<BoardView::Piece> pieces, bool mirrored) {
    board_ = board;
    pieces_ = std::move(pieces);
    mirrored_ = mirrored;
    QStringList now;
    for (const auto& piece : pieces_) {
        if (piece.fitting == BoardView::Fitting::now) now << QString::fromStdString(piece.part->ref);
    }
    setAccessibleName(
        QStringLiteral("The board%1; to be fitted: %2")
            .arg(mirrored ? QStringLiteral(", solder side") : QString(), now.join(QStringLiteral(", "))));
    update();
}

Place BoardMap::whole() const {
    return {board_.width / 2, board_.height / 2, board_.width, board_.height, 0};
}

QRectF BoardMap::onScreen(const Place& place) const {
    const double scale =
        std::min((width() - 4.0) / board_.width, (height() - 2 * kLabelRoom - kFoot) / board_.height);
    const QPointF origin((width() - board_.width * scale) / 2, kLabelRoom);
    const double x = mirrored_ ? board_.width - place.x : place.x;
    const bool turned = std::fabs(std::fmod(std::fabs(place.turn), 180.0) - 90.0) < 45.0;
    const double w = (turned ? place.height : place.width) * scale,
                 h = (turned ? place.width : place.height) * scale;
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
    const QRectF board = onScreen(whole());
    std::vector<std::pair<QRectF, const Part*>> above, below;
    for (const auto& piece : pieces_) {
        if (piece.fitting != BoardView::Fitting::now) continue;
        const QRectF r = onScreen(*piece.part->place);
        (r.center().y() < board.center().y() ? above : below).emplace_back(r, piece.part);
    }
    const auto labels = [&](std::vector<std::pair<QRectF, const Part*>>& row, bool top) {
        std::sort(row.begin(), row.end(),
                  [](const auto& a, const auto& b) { return a.first.center().x() < b.first.center().x(); });
        const double step = std::min(kLabel, double(width()) / double(std::max<std::size_t>(1, row.size())));
        double next = 0;
        for (std::size_t i = 0; i < row.size(); ++i) {
            const auto& [r, part] = row[i];
            const double last = width() - double(row.size() - i) * step;
            const double x = std::clamp(r.center().x() - step / 2, next, std::max(next, last));
            next = x + step;
            const double y = top ? board.top() - kLabelRoom : board.bottom() + kFoot;
            const QPointF foot(x + step / 2, top ? board.top() - 6 : board.bottom() + kFoot);
            p.setPen(QPen(c.copper, 1.3));
            p.drawLine(QPointF(r.center().x(), top ? r.top() - 5 : r.bottom() + 5), foot);
            p.setFont(benchFont(15, true));
            p.setPen(c.ink);
            p.drawText(QRectF(x, y, step, 20), Qt::AlignCenter, QString::fromStdString(part->ref));
            p.setFont(benchFont(12));
            p.setPen(c.soft);
            p.drawText(QRectF(x + 2, y + 19, step - 4, 18), Qt::AlignCenter,
                       QFontMetrics(p.font()).elidedText(QString::fromStdString(part->value), Qt::ElideRight,
                                                         int(step - 4)));
        }
    };
    labels(above, true);
    labels(below, false);
}

/// Which side this is and what the marks mean; over the board when leaders leave it below.
void BoardMap::drawLegend(QPainter& p, const QRectF& board) const {
    const bool below = std::any_of(pieces_.begin(), pieces_.end(), [&](const BoardView::Piece& piece) {
        return piece.fitting == BoardView::Fitting::now &&
               onScreen(*piece.part->place).center().y() >= board.center().y();
    });
    const QRectF line(board.left(), below ? board.top() - 24 : board.bottom() + 4, board.width(), 22);
    p.setFont(benchFont(13));
    p.setPen(coloursOf(*this).soft);
    const QString side = mirrored_ ? QStringLiteral("From the solder side, mirrored")
                                   : QStringLiteral("From above, print towards you");
    const QString marks = QStringLiteral("ringed: now · hatched: in · outline: waits");
    p.drawText(line, Qt::AlignLeft | Qt::AlignVCenter, side);
    const QFontMetrics metrics(p.font());
    if (metrics.horizontalAdvance(side) + metrics.horizontalAdvance(marks) + 20 > line.width()) return;
    p.drawText(line, Qt::AlignRight | Qt::AlignVCenter, marks);
}

void BoardMap::paintEvent(QPaintEvent*) {
    if (board_.width <= 0) return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    const QRectF board = onScreen(whole());
    p.setPen(QPen(c.boardInk, 1.4));
    p.setBrush(c.board);
    p.drawRoundedRect(board, 6, 6);
    for (const auto& piece : pieces_) drawPiece(p, piece);
    drawLeaders(p);
    drawLegend(p, board);
}

}  // namespace ombrek
