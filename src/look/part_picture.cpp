#include "look/part_picture.h"

#include <QPainterPath>
#include <array>

#include "core/parts/bands.h"

namespace ombrek {
namespace {

struct Band {
    const char* name;
    const char* colour;
};
/// The colours themselves, as paint looks; their names and order are IEC 60062's.
constexpr std::array<Band, 13> kBands{{{"black", "#1D1D1D"},
                                       {"brown", "#7A4A21"},
                                       {"red", "#C5362B"},
                                       {"orange", "#E07B2A"},
                                       {"yellow", "#E8C93B"},
                                       {"green", "#3F8A4B"},
                                       {"blue", "#2F5FA9"},
                                       {"violet", "#7B4BA0"},
                                       {"grey", "#8B8F92"},
                                       {"white", "#F4F2EC"},
                                       {"gold", "#B08D2E"},
                                       {"silver", "#B9BEC2"},
                                       {"pink", "#E59AA9"}}};

bool says(const PartLook& part, const char* word) {
    const QString text = (part.value + QChar(' ') + part.mark + QChar(' ') + part.orientation).toLower();
    return text.contains(QLatin1String(word));
}

/// Words beside a drawing, with a short line to what they name.
void callOut(QPainter& p, QPointF from, QPointF to, const QString& text, const Colours& c) {
    p.setPen(QPen(c.copper, 1.5));
    p.drawLine(from, to);
    p.setFont(benchFont(13));
    p.setPen(c.ink);
    const bool left = to.x() < from.x();
    const QRectF room(left ? to.x() - 154 : to.x() + 4, to.y() - 10, 150, 20);
    p.drawText(room, int(left ? Qt::AlignRight : Qt::AlignLeft) | int(Qt::AlignVCenter), text);
}

void outline(QPainter& p, const Colours& c) {
    p.setPen(QPen(c.ink, 1.6));
    p.setBrush(c.core);
}

void printed(QPainter& p, const QRectF& room, const QString& mark, const Colours& c) {
    p.setFont(benchFont(15, true));
    p.setPen(c.ink);
    p.drawText(room, Qt::AlignCenter,
               QFontMetrics(p.font()).elidedText(mark, Qt::ElideRight, int(room.width())));
}

void lead(QPainter& p, QPointF from, QPointF to, const Colours& c) {
    p.setPen(QPen(c.soft, 2));
    p.drawLine(from, to);
}

void drawElectrolytic(QPainter& p, const QRectF& r, const PartLook& part, const Colours& c) {
    const QPointF m = r.center();
    const QRectF can(m.x() - 26, r.top() + 4, 52, 62);
    lead(p, {m.x() - 11, can.bottom()}, {m.x() - 11, can.bottom() + 34}, c);
    lead(p, {m.x() + 13, can.bottom()}, {m.x() + 13, can.bottom() + 22}, c);
    outline(p, c);
    p.drawRoundedRect(can, 6, 6);
    p.setBrush(c.ink);
    p.setPen(Qt::NoPen);
    p.drawRect(QRectF(can.right() - 13, can.top() + 5, 9, can.height() - 10));
    printed(p, can.adjusted(-40, 0, -54, 0), QString(), c);
    callOut(p, {can.right() - 8, can.top() + 18}, {can.right() + 20, can.top() + 18},
            QStringLiteral("stripe: minus"), c);
    callOut(p, {m.x() - 11, can.bottom() + 26}, {m.x() - 34, can.bottom() + 26},
            QStringLiteral("long lead: plus"), c);
    p.setFont(benchFont(13));
    p.setPen(c.soft);
    p.drawText(QRectF(r.left(), can.top() + 20, can.left() - r.left() - 8, 20), Qt::AlignRight, part.mark);
}

void drawDiode(QPainter& p, const QRectF& r, const PartLook& part, const Colours& c) {
    const QPointF m = r.center();
    if (part.body == PartLook::Body::led) {
        lead(p, {m.x() - 9, m.y() + 8}, {m.x() - 9, r.bottom() - 4}, c);
        lead(p, {m.x() + 9, m.y() + 8}, {m.x() + 9, r.bottom() - 16}, c);
        outline(p, c);
        QPainterPath dome;
        dome.moveTo(m.x() - 20, m.y() + 8);
        dome.lineTo(m.x() - 20, m.y() - 12);
        dome.arcTo(QRectF(m.x() - 20, m.y() - 32, 36, 40), 180, -180);
        dome.lineTo(m.x() + 16, m.y() + 8);
        dome.closeSubpath();
        p.drawPath(dome);
        callOut(p, {m.x() - 9, r.bottom() - 12}, {m.x() - 34, r.bottom() - 12},
                QStringLiteral("long lead: anode"), c);
        callOut(p, {m.x() + 16, m.y()}, {m.x() + 38, m.y()}, QStringLiteral("flat: cathode"), c);
        return;
    }
    const QRectF body(m.x() - 38, m.y() - 14, 76, 28);
    lead(p, {body.left() - 44, m.y()}, {body.left(), m.y()}, c);
    lead(p, {body.right(), m.y()}, {body.right() + 44, m.y()}, c);
    outline(p, c);
    p.drawRoundedRect(body, 6, 6);
    p.fillRect(QRectF(body.right() - 18, body.top() + 1, 9, body.height() - 2), c.ink);
    callOut(p, {body.right() - 13, body.bottom()}, {body.right() + 4, body.bottom() + 18},
            QStringLiteral("band: cathode"), c);
}

/// Three leads and a flat, as small transistors and regulators have; seen from above.
void drawFlat(QPainter& p, const QRectF& r, const QString& mark, const Colours& c) {
    const QPointF m = r.center();
    const QRectF round(m.x() - 34, m.y() - 34, 68, 68);
    outline(p, c);
    QPainterPath body;
    body.arcMoveTo(round, -35);
    body.arcTo(round, -35, 250);
    body.closeSubpath();
    p.drawPath(body);
    p.setBrush(c.card);
    p.setPen(QPen(c.ink, 1.2));
    for (int i = -1; i <= 1; ++i) p.drawEllipse(QPointF(m.x() + 16 * i, m.y() + 3), 4, 4);
    callOut(p, {m.x() + 24, m.y() + 20}, {m.x() + 46, m.y() + 20}, QStringLiteral("flat, from above"), c);
    p.setFont(benchFont(13));
    p.setPen(c.soft);
    p.drawText(QRectF(r.left(), m.y() - 10, round.left() - r.left() - 8, 20), Qt::AlignRight, mark);
}

/// A tab above three leads; power transistors and regulators.
void drawTab(QPainter& p, const QRectF& r, const Colours& c) {
    const QPointF m = r.center();
    for (int i = -1; i <= 1; ++i) lead(p, {m.x() + 13 * i, m.y() + 20}, {m.x() + 13 * i, r.bottom() - 4}, c);
    outline(p, c);
    const QRectF tab(m.x() - 26, r.top() + 4, 52, 30);
    p.drawRect(tab);
    p.drawRect(QRectF(m.x() - 28, tab.bottom() - 4, 56, 34));
    p.setBrush(c.card);
    p.drawEllipse(QPointF(m.x(), tab.top() + 13), 6, 6);
    callOut(p, {tab.right(), tab.top() + 12}, {tab.right() + 22, tab.top() + 12},
            QStringLiteral("tab: often live"), c);
}

void drawChip(QPainter& p, const QRectF& r, const QString& mark, const Colours& c) {
    const QPointF m = r.center();
    const QRectF body(m.x() - 52, m.y() - 22, 104, 44);
    for (int i = 0; i < 4; ++i) {
        const double x = body.left() + 14 + 25 * i;
        lead(p, {x, body.top() - 10}, {x, body.top()}, c);
        lead(p, {x, body.bottom()}, {x, body.bottom() + 10}, c);
    }
    outline(p, c);
    p.drawRect(body);
    p.setBrush(c.card);
    p.drawChord(QRectF(body.left() - 9, m.y() - 9, 18, 18), -90 * 16, 180 * 16);
    p.setBrush(c.ink);
    p.drawEllipse(QPointF(body.left() + 14, body.bottom() - 9), 3, 3);
    callOut(p, {body.left() + 4, m.y() - 5}, {body.left() - 16, m.y() - 16}, QStringLiteral("notch"), c);
    callOut(p, {body.left() + 14, body.bottom() - 9}, {body.left() - 16, body.bottom() + 10},
            QStringLiteral("dot: pin 1"), c);
    printed(p, body.adjusted(20, 0, -4, 0), mark, c);
}

void drawCrystal(QPainter& p, const QRectF& r, const Colours& c) {
    const QPointF m = r.center();
    const QRectF can(m.x() - 38, m.y() - 26, 76, 40);
    lead(p, {m.x() - 20, can.bottom()}, {m.x() - 20, can.bottom() + 20}, c);
    lead(p, {m.x() + 20, can.bottom()}, {m.x() + 20, can.bottom() + 20}, c);
    outline(p, c);
    p.drawRoundedRect(can, 14, 14);
    p.setPen(QPen(c.soft, 2));
    p.drawLine(QPointF(m.x() - 60, can.bottom() + 10), QPointF(m.x() + 60, can.bottom() + 10));
    callOut(p, {m.x() + 48, can.bottom() + 5}, {m.x() + 66, can.bottom() - 6},
            QStringLiteral("a gap to the board"), c);
}

void drawTrimmer(QPainter& p, const QRectF& r, const Colours& c) {
    const QPointF m = r.center();
    const QRectF round(m.x() - 32, m.y() - 32, 64, 64);
    outline(p, c);
    QPainterPath body;
    body.arcMoveTo(round, -125);
    body.arcTo(round, -125, 250 + 40);
    body.closeSubpath();
    p.drawPath(body);
    p.setPen(QPen(c.ink, 4));
    p.drawLine(QPointF(m.x() - 12, m.y() - 8), QPointF(m.x() + 12, m.y() + 8));
    callOut(p, {m.x() - 28, m.y() + 8}, {m.x() - 48, m.y() + 8}, QStringLiteral("flat: to ground"), c);
}

void drawRing(QPainter& p, const QRectF& r, const Colours& c) {
    const QPointF m = r.center();
    outline(p, c);
    QPainterPath ring;
    ring.setFillRule(Qt::OddEvenFill);
    ring.addEllipse(m, 36, 36);
    ring.addEllipse(m, 17, 17);
    p.drawPath(ring);
    callOut(p, {m.x() + 30, m.y() - 16}, {m.x() + 54, m.y() - 24}, QStringLiteral("its paint is its mix"), c);
}

/// A core with two holes, seen from its end.
void drawTwoHoles(QPainter& p, const QRectF& r, const Colours& c) {
    const QPointF m = r.center();
    outline(p, c);
    QPainterPath core;
    core.setFillRule(Qt::OddEvenFill);
    core.addRoundedRect(QRectF(m.x() - 46, m.y() - 26, 92, 52), 24, 24);
    for (const double side : {-1.0, 1.0}) core.addEllipse(QPointF(m.x() + 20 * side, m.y()), 10, 10);
    p.drawPath(core);
    callOut(p, {m.x() + 28, m.y() - 8}, {m.x() + 60, m.y() - 24}, QStringLiteral("a turn: both holes"), c);
}

void drawCapacitor(QPainter& p, const QRectF& r, const QString& mark, const Colours& c) {
    const QPointF m(r.center().x() - 44, r.center().y());
    const QRectF body(m.x() - 46, m.y() - 30, 92, 46);
    lead(p, {m.x() - 20, body.bottom()}, {m.x() - 20, r.bottom() - 4}, c);
    lead(p, {m.x() + 20, body.bottom()}, {m.x() + 20, r.bottom() - 4}, c);
    outline(p, c);
    p.drawRoundedRect(body, 20, 20);
    printed(p, body, mark, c);
    p.setFont(benchFont(13));
    p.setPen(c.soft);
    // In a narrow card its words go below each other.
    const double room = std::clamp(r.right() - body.right() - 16, 50.0, 140.0);
    p.drawText(QRectF(body.right() + 14, m.y() - 30, room, 60),
               Qt::AlignLeft | Qt::AlignVCenter | Qt::TextWordWrap, QStringLiteral("either way round"));
}

void drawOther(QPainter& p, const QRectF& r, const PartLook& part, const Colours& c) {
    outline(p, c);
    const QRectF body(r.center().x() - 90, r.center().y() - 24, 180, 48);
    p.drawRoundedRect(body, 8, 8);
    p.setFont(benchFont(14));
    p.setPen(c.ink);
    p.drawText(body.adjusted(8, 2, -8, -2), Qt::AlignCenter | Qt::TextWordWrap, part.value);
}

}  // namespace

QColor bandColour(const QString& name) {
    for (const Band& band : kBands) {
        if (name == QLatin1String(band.name)) return QColor(QLatin1String(band.colour));
    }
    return {};
}

QStringList bandsOf(const QString& mark) {
    QStringList out = mark.toLower().split(QChar(' '), Qt::SkipEmptyParts);
    for (QString& word : out) {
        if (word == QLatin1String("gray")) word = QStringLiteral("grey");
        if (word == QLatin1String("purple")) word = QStringLiteral("violet");
        if (!bandColour(word).isValid()) return {};
    }
    return out;
}

void drawBands(QPainter& p, const QRectF& r, const QStringList& bands, int places, int at, const Colours& c) {
    const double width = std::min(r.width() - 80, 84.0 * places + 30);
    const QRectF body(r.center().x() - width / 2, r.top() + 6, width, std::min(r.height() - 34, 54.0));
    lead(p, {body.left() - 36, body.center().y()}, {body.left(), body.center().y()}, c);
    lead(p, {body.right(), body.center().y()}, {body.right() + 36, body.center().y()}, c);
    outline(p, c);
    p.drawRoundedRect(body, 14, 14);
    const double pitch = (width - 20) / places;
    for (int i = 0; i < places; ++i) {
        const double x = body.left() + 10 + pitch * (i + 0.5);
        const QRectF band(x - 9, body.top() + 1, 18, body.height() - 2);
        const bool there = i < bands.size();
        p.setPen(QPen(c.ink, 1, there ? Qt::SolidLine : Qt::DotLine));
        p.setBrush(there ? QBrush(bandColour(bands[i])) : QBrush(Qt::NoBrush));
        p.drawRect(band);
        if (i == at) {
            p.setPen(QPen(c.copper, 2.5));
            p.setBrush(Qt::NoBrush);
            p.drawRoundedRect(band.adjusted(-5, -5, 5, 5), 4, 4);
        }
        p.setPen(c.ink);
        p.setFont(benchFont(14, i == at));
        p.drawText(QRectF(x - pitch / 2, body.bottom() + 5, pitch, 22), Qt::AlignCenter,
                   there ? bands[i] : QStringLiteral("?"));
    }
}

void drawPart(QPainter& p, const QRectF& room, const PartLook& part, const Colours& c) {
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    using Body = PartLook::Body;
    const QStringList bands = bandsOf(part.mark);
    switch (part.kind) {
        case PartKind::resistor:
        case PartKind::inductor:
            if (bands.size() >= 3) {
                const QRectF strip(room.left(), room.center().y() - 44, room.width(), 92);
                drawBands(p, strip, bands, int(bands.size()), -1, c);
            } else {
                drawOther(p, room,
                          {part.kind, part.mark.isEmpty() ? part.value : part.mark, {}, {}, Body::byKind}, c);
            }
            break;
        case PartKind::capacitor:
            // One with a way round is never said to go in either way.
            part.body == Body::electrolytic || !part.orientation.isEmpty()
                ? drawElectrolytic(p, room, part, c)
                : drawCapacitor(p, room, part.mark, c);
            break;
        case PartKind::diode:
            drawDiode(p, room, part, c);
            break;
        case PartKind::transistor:
        case PartKind::ic: {
            const bool flat =
                part.body == Body::flat || (part.body == Body::byKind && part.kind == PartKind::transistor);
            part.body == Body::tab ? drawTab(p, room, c)
            : flat                 ? drawFlat(p, room, part.mark, c)
                                   : drawChip(p, room, part.mark, c);
            break;
        }
        case PartKind::crystal:
            drawCrystal(p, room, c);
            break;
        case PartKind::trimmer:
            says(part, "flat") ? drawTrimmer(p, room, c) : drawOther(p, room, part, c);
            break;
        case PartKind::coil:
            part.body == Body::twoHoles ? drawTwoHoles(p, room, c) : drawRing(p, room, c);
            break;
        case PartKind::other:
            part.body == Body::led ? drawDiode(p, room, part, c) : drawOther(p, room, part, c);
            break;
    }
    p.restore();
}

}  // namespace ombrek
