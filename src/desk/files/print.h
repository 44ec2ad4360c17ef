#pragma once

#include <QWidget>

#include "report/a4_sheet.h"

namespace ombrek {

/// The sheet as it will come out of the printer, in the desktop's preview, whence it is printed. The window
/// goes on behind it. Where there is no printer, the preview prints into a PDF.
void showBeforePrinting(QWidget* over, const A4Sheet& sheet);

}  // namespace ombrek
