#include "report/photo_file.h"

#include <QBuffer>
#include <QFileInfo>
#include <QImageReader>

namespace ombrek {

Result<QByteArray> readPhoto(const QString& file) {
    const QFileInfo info(file);
    const std::string name = info.fileName().toStdString();
    if (!info.isFile()) return problem(name, "There is no file of this name.");
    if (info.size() > 64'000'000)
        return problem(name, "This file is larger than 64 MB; take a smaller picture.");
    QImageReader::setAllocationLimit(450);  // MB: 100 megapixels of four bytes
    QImageReader reader(file);
    reader.setAutoTransform(true);
    const QSize size = reader.size();
    if (!reader.canRead() || size.isEmpty())
        return problem(name, "This is no picture that can be read (PNG, JPEG).");
    if (double(size.width()) * size.height() > 100e6)
        return problem(name, "This picture has more than 100 megapixels; take a smaller one.");
    if (std::max(size.width(), size.height()) > kPhotoSide)
        reader.setScaledSize(size.scaled(kPhotoSide, kPhotoSide, Qt::KeepAspectRatio));
    const QImage image = reader.read();
    if (image.isNull()) return problem(name, "This picture is damaged and cannot be read.");
    QByteArray out;
    QBuffer buffer(&out);
    buffer.open(QIODevice::WriteOnly);
    if (!image.convertToFormat(QImage::Format_RGB32).save(&buffer, "JPEG", 82))
        return problem(name, "This picture cannot be made smaller.");
    return out;
}

}  // namespace ombrek
