#pragma once

#include <QByteArray>
#include <QString>
#include <filesystem>
#include <vector>

#include "core/proof/readiness.h"
#include "formats/tables.h"
#include "kit/build.h"
#include "kit/kit.h"
#include "look/plot.h"

namespace ombrek {

/// The signed-off report: what was built, measured and judged, with evidence. Made once, written as HTML or
/// PDF.
struct Report {
    QString html;                   ///< body; pictures are named plot:0, plot:1 …
    std::vector<QByteArray> plots;  ///< SVG
    QString title;
};

/// Needs a QApplication (for the plots); the window's thread. @param now  seconds since 1970
Report makeReport(const Kit& kit, const Build& build, const Tables& tables, std::int64_t now);

/// One self-contained HTML file, the plots inside as SVG.
QByteArray reportAsHtml(const Report& report);

/// A4 pages. May run on another thread.
QByteArray reportAsPdf(const Report& report);

}  // namespace ombrek
