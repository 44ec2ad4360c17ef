#include "desk/proof/causes_view.h"

#include <QMouseEvent>
#include <QPainter>

#include "look/colours.h"

namespace ombrek {
namespace {

int rowHeight() { return withText(92); }

}  // namespace

CausesView::CausesView(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void CausesView::show(std::vector<Row> rows, int inHand) {
    rows_ = std::move(rows);
    inHand_ = inHand;
    QStringList words;
    for (const Row& row : rows_) words << QStringLiteral("%1, %2. %3").arg(row.name, row.odds, row.words);
    setAccessibleName(words.join(QStringLiteral("; ")));
    updateGeometry();
    update();
}

QSize CausesView::sizeHint() const { return {420, int(rows_.size()) * rowHeight()}; }

void CausesView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    for (int i = 0; i < int(rows_.size()); ++i) {
        const Row& row = rows_[std::size_t(i)];
        const double top = i * rowHeight();
        const bool now = i == inHand_;
        const QRectF ring(2, top + 4, withText(26), withText(26));
        p.setPen(QPen(now ? c.copper : c.line, 2));
        p.setBrush(now ? QBrush(c.copper) : Qt::NoBrush);
        p.drawEllipse(ring);
        p.setPen(now ? c.card : c.ink);
        p.setFont(benchFont(14, true));
        p.drawText(ring, Qt::AlignCenter, QString::number(i + 1));
        const double left = ring.right() + 12, wide = width() - left - 4;
        p.setPen(c.ink);
        p.setFont(benchFont(16, true));
        p.drawText(QRectF(left, top + 2, wide - 64, withText(26)), Qt::AlignLeft | Qt::AlignVCenter,
                   p.fontMetrics().elidedText(row.name, Qt::ElideRight, int(wide - 64)));
        p.setFont(benchFont(15));
        p.drawText(QRectF(left, top + 2, wide, withText(26)), Qt::AlignRight | Qt::AlignVCenter, row.odds);
        const QRectF bar(left, top + withText(31), wide, 5);
        p.setPen(Qt::NoPen);
        p.setBrush(c.line);
        p.drawRoundedRect(bar, 2.5, 2.5);
        p.setBrush(c.copper);
        p.drawRoundedRect(QRectF(bar.left(), bar.top(), std::max(5.0, bar.width() * row.share), 5), 2.5, 2.5);
        p.setPen(c.soft);
        p.setFont(benchFont(14));
        p.drawText(QRectF(left, bar.bottom() + 4, wide, withText(44)),
                   Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, row.words);
    }
}

void CausesView::mousePressEvent(QMouseEvent* event) {
    const int row = int(event->position().y()) / rowHeight();
    if (row >= 0 && row < int(rows_.size())) emit picked(row);
}

}  // namespace ombrek
