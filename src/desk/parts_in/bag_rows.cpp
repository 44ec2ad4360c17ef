#include "desk/parts_in/bag_rows.h"

#include <QMouseEvent>
#include <QPainter>

#include "look/verdict_mark.h"

namespace ombrek {
namespace {

constexpr double kNameWidth = 92, kMost = 32;

/// Closer where there is little room, so that the whole bag stays in sight.
double least(int width) { return width < 520 ? 15.5 : 19.5; }
int perLine(int width, double pitch) { return std::max(1, int((width - kNameWidth - 8) / pitch)); }
double lineOf(double pitch) { return std::max(22.0, pitch * 1.13); }
double dotOf(double pitch) { return std::max(13.0, pitch * 2 / 3); }

}  // namespace

BagRows::BagRows(QWidget* parent) : QWidget(parent) {
    setMinimumHeight(int(6 * lineOf(least(0))));
    setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Expanding);
}

int BagRows::lines(double pitch) const {
    int out = 0;
    const int most = perLine(width(), pitch);
    for (const auto& row : rows_) out += (int(row.dots.size()) + most - 1) / most;
    return out;
}

/// From mark to mark: as far as the room lets them [px].
double BagRows::pitch() const {
    double out = least(width());
    while (out < kMost && lines(out + 1) * lineOf(out + 1) + 6 <= height()) out += 1;
    return out;
}

void BagRows::show(std::vector<PartsInView::Row> rows, const QString& wanted) {
    rows_ = std::move(rows);
    wanted_ = wanted;
    const double close = least(width());
    setMinimumHeight(int(lines(close) * lineOf(close) + 6));
    setAccessibleName(QStringLiteral("The bag, a mark for every part; wanted: %1").arg(wanted));
    update();
}

void BagRows::eachDot(const std::function<void(std::size_t, std::size_t, QPointF)>& use) const {
    const double step = pitch(), line = lineOf(step), dot = dotOf(step);
    double y = line / 2;
    for (std::size_t r = 0; r < rows_.size(); ++r) {
        const std::size_t most = std::size_t(perLine(width(), step));
        for (std::size_t d = 0; d < rows_[r].dots.size(); ++d) {
            if (d > 0 && d % most == 0) y += line;
            use(r, d, {kNameWidth + double(d % most) * step + dot / 2, y});
        }
        y += line;
    }
}

void BagRows::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    const double step = pitch(), size = dotOf(step);
    eachDot([&](std::size_t r, std::size_t d, QPointF at) {
        if (d == 0) {
            p.setFont(benchFont(14));
            p.setPen(c.soft);
            p.drawText(QRectF(0, at.y() - 12, kNameWidth, 24), Qt::AlignLeft | Qt::AlignVCenter,
                       QString::fromStdString(rows_[r].name));
        }
        const auto& dot = rows_[r].dots[d];
        drawVerdictMark(p, QRectF(at.x() - size / 2, at.y() - size / 2, size, size), dot.state, c);
        if (QString::fromStdString(dot.ref) == wanted_) {
            p.setPen(QPen(c.copper, 2.5));
            p.setBrush(Qt::NoBrush);
            p.drawEllipse(at, size * 0.73, size * 0.73);
        }
    });
}

void BagRows::mousePressEvent(QMouseEvent* event) {
    const double step = pitch();
    eachDot([&](std::size_t r, std::size_t d, QPointF at) {
        if (QLineF(at, event->position()).length() < step / 2)
            emit chosen(QString::fromStdString(rows_[r].dots[d].ref));
    });
}

}  // namespace ombrek
