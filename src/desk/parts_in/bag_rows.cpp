#include "desk/parts_in/bag_rows.h"

#include <QMouseEvent>
#include <QPainter>

#include "look/verdict_mark.h"

namespace ombrek {
namespace {

constexpr double kNameWidth = 92, kDot = 13, kLine = 22;

/// Closer where there is little room, so that the whole bag stays in sight.
double pitch(int width) { return width < 520 ? 15.5 : 19.5; }
int perLine(int width) { return std::max(1, int((width - kNameWidth - 8) / pitch(width))); }

}  // namespace

BagRows::BagRows(QWidget* parent) : QWidget(parent) { setMinimumHeight(int(6 * kLine)); }

int BagRows::lines() const {
    int out = 0;
    for (const auto& row : rows_) out += (int(row.dots.size()) + perLine(width()) - 1) / perLine(width());
    return out;
}

void BagRows::show(std::vector<PartsInView::Row> rows, const QString& wanted) {
    rows_ = std::move(rows);
    wanted_ = wanted;
    setMinimumHeight(int(lines() * kLine + 6));
    setAccessibleName(QStringLiteral("The bag, a mark for every part; wanted: %1").arg(wanted));
    update();
}

void BagRows::eachDot(const std::function<void(std::size_t, std::size_t, QPointF)>& use) const {
    double y = kLine / 2;
    for (std::size_t r = 0; r < rows_.size(); ++r) {
        const std::size_t most = std::size_t(perLine(width()));
        for (std::size_t d = 0; d < rows_[r].dots.size(); ++d) {
            if (d > 0 && d % most == 0) y += kLine;
            use(r, d, {kNameWidth + double(d % most) * pitch(width()) + kDot / 2, y});
        }
        y += kLine;
    }
}

void BagRows::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    eachDot([&](std::size_t r, std::size_t d, QPointF at) {
        if (d == 0) {
            p.setFont(benchFont(14));
            p.setPen(c.soft);
            p.drawText(QRectF(0, at.y() - 12, kNameWidth, 24), Qt::AlignLeft | Qt::AlignVCenter,
                       QString::fromStdString(rows_[r].name));
        }
        const auto& dot = rows_[r].dots[d];
        drawVerdictMark(p, QRectF(at.x() - kDot / 2, at.y() - kDot / 2, kDot, kDot), dot.state, c);
        if (QString::fromStdString(dot.ref) == wanted_) {
            p.setPen(QPen(c.copper, 2.5));
            p.setBrush(Qt::NoBrush);
            p.drawEllipse(at, 9.5, 9.5);
        }
    });
}

void BagRows::mousePressEvent(QMouseEvent* event) {
    eachDot([&](std::size_t r, std::size_t d, QPointF at) {
        if (QLineF(at, event->position()).length() < pitch(width()) / 2)
            emit chosen(QString::fromStdString(rows_[r].dots[d].ref));
    });
}

}  // namespace ombrek
