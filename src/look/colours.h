#pragma once

#include <QColor>
#include <QPainter>
#include <QPalette>
#include <QWidget>

#include "core/quantity/verdict.h"

namespace ombrek {

/// The colours of one bench. Text colours hold 4.5 : 1 on paper, rail and card (WCAG 2.2); tests/look checks
/// it.
struct Colours {
    QColor paper, rail, card, line;
    QColor ink, soft;
    QColor copper, copperLight;
    QColor pass, doubtful, fail, cannotTell, notDone;
    QColor passTint, doubtfulTint;
    QColor core, board, boardInk;
};

/// The bright bench.
const Colours& dayBench();
/// The dark one.
const Colours& nightBench();

/// The bench a widget is shown on: the application's, since a style sheet changes a widget's own palette.
const Colours& coloursOf(const QWidget& widget);
const Colours& coloursOf(const QPalette& palette);

/// The palette that puts the application on a bench.
QPalette paletteOf(const Colours& colours);

/// Of a verdict; never without its shape and word.
QColor colourOf(const Colours& colours, VerdictState state);

/// The doubtful zone of a scale: tinted and hatched, so that it is told without colour.
void fillDoubtful(QPainter& painter, const QRectF& zone, const Colours& colours);

/// The one style sheet of the application.
QString styleSheetOf(const Colours& colours);

/// Put the application on the day or the night bench.
void setNight(bool night);

/// Load the fonts that ship with the application, under names of their own, and make them its font.
void installFonts();

/// The one style: Qt's Fusion, and nothing in it moves by itself.
void installStyle();

/// The bench's type at a size in pixels, times the text scale; tabular figures are its own.
QFont benchFont(int pixels, bool bold = false);

/// How large text is, 1: as drawn. What is made afterwards is of that size.
void setTextScale(double scale);
/// A length that goes with the text: the height of a line, the width of a rail.
int withText(int pixels);

}  // namespace ombrek
