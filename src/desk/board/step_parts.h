#pragma once

#include <QWidget>
#include <vector>

#include "kit/kit.h"
#include "look/colours.h"

namespace ombrek {

/// The parts that a step fits, one beside another, each as the builder sees it: the big thing of the Board
/// for a kit that does not say where its parts sit.
class StepParts : public QWidget {
 public:
    explicit StepParts(QWidget* parent = nullptr);
    /// The parts of a step, drawn as they look.
    void show(const std::vector<const Part*>& parts);
    QSize minimumSizeHint() const override { return {420, 300}; }

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    void paintDrawn(QPainter& p, const QRectF& room, const Part& part, const Colours& c) const;
    void paintShort(QPainter& p, const QRectF& room, const Part& part, const Colours& c) const;

    std::vector<Part> parts_;
};

}  // namespace ombrek
