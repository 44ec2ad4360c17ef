#pragma once

#include <QElapsedTimer>
#include <QTimer>
#include <QWidget>
#include <deque>

#include "core/quantity/quantity.h"

namespace ombrek {

/// What streams in while the builder turns: a large bar without a needle, the best so far on it, and the last
/// half minute behind it. Drawn at most thirty times a second, however fast readings come.
class LiveScale : public QWidget {
    Q_OBJECT
 public:
    explicit LiveScale(QWidget* parent = nullptr);
    /// Begin anew. @param least  the least is wanted, as of a null @param target  NaN: none
    void begin(Unit unit, bool least, double target, double tolerance);
    void take(double value);
    void freeze(bool on);
    bool frozen() const { return frozen_; }
    double last() const { return last_; }
    double best() const { return best_; }
    int taken() const { return int(count_); }
    /// How good the last is on the scale, 0 … 1.
    double share() const;
    QSize sizeHint() const override { return {620, 240}; }

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    double place(double value) const;
    void paintTrace(QPainter& p, const QRectF& box) const;

    struct Point {
        qint64 at = 0;
        double value = 0;
    };
    Unit unit_ = Unit::volt;
    bool least_ = false, frozen_ = false;
    double target_ = NAN, tolerance_ = 0;
    double last_ = NAN, best_ = NAN, low_ = NAN, high_ = NAN;
    std::size_t count_ = 0;
    std::deque<Point> trace_;
    QElapsedTimer clock_;
    QTimer frame_;
};

}  // namespace ombrek
