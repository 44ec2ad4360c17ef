#include "desk/wire.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>
#include <numbers>

#include "look/colours.h"

namespace ombrek {
namespace {

constexpr int kTurns = 14;  ///< drawn on a fully wound bead
constexpr double kBead = 15;

/// A small ring core with copper over as much of it as is wound.
void drawBead(QPainter& p, QPointF at, double wound, bool earned, const Colours& c) {
    p.setBrush(c.card);
    p.setPen(QPen(earned ? c.copper : c.notDone, earned ? 2 : 1.4));
    p.drawEllipse(at, kBead - 3, kBead - 3);
    p.drawEllipse(at, 5, 5);
    const int turns = int(std::ceil(wound * kTurns - 1e-9));
    p.setPen(QPen(c.copper, 2.6, Qt::SolidLine, Qt::RoundCap));
    for (int i = 0; i < turns; ++i) {
        const double angle = -std::numbers::pi / 2 + (i + 0.5) * 2 * std::numbers::pi / kTurns;
        const QPointF out(std::cos(angle), std::sin(angle));
        p.drawLine(at + out * 5.5, at + out * kBead);
    }
}

/// The wire from one bead to the next: slack, thick where the kit has come.
void drawWire(QPainter& p, QPointF from, QPointF to, bool bright, const Colours& c) {
    QPainterPath path(from);
    path.cubicTo(from + QPointF(7, (to.y() - from.y()) * 0.35), to + QPointF(-8, (from.y() - to.y()) * 0.35),
                 to);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(bright ? c.copper : c.core, bright ? 5 : 2, Qt::SolidLine, Qt::RoundCap));
    p.drawPath(path);
    if (bright) {
        p.setPen(QPen(c.copperLight, 1.4, Qt::SolidLine, Qt::RoundCap));
        p.drawPath(path);
    }
}

}  // namespace

WireRail::WireRail(QWidget* parent) : QWidget(parent) {
    setFixedWidth(withText(214));
    setAccessibleName(QStringLiteral("Stations"));
}

void WireRail::show(const QString& kit, const QString& summary, const QString& sitting,
                    std::vector<StationLine> lines) {
    if (kit == kit_ && summary == summary_ && sitting == sitting_ && lines == lines_) return;
    kit_ = kit;
    summary_ = summary;
    sitting_ = sitting;
    lines_ = std::move(lines);
    QStringList words;
    for (const auto& line : lines_) words << line.name + QStringLiteral(": ") + line.state;
    setAccessibleDescription(words.join(QStringLiteral("; ")));
    update();
}

void WireRail::setCurrent(int station) {
    current_ = station;
    update();
}

QRectF WireRail::row(int station) const {
    const double pitch = std::min(double(withText(84)), (height() - withText(130)) / 7.0);
    return {8, withText(104) + station * pitch, width() - 8.0, std::min(double(withText(60)), pitch - 6)};
}

/// The kit's name, at most two lines on what it is, and the sitting under them.
void WireRail::paintHead(QPainter& p) const {
    const Colours& c = coloursOf(*this);
    const int wide = width() - 30;
    p.setPen(c.ink);
    p.setFont(benchFont(20, true));
    p.drawText(QRectF(22, withText(22), wide, withText(28)), Qt::AlignLeft | Qt::AlignVCenter,
               kit_.isEmpty() ? QStringLiteral("Ombrek")
                              : QFontMetrics(p.font()).elidedText(kit_, Qt::ElideRight, wide));
    p.setFont(benchFont(13));
    p.setPen(c.soft);
    const QFontMetrics metrics(p.font());
    const QString summary = metrics.elidedText(summary_, Qt::ElideRight, 2 * wide - 40);
    QRect used;
    p.drawText(QRect(22, withText(50), wide, 2 * metrics.lineSpacing()),
               Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, summary, &used);
    const int top = summary.isEmpty() ? withText(50) : used.bottom() + 1;
    p.drawText(QRect(22, top, wide, metrics.lineSpacing()), Qt::AlignLeft | Qt::AlignTop, sitting_);
}

void WireRail::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    p.fillRect(rect(), c.rail);
    paintHead(p);
    for (int i = 0; i < int(lines_.size()); ++i) {
        const QRectF r = row(i);
        if (i != current_) continue;
        QPainterPath tab;
        tab.addRoundedRect(r.adjusted(0, 0, 12, 0), 10, 10);
        p.fillPath(tab, c.paper);
    }
    // The wire is bright up to the first station that is not yet earned.
    bool come = true;
    for (int i = 0; i < int(lines_.size()); ++i) {
        const QPointF at(row(i).left() + 30, row(i).center().y());
        come = come && lines_[std::size_t(i)].wound > 0;
        if (i + 1 < int(lines_.size())) {
            const QPointF next(row(i + 1).left() + 30, row(i + 1).center().y());
            const bool bright =
                come && (lines_[std::size_t(i)].earned || lines_[std::size_t(i) + 1].wound > 0);
            drawWire(p, at + QPointF(0, kBead), next - QPointF(0, kBead), bright, c);
        }
        drawBead(p, at, lines_[std::size_t(i)].wound, lines_[std::size_t(i)].earned, c);
    }
    for (int i = 0; i < int(lines_.size()); ++i) {
        const QRectF r = row(i);
        const auto& line = lines_[std::size_t(i)];
        p.setPen(c.ink);
        p.setFont(benchFont(16, i == current_));
        p.drawText(r.adjusted(56, r.height() / 2 - withText(24), 0, 0), Qt::AlignLeft | Qt::AlignTop,
                   line.name);
        p.setFont(benchFont(13));
        p.setPen(c.soft);
        p.drawText(r.adjusted(56, r.height() / 2, 0, 0), Qt::AlignLeft | Qt::AlignTop, line.state);
        p.setFont(benchFont(12));
        p.drawText(r.adjusted(0, r.height() / 2 - withText(22), -12, 0), Qt::AlignRight | Qt::AlignTop,
                   QStringLiteral("F%1").arg(i + 1));
    }
}

void WireRail::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < int(lines_.size()); ++i) {
        if (row(i).contains(event->position())) emit chosen(i);
    }
}

}  // namespace ombrek
