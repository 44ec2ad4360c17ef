#include "desk/board/step_parts.h"

#include "desk/pieces/part_look.h"
#include "station/board/loupe.h"

#include <algorithm>

#include "desk/session.h"
#include "look/part_picture.h"

namespace ombrek {
namespace {

constexpr int kFoot = 24;
constexpr std::size_t kDrawn = 4;  ///< so many find room for their drawing
constexpr double kRow = 64;

QString elided(const QPainter& p, const QString& text, double wide) {
    return QFontMetrics(p.font()).elidedText(text, Qt::ElideRight, int(wide));
}

}  // namespace

StepParts::StepParts(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("step parts"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void StepParts::show(const std::vector<const Part*>& parts) {
    parts_.clear();
    QStringList words;
    for (const Part* part : parts) {
        parts_.push_back(*part);
        words << qs(part->ref) + QChar(' ') + qs(part->value) + QChar(' ') + qs(senseOf(*part));
    }
    setAccessibleName(QStringLiteral("Parts of this step: %1").arg(words.join(QStringLiteral(", "))));
    update();
}

/// A part with its drawing: designator and value at the left.
void StepParts::paintDrawn(QPainter& p, const QRectF& room, const Part& part, const Colours& c) const {
    constexpr double kWords = 160;
    p.setPen(c.ink);
    p.setFont(benchFont(44, true));
    p.drawText(QRectF(room.left(), room.center().y() - 44, kWords, 54), Qt::AlignLeft | Qt::AlignVCenter,
               elided(p, qs(part.ref), kWords));
    p.setFont(benchFont(16));
    p.drawText(QRectF(room.left(), room.center().y() + 12, kWords, 44), Qt::AlignLeft | Qt::TextWordWrap,
               qs(part.value));
    const double tall = std::min(120.0, room.height() - 8);
    drawPart(p, QRectF(room.left() + kWords, room.center().y() - tall / 2, room.width() - kWords, tall),
             partLookOf(part), c);
}

void StepParts::paintShort(QPainter& p, const QRectF& room, const Part& part, const Colours& c) const {
    p.setPen(c.ink);
    p.setFont(benchFont(24, true));
    p.drawText(QRectF(room.left(), room.top(), 76, kRow - 10), Qt::AlignLeft | Qt::AlignVCenter,
               elided(p, qs(part.ref), 72));
    const double wide = room.width() - 80;
    p.setFont(benchFont(16));
    p.drawText(QRectF(room.left() + 80, room.top() + 4, wide, 24), Qt::AlignLeft | Qt::AlignVCenter,
               elided(p, qs(part.value), wide));
    p.setFont(benchFont(13));
    p.setPen(c.soft);
    const std::string sense = senseOf(part);
    const QString more = qs(sense.empty() ? part.mark : sense);
    p.drawText(QRectF(room.left() + 80, room.top() + 28, wide, 20), Qt::AlignLeft | Qt::AlignVCenter,
               elided(p, more, wide));
}

void StepParts::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    p.setFont(benchFont(13));
    p.setPen(c.soft);
    p.drawText(QRectF(0, height() - kFoot, width(), kFoot), Qt::AlignLeft | Qt::AlignVCenter,
               QStringLiteral("Where they sit is not known; on the Board, I reads a placement table."));
    const QRectF room(0, 0, width(), height() - kFoot);
    if (parts_.empty()) {
        p.setFont(benchFont(20));
        p.drawText(room, Qt::AlignCenter, QStringLiteral("No part is fitted at this step."));
        return;
    }
    if (parts_.size() <= kDrawn) {
        const double tall = std::min(150.0, room.height() / double(parts_.size()));
        const double top = (room.height() - tall * double(parts_.size())) / 2;
        for (std::size_t i = 0; i < parts_.size(); ++i)
            paintDrawn(p, QRectF(0, top + double(i) * tall, room.width(), tall), parts_[i], c);
        return;
    }
    const auto rows = std::size_t(std::max(1.0, room.height() / kRow));
    const std::size_t shown = parts_.size() <= 2 * rows ? parts_.size() : 2 * rows - 1;
    const double wide = (room.width() - 24) / 2;
    for (std::size_t i = 0; i < shown; ++i) {
        const std::size_t column = i / rows, row = i % rows;
        paintShort(p, QRectF(double(column) * (wide + 24), double(row) * kRow, wide, kRow), parts_[i], c);
    }
    if (shown < parts_.size()) {
        p.setFont(benchFont(16));
        p.setPen(c.soft);
        p.drawText(QRectF(wide + 24, double(rows - 1) * kRow, wide, kRow), Qt::AlignLeft | Qt::AlignVCenter,
                   QStringLiteral("and %1 more").arg(parts_.size() - shown));
    }
}

}  // namespace ombrek
