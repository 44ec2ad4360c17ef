#pragma once

#include <QWidget>
#include <vector>

#include "desk/stations.h"

namespace ombrek {

/// The wire at the left: the kit's name and the seven stations threaded on enamelled copper, each bead wound
/// as far as it has come.
class WireRail : public QWidget {
    Q_OBJECT
 public:
    explicit WireRail(QWidget* parent = nullptr);
    /// The kit's name, how it stands, and a line for each station.
    void show(const QString& kit, const QString& summary, const QString& sitting,
              std::vector<StationLine> lines);
    /// The station that is shown, 0 to 6; −1: none.
    void setCurrent(int station);
    QSize sizeHint() const override { return {214, 600}; }

 signals:
    /// A station was clicked.
    void chosen(int station);

 protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

 private:
    QRectF row(int station) const;
    void paintHead(QPainter& p) const;

    QString kit_, summary_, sitting_;
    std::vector<StationLine> lines_;
    int current_ = 0;
};

}  // namespace ombrek
