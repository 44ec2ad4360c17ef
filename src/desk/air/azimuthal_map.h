#pragma once

#include <QPainterPath>
#include <QWidget>
#include <vector>

#include "core/air/locator.h"
#include "formats/tables.h"

namespace ombrek {

/// The world about one's own place: every direction and distance from there is true (azimuthal equidistant).
/// Rings tell the distance, dots are contacts, small rings receivers that heard the rig.
class AzimuthalMap : public QWidget {
    Q_OBJECT
 public:
    explicit AzimuthalMap(const std::vector<Coastline>& coast, QWidget* parent = nullptr);
    struct Dot {
        Place2d place;
        bool heard = false;   ///< a receiver's report, not a contact
        bool inHand = false;  ///< marked, with a line to it
    };
    /// @param home  own place; nothing is drawn but a sentence when it is not known
    void show(const Result<Place2d>& home, const std::vector<Dot>& dots);
    QSize sizeHint() const override { return {300, 220}; }
    QSize minimumSizeHint() const override { return {160, 120}; }

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    void layCoast();

    const std::vector<Coastline>& coast_;
    bool known_ = false;
    Place2d home_;
    std::vector<std::pair<MapPoint, Dot>> dots_;
    std::vector<std::vector<MapPoint>> shore_;  ///< about home_
    double reach_ = 1000;                       ///< from the middle to the edge [km]
};

}  // namespace ombrek
