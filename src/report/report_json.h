#pragma once

#include <string>

#include "judged/judged.h"
#include "report/report_words.h"

namespace ombrek {

/// The report for other programs, as JSON with SI values; docs/formats/report.md says what is in it.
std::string reportAsJson(const Judged& judged, const ReportWords& words);

}  // namespace ombrek
