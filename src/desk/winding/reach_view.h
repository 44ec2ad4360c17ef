#pragma once

#include <QWidget>

#include "core/coil/tank.h"

namespace ombrek {

/// A trimmer's travel with the place where the band lies, and the frequencies it covers with the band on
/// them.
class ReachView : public QWidget {
 public:
    explicit ReachView(QWidget* parent = nullptr);
    /// The trimmer's range against what is wanted [F].
    void show(const TrimmerCover& cover, double low, double high);

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    void drawTravel(QPainter& p, const QRectF& room) const;
    void drawFrequencies(QPainter& p, const QRectF& room) const;

    TrimmerCover cover_;
    double low_ = 0, high_ = 0;
};

}  // namespace ombrek
