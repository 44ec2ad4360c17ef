#pragma once

#include <QByteArray>
#include <QString>

#include "station/reel.h"

namespace ombrek {

/// The wire to cut for a kit, a line a winding, and the total of each gauge against the reels, as PDF, A4.
/// May run on another thread.
QByteArray cutListAsPdf(const CutList& list, const std::vector<ReelUse>& reels, const QString& kit);

}  // namespace ombrek
