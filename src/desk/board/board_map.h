#pragma once

#include <QWidget>

#include "desk/board/board_model.h"

namespace ombrek {

/// The board from above or, mirrored, from the solder side: what is to be fitted now ringed in copper with a
/// leader and its value, what is in hatched, what waits an outline.
class BoardMap : public QWidget {
 public:
    explicit BoardMap(QWidget* parent = nullptr);
    void show(const Board& board, std::vector<BoardView::Piece> pieces, bool mirrored);
    QSize minimumSizeHint() const override { return {420, 300}; }

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    Place whole() const;
    QRectF onScreen(const Place& place) const;
    void drawPiece(QPainter& p, const BoardView::Piece& piece) const;
    void drawLeaders(QPainter& p) const;
    void drawLegend(QPainter& p, const QRectF& board) const;

    Board board_;
    std::vector<BoardView::Piece> pieces_;
    bool mirrored_ = false;
};

}  // namespace ombrek
