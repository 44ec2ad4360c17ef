#pragma once

#include <QImage>
#include <QWidget>

#include "picture/turn_count.h"

namespace ombrek {

/// A photograph with the wires that were found, numbered.
class PictureView : public QWidget {
 public:
    explicit PictureView(QWidget* parent = nullptr);
    /// Another photograph; marks are gone with the last.
    void setImage(const QImage& image);
    /// The wires that were counted; the one `at` is ringed.
    void setMarks(const std::vector<WireMark>& marks, std::size_t at);
    bool hasImage() const { return !image_.isNull(); }

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    QImage image_;
    QSize whole_;
    std::vector<WireMark> marks_;
    std::size_t at_ = 0;
};

}  // namespace ombrek
