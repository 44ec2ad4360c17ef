#pragma once

#include <QByteArray>
#include <QString>
#include <filesystem>
#include <vector>

#include "judged/judged.h"
#include "look/plot.h"
#include "report/a4_sheet.h"
#include "report/report_words.h"

namespace ombrek {

/// The signed-off report: what was built, measured and judged, with evidence. Made once, written as HTML or
/// PDF.
struct Report {
    QString html;                      ///< body; pictures are named plot:0, plot:1 …, photo:0 …
    std::vector<QByteArray> plots{};   ///< SVG
    std::vector<QByteArray> photos{};  ///< JPEG
    QString title;
};

/// Needs a QApplication (for the plots); the window's thread.
Report makeReport(const Judged& judged, const ReportWords& words);

/// One self-contained HTML file, the plots inside as SVG.
QByteArray reportAsHtml(const Report& report);

/// On paper. Its drawing may run on another thread.
A4Sheet reportSheet(const Report& report);

}  // namespace ombrek
