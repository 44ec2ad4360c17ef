#include "desk/frequency/crystal_line.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/quantity/quantity.h"
#include "desk/session.h"
#include "look/colours.h"

namespace ombrek {

CrystalLine::CrystalLine(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void CrystalLine::show(std::vector<LinedCrystal> crystals, QStringList sets) {
    crystals_ = std::move(crystals);
    std::sort(crystals_.begin(), crystals_.end(),
              [](const auto& a, const auto& b) { return a.frequency < b.frequency; });
    sets_ = std::move(sets);
    setAccessibleName(sets_.isEmpty() ? QStringLiteral("%1 crystals, no set yet").arg(crystals_.size())
                                      : sets_.join(QStringLiteral("; ")));
    update();
}

void CrystalLine::paintEvent(QPaintEvent*) {
    if (crystals_.empty()) return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    const double low = crystals_.front().frequency, high = std::max(crystals_.back().frequency, low + 1);
    const double left = 30, wide = width() - 60.0, middle = height() * 0.46;
    const auto x = [&](double f) { return left + wide * (f - low) / (high - low); };
    p.setPen(QPen(c.line, 2));
    p.drawLine(QPointF(left, middle), QPointF(left + wide, middle));
    // Numbers stand on three rows, so that neighbours do not lie on each other.
    p.setFont(benchFont(15));
    double taken[4] = {-1e9, -1e9, -1e9, -1e9};
    for (const LinedCrystal& k : crystals_) {
        const double at = x(k.frequency);
        const int wideText = p.fontMetrics().horizontalAdvance(k.id) + 8;
        int row = 0;
        while (row < 3 && at - wideText / 2.0 < taken[row]) ++row;
        taken[row] = at + wideText / 2.0;
        const double top = middle - 26 - 20 * row;
        p.setPen(QPen(k.inHand ? c.copper : c.soft, k.inHand ? 3 : 1.5));
        p.drawLine(QPointF(at, middle - 12), QPointF(at, middle + 12));
        p.setPen(k.inHand ? c.copper : k.set >= 0 ? c.ink : c.soft);
        p.setFont(benchFont(15, k.inHand));
        p.drawText(QRectF(at - 40, top - 8, 80, 18), Qt::AlignCenter, k.id);
    }
    double until[3] = {-1e9, -1e9, -1e9};
    for (int s = 0; s < sets_.size(); ++s) {
        double from = 1e300, to = -1e300;
        for (const LinedCrystal& k : crystals_) {
            if (k.set != s) continue;
            from = std::min(from, x(k.frequency));
            to = std::max(to, x(k.frequency));
        }
        if (from > to) continue;
        from -= 5;
        to += 5;
        p.setFont(benchFont(16, true));
        const double words = p.fontMetrics().horizontalAdvance(sets_[s]) + 10;
        const double centre = std::clamp((from + to) / 2, words / 2, width() - words / 2);
        int row = 0;
        while (row < 2 && std::min(from, centre - words / 2) < until[row]) ++row;
        until[row] = std::max(to, centre + words / 2);
        const double y = middle + 28 + 46 * row;
        p.setPen(QPen(c.copper, 2));
        p.drawPolyline(
            QPolygonF({QPointF(from, y - 6), QPointF(from, y), QPointF(to, y), QPointF(to, y - 6)}));
        p.setPen(c.ink);
        p.drawText(QRectF(centre - words / 2, y + 3, words, 20), Qt::AlignCenter, sets_[s]);
    }
    p.setFont(benchFont(13));
    p.setPen(c.soft);
    p.drawText(QRectF(left - 20, height() - 22, wide / 2, 20), Qt::AlignLeft | Qt::AlignVCenter,
               qs(formatQuantity(low, Unit::hertz, 8)));
    p.drawText(QRectF(left + wide / 2 + 20, height() - 22, wide / 2, 20), Qt::AlignRight | Qt::AlignVCenter,
               QStringLiteral("+%1\u202fHz").arg(qs(decimals(high - low, 0))));
}

}  // namespace ombrek
