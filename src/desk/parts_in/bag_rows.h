#pragma once

#include <QWidget>
#include <functional>

#include "desk/parts_in/parts_in_model.h"

namespace ombrek {

/// The bag by kind, one mark a part; the part wanted now is ringed in copper.
class BagRows : public QWidget {
    Q_OBJECT
 public:
    explicit BagRows(QWidget* parent = nullptr);
    /// The bag row by row. @param wanted  the designator that is ringed
    void show(std::vector<PartsInView::Row> rows, const QString& wanted);

 signals:
    /// A part was clicked.
    void chosen(const QString& ref);

 protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

 private:
    /// Call `use(row, dot, middle)` for every dot; long rows wrap.
    void eachDot(const std::function<void(std::size_t, std::size_t, QPointF)>& use) const;
    int lines(double pitch) const;
    double pitch() const;

    std::vector<PartsInView::Row> rows_;
    QString wanted_;
};

}  // namespace ombrek
