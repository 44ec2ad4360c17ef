#include "desk/proof/power_grid.h"

#include <QMouseEvent>
#include <QPainter>

#include "look/colours.h"
#include "look/verdict_mark.h"

namespace ombrek {
namespace {

int rowHeight() { return withText(54); }
int headHeight() { return withText(28); }
int nameWidth() { return withText(74); }

/// Mark and watts in one line, amperes below over the whole width: fields may be narrow.
void paintCell(QPainter& p, const QRectF& r, const PowerGrid::Cell& cell, const Colours& c) {
    const bool two = !cell.under.isEmpty();
    const bool narrow = r.width() < withText(88);
    const int mark = narrow ? 13 : 16;
    const QRectF words = r.adjusted(narrow ? 4 : 7, 3, narrow ? -5 : -8, -3);
    const double middle = two ? words.top() + withText(12) : r.center().y();
    drawVerdictMark(p, QRectF(words.left(), middle - mark / 2.0, mark, mark), cell.state, c);
    p.setPen(c.ink);
    p.setFont(benchFont(narrow ? 15 : two ? 17 : 20, true));
    p.drawText(words.adjusted(mark + 1, 0, 0, 0),
               int(Qt::AlignRight | (two ? Qt::AlignTop : Qt::AlignVCenter)), cell.text);
    if (!two) return;
    p.setPen(c.soft);
    p.setFont(benchFont(13));
    p.drawText(words, Qt::AlignRight | Qt::AlignBottom, cell.under);
}

}  // namespace

PowerGrid::PowerGrid(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void PowerGrid::show(Shown shown) {
    shown_ = std::move(shown);
    QStringList words;
    for (std::size_t b = 0; b < shown_.bands.size(); ++b) {
        for (std::size_t s = 0; s < shown_.supplies.size(); ++s) {
            const Cell& cell = shown_.cells[b][s];
            if (cell.text.isEmpty()) continue;
            words << QStringLiteral("%1 at %2: %3 W, %4")
                         .arg(shown_.bands[b], shown_.supplies[s], cell.text,
                              QString::fromUtf8(word(cell.state).data(), int(word(cell.state).size())));
        }
    }
    setAccessibleName(words.isEmpty() ? QStringLiteral("No power read yet")
                                      : words.join(QStringLiteral("; ")));
    updateGeometry();
    update();
}

QSize PowerGrid::sizeHint() const { return {520, headHeight() + int(shown_.bands.size()) * rowHeight() + 4}; }

QRectF PowerGrid::field(int band, int supply) const {
    const double wide = double(width() - nameWidth()) / std::max<std::size_t>(1, shown_.supplies.size());
    return {nameWidth() + supply * wide + 4, headHeight() + band * rowHeight() + 3.0, wide - 8,
            rowHeight() - 8.0};
}

void PowerGrid::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    for (int s = 0; s < int(shown_.supplies.size()); ++s) {
        QRectF head = field(0, s);
        head.moveTop(0);
        head.setHeight(headHeight() - 4);
        p.setPen(s == shown_.rated ? c.ink : c.soft);
        p.setFont(benchFont(15, s == shown_.rated));
        p.drawText(head, Qt::AlignCenter, shown_.supplies[std::size_t(s)]);
    }
    for (int b = 0; b < int(shown_.bands.size()); ++b) {
        const QRectF first = field(b, 0);
        p.setPen(c.ink);
        p.setFont(benchFont(17, true));
        p.drawText(QRectF(0, first.top(), nameWidth() - 8, first.height()), Qt::AlignVCenter | Qt::AlignLeft,
                   shown_.bands[std::size_t(b)]);
        for (int s = 0; s < int(shown_.supplies.size()); ++s) {
            const Cell& cell = shown_.cells[std::size_t(b)][std::size_t(s)];
            const QRectF r = field(b, s);
            const bool inHand = b == shown_.band && s == shown_.supply;
            p.setPen(QPen(inHand ? c.copper : c.line, inHand ? 2.5 : 1));
            p.setBrush(cell.text.isEmpty() ? c.paper : c.card);
            p.drawRoundedRect(r, 7, 7);
            paintCell(p, r, cell, c);
        }
    }
}

void PowerGrid::mousePressEvent(QMouseEvent* event) {
    for (int b = 0; b < int(shown_.bands.size()); ++b) {
        for (int s = 0; s < int(shown_.supplies.size()); ++s) {
            if (field(b, s).contains(event->position())) emit picked(b, s);
        }
    }
}

}  // namespace ombrek
