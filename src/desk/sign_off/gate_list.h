#pragma once

#include <QWidget>

#include "core/proof/readiness.h"

namespace ombrek {

/// The gates from the bag to the air, threaded on the wire: earned, passed knowingly or still barred, each
/// with its evidence.
class GateList : public QWidget {
    Q_OBJECT
 public:
    explicit GateList(QWidget* parent = nullptr);
    /// Every gate with its state; the chosen one is ringed.
    void show(const Readiness& readiness, int chosen);

 signals:
    /// A gate was clicked.
    void picked(int gate);

 protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

 private:
    QRectF row(int gate) const;
    Readiness readiness_;
    int chosen_ = 0;
};

}  // namespace ombrek
