#pragma once

#include <QPainter>
#include <QString>
#include <vector>

#include "kit/kit.h"
#include "look/colours.h"

namespace ombrek {

/// One placed part on the drawn board.
struct BoardPiece {
    const Part* part = nullptr;
    enum class Fitting { waits, now, in } fitting = Fitting::waits;
    bool alike = false;    ///< of the value that is looked for
    bool mend = false;     ///< an open finding
    bool suspect = false;  ///< may be what is wrong
};

/// The board from above or, mirrored, from the solder side, in the program's own marks: what is to be fitted
/// now ringed in copper with a leader and its value, what is in hatched, what waits an outline; packages in
/// their real size, with the end of pin 1 drawn. On screen and on paper.
class BoardDrawing {
 public:
    Board board;
    std::vector<BoardPiece> pieces;
    bool mirrored = false;
    double zoom = 1;  ///< 1: the whole board
    Pad middle;       ///< of what is shown when zoomed [mm]
    bool leaders = true;

    /// The whole board, as large as the room allows.
    void paint(QPainter& p, const QRectF& room, const Colours& colours) const;

 private:
    double scale(const QRectF& room) const;
    QPointF at(double x, double y, const QRectF& room) const;
    QRectF onScreen(const Place& place, const QRectF& room) const;
    void paintPiece(QPainter& p, const BoardPiece& piece, const QRectF& room, const Colours& c) const;
    void paintLeaders(QPainter& p, const QRectF& room, const Colours& c) const;
};

}  // namespace ombrek
