#include "desk/tune/live_scale.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "desk/session.h"
#include "look/colours.h"

namespace ombrek {
namespace {

constexpr int kFrame = 33;        ///< thirty a second [ms]
constexpr qint64 kTrace = 30000;  ///< kept [ms]
constexpr std::size_t kMost = 4000;

}  // namespace

LiveScale::LiveScale(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    frame_.setInterval(kFrame);
    frame_.setSingleShot(true);
    connect(&frame_, &QTimer::timeout, this, [this] { update(); });
    clock_.start();
}

void LiveScale::begin(Unit unit, bool least, double target, double tolerance) {
    unit_ = unit;
    least_ = least;
    target_ = target;
    tolerance_ = tolerance;
    last_ = best_ = low_ = high_ = NAN;
    count_ = 0;
    frozen_ = false;
    trace_.clear();
    update();
}

void LiveScale::take(double value) {
    if (frozen_ || !std::isfinite(value)) return;
    ++count_;
    last_ = value;
    low_ = std::fmin(low_, value);
    high_ = std::fmax(high_, value);
    const bool set = !std::isnan(target_);
    const bool better = std::isnan(best_) || (set      ? std::abs(value - target_) < std::abs(best_ - target_)
                                              : least_ ? value < best_
                                                       : value > best_);
    if (better) best_ = value;
    const qint64 now = clock_.elapsed();
    trace_.push_back({now, value});
    while (!trace_.empty() && (trace_.front().at < now - kTrace || trace_.size() > kMost)) trace_.pop_front();
    if (!frame_.isActive()) frame_.start();
}

void LiveScale::freeze(bool on) {
    frozen_ = on;
    update();
}

/// Along the bar, 0 … 1: from nothing to a tenth over the most seen; around a target, twenty tolerances wide.
double LiveScale::place(double value) const {
    if (std::isnan(value)) return 0;
    if (!std::isnan(target_)) {
        const double wide =
            std::max({10 * tolerance_, 1.1 * std::abs(high_ - target_), 1.1 * std::abs(low_ - target_)});
        return std::clamp(0.5 + 0.5 * (value - target_) / std::max(wide, 1e-30), 0.0, 1.0);
    }
    const double from = std::fmin(0.0, low_), to = std::fmax(high_, 1e-30);
    return std::clamp((value - from) / (1.1 * (to - from)), 0.0, 1.0);
}

double LiveScale::share() const {
    if (std::isnan(last_)) return 0;
    if (!std::isnan(target_)) return 1 - 2 * std::abs(place(last_) - 0.5);
    return least_ ? 1 - place(last_) : place(last_);
}

void LiveScale::paintTrace(QPainter& p, const QRectF& box) const {
    if (trace_.size() < 2) return;
    const qint64 now = frozen_ ? trace_.back().at : clock_.elapsed();
    QPolygonF line;
    for (const Point& point : trace_)
        line << QPointF(box.right() - box.width() * double(now - point.at) / kTrace,
                        box.bottom() - box.height() * place(point.value));
    p.drawPolyline(line);
}

void LiveScale::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    const QRectF bar(8, 44, width() - 16.0, 56);
    p.setPen(Qt::NoPen);
    p.setBrush(c.rail);
    p.drawRoundedRect(bar, 10, 10);
    const auto x = [&](double value) { return bar.left() + bar.width() * place(value); };
    const QFont words = benchFont(15);
    if (!std::isnan(target_) && !std::isnan(last_)) {
        p.setBrush(c.passTint);
        p.drawRect(QRectF(QPointF(x(target_ - tolerance_), bar.top()),
                          QPointF(x(target_ + tolerance_), bar.bottom())));
    }
    if (!std::isnan(last_)) {
        p.setBrush(frozen_ ? c.soft : c.copper);
        const double end = x(last_), begin = std::isnan(target_) ? bar.left() : x(target_);
        p.drawRoundedRect(QRectF(QPointF(std::min(begin, end), bar.top() + 8),
                                 QPointF(std::max({begin, end, bar.left() + 4}), bar.bottom() - 8)),
                          6, 6);
    }
    if (!std::isnan(best_)) {
        p.setPen(QPen(c.ink, 4));
        p.drawLine(QPointF(x(best_), bar.top() - 8), QPointF(x(best_), bar.bottom() + 8));
        p.setFont(words);
        const QString best =
            (std::isnan(target_) ? QStringLiteral("best so far ") : QStringLiteral("nearest so far ")) +
            qs(formatQuantity(best_, unit_, unit_ == Unit::hertz ? 8 : 3));
        const double wide = p.fontMetrics().horizontalAdvance(best) + 8;
        const double at = std::clamp(x(best_) - wide / 2, 0.0, std::max(0.0, width() - wide));
        p.drawText(QRectF(at, 4, wide, 28), Qt::AlignCenter, best);
    }
    const QRectF trace(bar.left(), bar.bottom() + 34, bar.width(), height() - bar.bottom() - 62);
    p.setPen(QPen(c.line, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(trace);
    p.setPen(QPen(c.copper, 2.5));
    paintTrace(p, trace.adjusted(2, 4, -2, -4));
    p.setFont(benchFont(13));
    p.setPen(c.soft);
    p.drawText(QRectF(trace.left(), trace.bottom() + 4, 200, 20), Qt::AlignLeft | Qt::AlignVCenter,
               QStringLiteral("half a minute ago"));
    p.drawText(QRectF(trace.right() - 200, trace.bottom() + 4, 200, 20), Qt::AlignRight | Qt::AlignVCenter,
               frozen_ ? QStringLiteral("held") : QStringLiteral("now"));
}

}  // namespace ombrek
