#pragma once

#include <QByteArray>

#include "report/label_sheet.h"

namespace ombrek {

/// A tray map, bag labels (63 × 33 mm, 24 a sheet, to cut or on label stock) or a picking list as PDF, A4.
/// May run on another thread.
QByteArray labelsAsPdf(const LabelSheet& sheet);

}  // namespace ombrek
