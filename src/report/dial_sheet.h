#pragma once

#include <QByteArray>
#include <QPainter>

#include "core/frequency/dial.h"
#include "report/a4_sheet.h"

namespace ombrek {

/// The dial on its page, in hundredths of a millimetre.
void paintDial(QPainter& painter, const Dial& dial, const QString& title);
/// What of the page the dial itself takes, with its words [mm].
QRectF dialBox(const Dial& dial);

/// A dial to its size on an A4 page, with a line of 50 mm to hold a rule against, and the marks to check it
/// by.
A4Sheet dialSheet(const Dial& dial, const QString& title);
/// The same as SVG, in hundredths of a millimetre. Needs a QGuiApplication.
QByteArray dialSvg(const Dial& dial, const QString& title);

}  // namespace ombrek
