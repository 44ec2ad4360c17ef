#pragma once

#include <QByteArray>

#include "core/frequency/dial.h"
#include "report/a4_sheet.h"

namespace ombrek {

/// A dial to its size on an A4 page, with a line of 50 mm to hold a rule against, and the marks to check it
/// by.
A4Sheet dialSheet(const Dial& dial, const QString& title);
/// The same as SVG, in hundredths of a millimetre. Needs a QGuiApplication.
QByteArray dialSvg(const Dial& dial, const QString& title);

}  // namespace ombrek
