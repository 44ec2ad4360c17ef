#include "report/a4_pdf.h"

#include <QBuffer>

namespace ombrek {

QByteArray a4Pdf(const QString& title, double margin, int dotsPerInch,
                 const std::function<void(QPdfWriter&)>& draw) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter writer(&buffer);
    writer.setPageSize(QPageSize(QPageSize::A4));
    writer.setPageMargins(QMarginsF(margin, margin, margin, margin), QPageLayout::Millimeter);
    writer.setResolution(dotsPerInch);
    writer.setTitle(title);
    writer.setCreator(QStringLiteral("Ombrek"));
    draw(writer);
    return bytes;
}

}  // namespace ombrek
