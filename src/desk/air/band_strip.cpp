#include "desk/air/band_strip.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

#include "core/quantity/quantity.h"
#include "look/verdict_mark.h"

namespace ombrek {
namespace {

constexpr int kRow = 80;

QString megahertz(double f) { return QString::fromStdString(formatQuantity(f, Unit::hertz, 7)); }

}  // namespace

QSize BandStrip::sizeHint() const { return {500, withText(kRow) * std::max(1, int(rows_.size()))}; }

void BandStrip::show(std::vector<Row> rows) {
    rows_ = std::move(rows);
    setMinimumHeight(std::min(sizeHint().height(), 3 * withText(kRow)));
    QStringList said;
    for (const Row& r : rows_) said << r.name + QStringLiteral(", ") + wordOf(r.line.verdict.state);
    setAccessibleName(said.join(QStringLiteral("; ")));
    updateGeometry();
    update();
}

QRectF BandStrip::rowAt(int row) const {
    const double pitch =
        std::min(double(withText(kRow)), double(height()) / std::max<std::size_t>(1, rows_.size()));
    return {0, row * pitch, double(width()), pitch};
}

void BandStrip::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    const double left = withText(110), right = 24;
    for (int i = 0; i < int(rows_.size()); ++i) {
        const auto& [name, line, inHand] = rows_[std::size_t(i)];
        const QRectF r = rowAt(i);
        if (inHand) {
            p.setPen(QPen(c.copper, 1.5));
            p.setBrush(c.card);
            p.drawRoundedRect(r.adjusted(1, 1, -1, -3), 9, 9);
        }
        drawVerdictMark(p, QRectF(14, r.center().y() - 11, 22, 22), line.verdict.state, c);
        p.setPen(c.ink);
        p.setFont(benchFont(18, true));
        p.drawText(QRectF(46, r.top(), left - 50, r.height()), Qt::AlignLeft | Qt::AlignVCenter, name);
        if (!line.limit) {
            p.setFont(benchFont(15));
            p.setPen(c.soft);
            p.drawText(QRectF(left, r.top(), r.width() - left - right, r.height()),
                       Qt::AlignVCenter | Qt::AlignLeft, QStringLiteral("not among your limits"));
            continue;
        }
        const double low = line.limit->low, high = line.limit->high, span = high - low;
        const double from = std::min(low, line.frequency) - span * 0.06,
                     to = std::max(high, line.frequency) + span * 0.06;
        const auto x = [&](double f) { return left + (f - from) / (to - from) * (r.width() - left - right); };
        const double y = r.center().y();
        p.setPen(QPen(c.line, 1));
        p.setBrush(c.core);
        p.drawRoundedRect(QRectF(QPointF(x(low), y - 8), QPointF(x(high), y + 8)), 3, 3);
        if (line.highest > line.lowest) {
            p.setPen(Qt::NoPen);
            p.setBrush(c.passTint);
            p.drawRect(QRectF(QPointF(x(line.lowest), y - 7), QPointF(x(line.highest), y + 7)));
        }
        p.setPen(QPen(c.copper, 3));
        p.drawLine(QPointF(x(line.frequency), y - 15), QPointF(x(line.frequency), y + 15));
        p.setFont(benchFont(13));
        p.setPen(c.soft);
        const double foot = y + 14;
        p.drawText(QRectF(x(low), foot, 150, 18), Qt::AlignLeft, megahertz(low));
        p.drawText(QRectF(x(high) - 150, foot, 150, 18), Qt::AlignRight, megahertz(high));
        p.setPen(c.copper);
        const double at = std::clamp(x(line.frequency) - 75, left, r.width() - right - 150);
        p.drawText(QRectF(at, y - 34, 150, 18), Qt::AlignCenter, megahertz(line.frequency));
    }
}

void BandStrip::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < int(rows_.size()); ++i) {
        if (rowAt(i).contains(event->position())) emit picked(i);
    }
}

}  // namespace ombrek
