#include "report/a4_sheet.h"

#include <QBuffer>
#include <QPdfWriter>
#include <QPrinter>

namespace ombrek {
namespace {

void layOut(QPagedPaintDevice& device, const A4Sheet& sheet) {
    const double m = sheet.margin;
    device.setPageSize(QPageSize(sheet.page));
    device.setPageMargins(QMarginsF(m, m, m, m), QPageLayout::Millimeter);
}

}  // namespace

QByteArray pdfOf(const A4Sheet& sheet) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter writer(&buffer);
    if (sheet.forArchive) writer.setPdfVersion(QPagedPaintDevice::PdfVersion_A1b);
    layOut(writer, sheet);
    writer.setResolution(sheet.dotsPerInch);
    writer.setTitle(sheet.title);
    writer.setCreator(QStringLiteral("Ombrek"));
    sheet.draw(writer);
    return bytes;
}

void prepare(QPrinter& printer, const A4Sheet& sheet) {
    printer.setFullPage(sheet.margin == 0);
    layOut(printer, sheet);
    printer.setResolution(sheet.dotsPerInch);
    printer.setDocName(sheet.title);
    printer.setCreator(QStringLiteral("Ombrek"));
}

}  // namespace ombrek
