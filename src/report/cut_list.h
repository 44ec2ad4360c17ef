#pragma once

#include <QString>

#include "report/a4_sheet.h"
#include "station/winding/reel.h"

namespace ombrek {

/// The wire to cut for a kit, a line a winding, and the total of each gauge against the reels.
A4Sheet cutListSheet(const CutList& list, const std::vector<ReelUse>& reels, const QString& kit);

}  // namespace ombrek
