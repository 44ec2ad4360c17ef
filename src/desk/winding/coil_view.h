#pragma once

#include <QWidget>

#include "desk/winding/winding_model.h"

namespace ombrek {

/// The coil with its true turns, tails and tens; the count in the middle.
class CoilView : public QWidget {
    Q_OBJECT
 public:
    explicit CoilView(QWidget* parent = nullptr);
    /// @param leftHanded  the winder feeds the wire with the left hand: the drawing runs the other way round
    void show(const WindingView& view, const Build& build, bool leftHanded);
    QSize minimumSizeHint() const override { return {320, 320}; }

 signals:
    /// A click anywhere on the coil, for a mouse under the elbow or on the floor.
    void clicked();

 protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

 private:
    struct Part {
        int turns = 0, wanted = 0;
        QString name;
        bool inHand = false;
        LaidWinding lay;
        bool over = false;  ///< lies over the first winding
        std::vector<std::pair<int, QString>> taps;
        int strands = 1, strand = 0;  ///< of a bundle that is wound together, and which of them it is
    };
    struct Ring {
        QPointF middle;
        double inner, outer, hand;
    };
    void drawLaid(QPainter& p, const Part& part, const Ring& ring) const;
    void drawTen(QPainter& p, QPointF at, int turns, bool reached) const;
    void drawTail(QPainter& p, QPointF from, QPointF hole, const QString& name, double thick, bool there,
                  bool live) const;
    void drawRing(QPainter& p) const;
    void drawTwoHole(QPainter& p) const;
    void drawCount(QPainter& p, QPointF at, double room) const;

    std::vector<Part> windings_;
    double holeRatio_ = 0.55;
    bool ring_ = true, mirrored_ = false;
    QString sense_;
    int turns_ = 0, wanted_ = 0;
    QString below_;
};

}  // namespace ombrek
