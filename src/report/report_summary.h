#pragma once

#include <QString>

#include "judged/judged.h"
#include "report/report_words.h"

namespace ombrek {

/// The first page: who built what, what it is fit for, each band in a line, known defects, what was passed
/// knowingly, the first contact, a line to sign on, and the hash of the book's state.
QString reportSummary(const Judged& judged, const ReportWords& words);

/// Words that stand before the printed hash, by which it is found again.
inline constexpr const char* kHashWords = "State of the book, SHA-256:";

}  // namespace ombrek
