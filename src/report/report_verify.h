#pragma once

#include <QString>
#include <string>

#include "core/quantity/problem.h"
#include "report/report.h"

namespace ombrek {

/// What a printed report says of itself.
struct PrintedReport {
    QString state;         ///< the hash, 64 hexadecimal digits
    std::int64_t made = 0;  ///< when, seconds since 1970
    QStringList words;     ///< of all its pages
};

/// Read a report's PDF (by poppler). @return a Problem for what is no PDF, or no report of Ombrek's
Result<PrintedReport> readReport(const std::string& pdf);

/// The hash on it against the book's, and its words against those the book gives now.
struct ReportVerdict {
    bool sameState = false, sameWords = false;
    QString sentence;
};
/// @param again  the report made of the book now, for the time that is printed on the other
ReportVerdict verifyReport(const PrintedReport& printed, const QString& state, const Report& again);

}  // namespace ombrek
