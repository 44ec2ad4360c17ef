#pragma once

#include <QWidget>
#include <vector>

#include "judged/licence.h"

namespace ombrek {

/// Each of the rig's bands as a bar: what the licence gives, what of it may be dialled with all errors
/// inside, and where the rig stands.
class BandStrip : public QWidget {
    Q_OBJECT
 public:
    explicit BandStrip(QWidget* parent = nullptr) : QWidget(parent) {}
    struct Row {
        QString name;
        LicenceLine line;
        bool inHand = false;
    };
    /// A row for each band.
    void show(std::vector<Row> rows);
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {300, 80}; }

 signals:
    /// A row was clicked.
    void picked(int row);

 protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

 private:
    QRectF rowAt(int row) const;
    std::vector<Row> rows_;
};

}  // namespace ombrek
