#include "desk/first_light/check_strips.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "look/verdict_mark.h"

namespace ombrek {
namespace {
constexpr double kLeast = 16, kMost = 34;  ///< height of a row [px]
constexpr std::size_t kFewest = 4;         ///< rows of a column that are shown in the least room
}  // namespace

CheckStrips::CheckStrips(QWidget* parent) : QWidget(parent) {}

void CheckStrips::show(std::vector<FirstLightView::Line> lines, const Check* current) {
    lines_ = std::move(lines);
    current_ = current;
    setMinimumHeight(int(double(std::min(half(), kFewest)) * kLeast) + 6);
    setMaximumHeight(int(double(half()) * kMost) + 6);
    setAccessibleName(QStringLiteral("%1 checks").arg(lines_.size()));
    update();
}

/// Rows in each of the two columns.
std::size_t CheckStrips::half() const { return (lines_.size() + 1) / 2; }

/// Rows of each column that find room.
std::size_t CheckStrips::shown() const {
    return std::clamp<std::size_t>(std::size_t(std::max(0.0, (height() - 6.0) / kLeast)), 1,
                                   std::max<std::size_t>(half(), 1));
}

/// The first of them: the check in hand is always among them.
std::size_t CheckStrips::first() const {
    const auto hit =
        std::find_if(lines_.begin(), lines_.end(), [&](const auto& line) { return line.check == current_; });
    if (hit == lines_.end() || shown() >= half()) return 0;
    const std::size_t at = std::size_t(hit - lines_.begin()) % half(), before = shown() / 2;
    return std::min(at > before ? at - before : 0, half() - shown());
}

/// As high as there is room for; empty: it finds none.
QRectF CheckStrips::row(std::size_t i) const {
    const std::size_t at = i % half();
    if (at < first() || at >= first() + shown()) return {};
    const double w = width() / 2.0 - 12, h = std::clamp((height() - 6.0) / double(half()), kLeast, kMost);
    return {i < half() ? 0 : width() / 2.0 + 12, double(at - first()) * h, w, h};
}

void CheckStrips::drawScale(QPainter& p, const QRectF& r, const FirstLightView::Line& line) const {
    const Colours& c = coloursOf(*this);
    const Limits& limits = line.verdict.limits;
    p.fillRect(QRectF(r.left() + r.width() * 0.2, r.center().y() - 4, r.width() * 0.6, 8), c.passTint);
    p.setPen(QPen(c.notDone, 1));
    p.drawLine(QPointF(r.left(), r.center().y()), QPointF(r.right(), r.center().y()));
    if (!std::isfinite(line.verdict.reading)) return;
    double t = 0.5;
    if (std::isfinite(limits.halfWidth()) && limits.halfWidth() > 0) {
        t = 0.5 + 0.3 * (line.verdict.reading - (limits.low + limits.high) / 2) / limits.halfWidth();
    } else if (!limits.holds(line.verdict.reading)) {
        t = 0.05;
    }
    const double x = r.left() + std::clamp(t, 0.02, 0.98) * r.width();
    p.setPen(QPen(colourOf(c, line.verdict.state), 3));
    p.drawLine(QPointF(x, r.center().y() - 7), QPointF(x, r.center().y() + 7));
}

void CheckStrips::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    for (std::size_t i = 0; i < lines_.size(); ++i) {
        const QRectF r = row(i);
        if (r.isEmpty()) continue;
        const auto& line = lines_[i];
        if (line.check == current_) {
            p.setPen(Qt::NoPen);
            p.setBrush(c.copper);
            p.drawEllipse(QPointF(r.left() + 8, r.center().y()), 7, 7);
        } else {
            drawVerdictMark(p, QRectF(r.left() + 1, r.center().y() - 7, 14, 14), line.verdict.state, c);
        }
        if (line.check->gate) {
            p.setPen(QPen(c.copper, 2.5));
            p.drawLine(QPointF(r.left() + 21, r.top() + 5), QPointF(r.left() + 21, r.bottom() - 5));
        }
        p.setFont(benchFont(r.height() > 27 ? 16 : 14, line.check == current_));
        p.setPen(c.ink);
        const QRectF text(r.left() + 28, r.top(), r.width() - 28 - 70, r.height());
        p.drawText(text, Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetrics(p.font()).elidedText(QString::fromStdString(line.check->title),
                                                     Qt::ElideRight, int(text.width())));
        FirstLightView::Line scaled = line;
        scaled.verdict.limits = line.check->limits;
        drawScale(p, QRectF(r.right() - 64, r.top(), 64, r.height()), scaled);
    }
}

void CheckStrips::mousePressEvent(QMouseEvent* event) {
    for (std::size_t i = 0; i < lines_.size(); ++i) {
        if (row(i).contains(event->position())) emit chosen(QString::fromStdString(lines_[i].check->id));
    }
}

}  // namespace ombrek
