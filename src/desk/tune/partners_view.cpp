#include "desk/tune/partners_view.h"

#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "desk/session.h"
#include "desk/tune/adjuster_view.h"
#include "look/colours.h"
#include "look/verdict_mark.h"

namespace ombrek {
namespace {

int rowHeight() { return withText(48); }

}  // namespace

PartnersView::PartnersView(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void PartnersView::show(std::vector<PartnerRow> rows) {
    rows_ = std::move(rows);
    QStringList words;
    for (const PartnerRow& row : rows_)
        words << QStringLiteral("%1 at %2, %3")
                     .arg(row.adjuster, qs(positionText(row.turned, row.position)), row.right);
    setAccessibleName(words.join(QStringLiteral("; ")));
    updateGeometry();
    update();
}

QSize PartnersView::sizeHint() const { return {300, int(rows_.size()) * rowHeight()}; }

void PartnersView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        const PartnerRow& row = rows_[i];
        const double top = double(i) * rowHeight();
        drawKnob(p, QRectF(5, top + 3, 42, 42), row.turned, row.position, row.wanted, *this);
        const int half = rowHeight() / 2, right = withText(118);
        const QRectF words(58, top, width() - 62, half);
        p.setPen(c.ink);
        p.setFont(benchFont(15, true));
        const int wide = p.fontMetrics().horizontalAdvance(row.adjuster + QStringLiteral("  "));
        p.drawText(words, Qt::AlignLeft | Qt::AlignBottom, row.adjuster);
        p.setFont(benchFont(14));
        p.drawText(words.adjusted(wide, 0, 0, 0), Qt::AlignLeft | Qt::AlignBottom,
                   QStringLiteral("at %1").arg(qs(positionText(row.turned, row.position))));
        p.setPen(c.soft);
        p.drawText(words.translated(0, half), Qt::AlignLeft | Qt::AlignTop,
                   p.fontMetrics().elidedText(row.title, Qt::ElideRight, int(words.width())));
        const QRectF mark(width() - right, top + half - 20, 18, 18);
        if (row.inHand) {
            p.setPen(Qt::NoPen);
            p.setBrush(c.copper);
            p.drawEllipse(mark.center(), 7, 7);
        } else {
            drawVerdictMark(p, mark, row.state, c);
        }
        p.setPen(row.inHand ? c.ink : c.soft);
        p.drawText(QRectF(mark.right() + 6, mark.top() - 4, right - 26, 26), Qt::AlignLeft | Qt::AlignVCenter,
                   row.right);
    }
}

void PartnersView::mousePressEvent(QMouseEvent* event) {
    const int row = int(event->position().y()) / rowHeight();
    if (row >= 0 && row < int(rows_.size())) emit picked(row);
}

}  // namespace ombrek
