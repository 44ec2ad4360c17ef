#pragma once

#include "report/a4_sheet.h"
#include "report/label_sheet.h"

namespace ombrek {

/// A tray map, bag labels (63 × 33 mm, 24 a sheet, to cut or on label stock) or a picking list.
A4Sheet labels(const LabelSheet& sheet);

}  // namespace ombrek
