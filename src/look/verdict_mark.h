#pragma once

#include <QPainter>

#include "core/quantity/verdict.h"
#include "look/colours.h"

namespace ombrek {

/// Draw a verdict's shape in a square: filled disc with tick, half disc, cross, question mark or ring.
void drawVerdictMark(QPainter& painter, const QRectF& square, VerdictState state, const Colours& colours);

/// The word as a QString.
inline QString wordOf(VerdictState state) {
    return QString::fromUtf8(word(state).data(), int(word(state).size()));
}

}  // namespace ombrek
