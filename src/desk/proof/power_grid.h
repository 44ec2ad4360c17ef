#pragma once

#include <QWidget>
#include <vector>

#include "core/quantity/verdict.h"

namespace ombrek {

/// Powers by band and supply: a field with its verdict's mark and its watts, an empty one where none was
/// read. The one in hand has a copper frame.
class PowerGrid : public QWidget {
    Q_OBJECT
 public:
    struct Cell {
        VerdictState state = VerdictState::notDone;
        QString text;   ///< "3.1"; empty: not read
        QString under;  ///< "0.62 A"
    };
    struct Shown {
        std::vector<QString> bands, supplies;  ///< "40m", "13.8 V"
        std::vector<std::vector<Cell>> cells;
        int band = 0, supply = 0;  ///< in hand
        int rated = -1;            ///< column of the promise
    };
    explicit PowerGrid(QWidget* parent = nullptr);
    /// Powers by band and supply.
    void show(Shown shown);
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {360, sizeHint().height()}; }

 signals:
    /// A cell was clicked.
    void picked(int band, int supply);

 protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

 private:
    QRectF field(int band, int supply) const;

    Shown shown_;
};

}  // namespace ombrek
