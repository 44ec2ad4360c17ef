#pragma once

#include <QPainter>
#include <QStringList>

#include "core/parts/part_kind.h"
#include "look/colours.h"

namespace ombrek {

/// The colour of a resistor band by its name ("brown"); invalid if the name is none.
QColor bandColour(const QString& name);

/// What a drawing of a part shows.
struct PartLook {
    PartKind kind = PartKind::other;
    QString value;        ///< "NPN, small signal"; tells a regulator, an LED, an electrolytic
    QString mark;         ///< printed on it, or band colours by name
    QString orientation;  ///< how it goes in
    /// What it looks like, where its kind does not say.
    enum class Body { byKind, led, electrolytic, flat, tab, chip, twoHoles } body = Body::byKind;
};

/// The band colours of a mark by name; empty if the mark is not colours.
QStringList bandsOf(const QString& mark);

/// A part as the builder sees it, with what matters for its orientation named in words: the stripe that is
/// minus, the band that is the cathode, the flat, the notch and pin 1, the tab. Bands carry their colour's
/// name.
void drawPart(QPainter& painter, const QRectF& room, const PartLook& part, const Colours& colours);

/// A resistor's body with named bands; an empty slot is dotted. `at` is ringed in copper.
void drawBands(QPainter& painter, const QRectF& room, const QStringList& bands, int places, int at,
               const Colours& colours);

}  // namespace ombrek
