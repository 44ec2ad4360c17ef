#pragma once

#include <QByteArray>
#include <QPageSize>
#include <QPagedPaintDevice>
#include <QString>
#include <functional>

class QPrinter;

namespace ombrek {

/// What is printed: pages, A4 unless another size is said, drawn by `draw` on paper or into a PDF; it holds
/// all it draws.
struct A4Sheet {
    QString title;
    double margin = 0;     ///< on every side [mm]
    int dotsPerInch = 96;  ///< what the painter counts in
    /// Draws all its pages.
    std::function<void(QPagedPaintDevice&)> draw;
    QPageSize::PageSizeId page = QPageSize::A4;
    bool forArchive = false;  ///< as PDF/A-1b (ISO 19005-1), by Qt
};

/// As PDF. Needs a QGuiApplication; may run on any thread.
QByteArray pdfOf(const A4Sheet& sheet);

/// Set a printer up for the sheet, and draw on it.
void prepare(QPrinter& printer, const A4Sheet& sheet);

}  // namespace ombrek
