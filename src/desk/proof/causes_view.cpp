#include "desk/proof/causes_view.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

#include "look/colours.h"

namespace ombrek {
namespace {

int rowHeight() { return withText(92); }
/// Where a row's words begin, and how high its head is with the bar.
int left() { return withText(26) + 14; }
int headHeight() { return withText(31) + 9; }

}  // namespace

CausesView::CausesView(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
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

QSize CausesView::sizeHint() const { return {420, 2 * rowHeight()}; }
QSize CausesView::minimumSizeHint() const { return {280, 2 * rowHeight()}; }

/// Tops of the rows, each as high as its words; the last is where they end.
std::vector<int> CausesView::tops() const {
    const QFontMetrics metrics(benchFont(14));
    std::vector<int> out{0};
    for (const Row& row : rows_) {
        const QRect words =
            metrics.boundingRect(QRect(0, 0, width() - left() - 4, 1000), Qt::TextWordWrap, row.words);
        out.push_back(out.back() + std::max(rowHeight(), headHeight() + words.height() + withText(14)));
    }
    return out;
}

void CausesView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    const std::vector<int> top = tops();
    for (int i = 0; i < int(rows_.size()); ++i) {
        if (i > 0 && top[std::size_t(i) + 1] > height() + withText(14)) return;  // only whole ones
        paintRow(p, rows_[std::size_t(i)], i, top[std::size_t(i)], c);
    }
}

void CausesView::paintRow(QPainter& p, const Row& row, int i, int top, const Colours& c) const {
    const bool now = i == inHand_;
    const QRectF ring(2, top + 4, withText(26), withText(26));
    p.setPen(QPen(now ? c.copper : c.line, 2));
    p.setBrush(now ? QBrush(c.copper) : Qt::NoBrush);
    p.drawEllipse(ring);
    p.setPen(now ? c.card : c.ink);
    p.setFont(benchFont(14, true));
    p.drawText(ring, Qt::AlignCenter, QString::number(i + 1));
    const double wide = width() - left() - 4;
    p.setPen(c.ink);
    p.setFont(benchFont(16, true));
    p.drawText(QRectF(left(), top + 2, wide - 64, withText(26)), Qt::AlignLeft | Qt::AlignVCenter,
               p.fontMetrics().elidedText(row.name, Qt::ElideRight, int(wide - 64)));
    p.setFont(benchFont(15));
    p.drawText(QRectF(left(), top + 2, wide, withText(26)), Qt::AlignRight | Qt::AlignVCenter, row.odds);
    const QRectF bar(left(), top + withText(31), wide, 5);
    p.setPen(Qt::NoPen);
    p.setBrush(c.line);
    p.drawRoundedRect(bar, 2.5, 2.5);
    p.setBrush(c.copper);
    p.drawRoundedRect(QRectF(bar.left(), bar.top(), std::max(5.0, bar.width() * row.share), 5), 2.5, 2.5);
    p.setPen(c.soft);
    p.setFont(benchFont(14));
    p.drawText(QRectF(left(), top + headHeight(), wide, 1000),
               Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, row.words);
}

void CausesView::mousePressEvent(QMouseEvent* event) {
    const std::vector<int> top = tops();
    for (int i = 0; i < int(rows_.size()); ++i) {
        if (event->position().y() >= top[std::size_t(i)] && event->position().y() < top[std::size_t(i) + 1])
            emit picked(i);
    }
}

}  // namespace ombrek
