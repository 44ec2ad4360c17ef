#pragma once

#include <QWidget>

#include "core/adjust/adjuster.h"

namespace ombrek {

/// What is turned, seen as the builder sees it: a plate trimmer from above, a knob with its slot, a screw
/// with its turns, a number. Where it stands now and where it should go.
class AdjusterView : public QWidget {
 public:
    explicit AdjusterView(QWidget* parent = nullptr);
    /// Where it stands and where it is wanted, 0 … 1; NaN: nowhere.
    void show(const Adjuster& adjuster, double position, double wanted);

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    Adjuster adjuster_;
    double position_ = 0.5, wanted_ = 0.5;
};

/// A knob with its slot at a position, and a copper dot where it should go; for small pictures, too.
/// @param wanted  NaN: nowhere else
void drawKnob(QPainter& painter, const QRectF& box, const Adjuster& adjuster, double position, double wanted,
              const QWidget& on);

}  // namespace ombrek
