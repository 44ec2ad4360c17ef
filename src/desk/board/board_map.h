#pragma once

#include <QStackedWidget>

#include "report/board_drawing.h"

namespace ombrek {

/// The board's drawing as the big thing of a page: which side it is and what the marks mean stand below. For
/// a kit that does not say where its parts sit, the parts in hand as the builder sees them.
class BoardMap : public QStackedWidget {
 public:
    explicit BoardMap(QWidget* parent = nullptr);
    /// @param inHand  the parts that are fitted or looked at now
    void show(BoardDrawing drawing, const std::vector<const Part*>& inHand);
    /// What the marks mean, where they mean something else.
    void setLegend(const QString& marks);
    QSize minimumSizeHint() const override { return {420, 300}; }

 private:
    class DrawingView* drawing_;
    class StepParts* parts_;
};

}  // namespace ombrek
