#pragma once

#include <QWidget>

#include "core/quantity/verdict.h"

namespace ombrek {

/// A reading on a scale: the limits, the zone where the meter's error leaves a doubt, the reading with its
/// error bar.
class Gauge : public QWidget {
 public:
    explicit Gauge(QWidget* parent = nullptr);
    /// @param verdict  its limits, uncertainty, unit and, when it has one, reading
    void show(const Verdict& verdict, double nominal);
    QSize sizeHint() const override { return {540, 96}; }

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    Verdict verdict_;
    double nominal_ = 0;
    bool shown_ = false;
};

}  // namespace ombrek
