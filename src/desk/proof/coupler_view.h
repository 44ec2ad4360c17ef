#pragma once

#include <QWidget>

#include "core/antenna/coupler.h"

namespace ombrek {

/// A coupler drawn from the rig to the antenna, each part as a knob that stands where it will stand, with its
/// value, and the voltage on it.
class CouplerView : public QWidget {
 public:
    explicit CouplerView(QWidget* parent = nullptr);
    /// The coupler drawn, its parts where they stand at the match.
    void show(const Coupler& coupler, const CouplerMatch& match, const QString& load);
    QSize sizeHint() const override { return {560, 260}; }
    QSize minimumSizeHint() const override { return {360, 200}; }

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    double radius() const;  ///< of a knob [px]
    void paintPart(QPainter& p, QPointF at, bool series, bool coil, double value, const PartRange& range,
                   const CouplerMatch::Stress& stress) const;

    Coupler coupler_;
    CouplerMatch match_;
    QString load_;
};

}  // namespace ombrek
