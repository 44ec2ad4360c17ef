#pragma once

#include <QWidget>

#include "desk/first_light/first_light_model.h"

namespace ombrek {

/// All checks at once: each a thin scale with its limits and where the reading fell; gates have a bar.
class CheckStrips : public QWidget {
    Q_OBJECT
 public:
    explicit CheckStrips(QWidget* parent = nullptr);
    /// Every check in its order; the one in hand is ringed.
    void show(std::vector<FirstLightView::Line> lines, const Check* current);

 signals:
    /// A check was clicked.
    void chosen(const QString& id);

 protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

 private:
    std::size_t half() const;
    std::size_t shown() const;
    std::size_t first() const;
    QRectF row(std::size_t i) const;
    void drawScale(QPainter& p, const QRectF& r, const FirstLightView::Line& line) const;

    std::vector<FirstLightView::Line> lines_;
    const Check* current_ = nullptr;
};

}  // namespace ombrek
