#pragma once

#include <QWidget>

#include "look/part_picture.h"

namespace ombrek {

/// A part drawn as the builder sees it.
class PartView : public QWidget {
 public:
    explicit PartView(QWidget* parent = nullptr) : QWidget(parent) { setMinimumHeight(112); }
    /// Drawn as it looks, in the colours of its leads.
    void show(const PartLook& part) {
        part_ = part;
        setAccessibleName(QStringLiteral("Drawing: %1. %2 %3").arg(part.value, part.mark, part.orientation));
        update();
    }

 protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        const double tall = std::min(112.0, double(height()));
        drawPart(p, QRectF(0, 0, width(), tall), part_, coloursOf(*this));
    }

 private:
    PartLook part_;
};

}  // namespace ombrek
