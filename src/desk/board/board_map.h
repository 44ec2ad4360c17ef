#pragma once

#include <QWidget>

#include "report/board_drawing.h"

namespace ombrek {

/// The board's drawing as the big thing of a page: which side it is and what the marks mean stand below.
class BoardMap : public QWidget {
 public:
    explicit BoardMap(QWidget* parent = nullptr);
    void show(BoardDrawing drawing);
    QSize minimumSizeHint() const override { return {420, 300}; }

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    BoardDrawing drawing_;
};

}  // namespace ombrek
