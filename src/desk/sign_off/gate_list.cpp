#include "desk/sign_off/gate_list.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

#include "look/colours.h"
#include "look/verdict_mark.h"

namespace ombrek {

GateList::GateList(QWidget* parent) : QWidget(parent) { setMinimumHeight(11 * 36); }

void GateList::show(const Readiness& readiness, int chosen) {
    readiness_ = readiness;
    chosen_ = chosen;
    setAccessibleName(
        QStringLiteral("%1 of %2 gates open").arg(readiness.open()).arg(readiness.gates.size()));
    update();
}

QRectF GateList::row(int gate) const {
    const double pitch = std::min(54.0, double(height()) / std::max(1.0, double(readiness_.gates.size())));
    return {0, gate * pitch, double(width()), pitch};
}

void GateList::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    const double x = 24;
    for (int i = 0; i < int(readiness_.gates.size()); ++i) {
        const QRectF r = row(i);
        if (i == chosen_) {
            p.setPen(QPen(c.copper, 1.5));
            p.setBrush(c.card);
            p.drawRoundedRect(r.adjusted(1, 1, -1, -1), 9, 9);
        }
    }
    for (int i = 0; i + 1 < int(readiness_.gates.size()); ++i) {
        const bool bright = readiness_.gates[std::size_t(i)].open();
        p.setPen(QPen(bright ? c.copper : c.core, bright ? 4 : 2));
        p.drawLine(QPointF(x, row(i).center().y() + 12), QPointF(x, row(i + 1).center().y() - 12));
    }
    for (int i = 0; i < int(readiness_.gates.size()); ++i) {
        const Gate& gate = readiness_.gates[std::size_t(i)];
        const QRectF r = row(i);
        const double y = r.center().y();
        const bool low = r.height() < withText(42);  // both lines within the row
        const double up = std::min(21.0, r.height() / 2 - 2), line = std::min(21.0, up + 2);
        drawVerdictMark(p, QRectF(x - 11, y - 11, 22, 22), gate.state(), c);
        p.setFont(benchFont(low ? 14 : 16, true));
        p.setPen(c.ink);
        p.drawText(QRectF(52, y - up, r.width() - 180, line), Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetrics(p.font()).elidedText(QString::fromStdString(gate.name), Qt::ElideRight,
                                                     int(r.width() - 180)));
        p.setFont(benchFont(low ? 12 : 13));
        p.setPen(c.soft);
        QString below = QString::fromStdString(gate.summary());
        if (gate.passedKnowingly && gate.state() != VerdictState::pass)
            below += QStringLiteral(" · ") + QString::fromStdString(gate.reason);
        p.drawText(QRectF(52, y - up + line - 1, r.width() - 180, low ? 17 : 19),
                   Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetrics(p.font()).elidedText(below, Qt::ElideRight, int(r.width() - 180)));
        const bool knowingly = gate.passedKnowingly && gate.state() != VerdictState::pass;
        p.setFont(benchFont(14));
        p.setPen(knowingly ? c.doubtful : colourOf(c, gate.state()));
        p.drawText(r.adjusted(0, 0, -14, 0), Qt::AlignRight | Qt::AlignVCenter,
                   knowingly ? QStringLiteral("passed knowingly") : wordOf(gate.state()));
    }
}

void GateList::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < int(readiness_.gates.size()); ++i) {
        if (row(i).contains(event->position())) emit picked(i);
    }
}

}  // namespace ombrek
