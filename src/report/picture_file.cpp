#include "report/picture_file.h"

#include <QImageReader>
#include <cstring>

namespace ombrek {

Result<Picture> readPicture(const std::filesystem::path& file) {
    const std::string name = file.filename().string();
    std::error_code error;
    if (!std::filesystem::is_regular_file(file, error)) return problem(name, "There is no such file.");
    QImageReader reader(QString::fromStdString(file.string()));
    reader.setAutoTransform(true);
    const QSize size = reader.size();
    if (!reader.canRead())
        return problem(name, "This is no picture that can be read: a PNG or a JPEG is wanted.");
    if (size.isValid() && long(size.width()) * size.height() > kMostPixels)
        return problem(name, "This picture has more than 60 megapixels: make it smaller first.");
    const QImage image = reader.read().convertToFormat(QImage::Format_RGB888);
    if (image.isNull()) return problem(name, "This picture is damaged: it cannot be read to its end.");
    Picture out{image.width(), image.height(), {}};
    const std::size_t row = std::size_t(image.width()) * 3;
    out.rgb.resize(row * std::size_t(image.height()));
    for (int y = 0; y < image.height(); ++y)
        std::memcpy(out.rgb.data() + row * std::size_t(y), image.constScanLine(y), row);
    return out;
}

}  // namespace ombrek
