#pragma once

#include <QString>

#include "judged/judged.h"
#include "report/report_words.h"

namespace ombrek {

/// All that stands behind a report's first page, but its plots and photographs.
QString reportSections(const Judged& judged, const ReportWords& words);

}  // namespace ombrek
