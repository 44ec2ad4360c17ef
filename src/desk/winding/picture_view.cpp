#include "desk/winding/picture_view.h"

#include <QPainter>

#include "look/colours.h"

namespace ombrek {

PictureView::PictureView(QWidget* parent) : QWidget(parent) { setMinimumSize(320, 320); }

void PictureView::setImage(const QImage& image) {
    whole_ = image.size();
    image_ = image.width() > 1600 || image.height() > 1600
                 ? image.scaled(1600, 1600, Qt::KeepAspectRatio, Qt::SmoothTransformation)
                 : image;
    update();
}

void PictureView::setMarks(const std::vector<WireMark>& marks, std::size_t at) {
    marks_ = marks;
    at_ = at;
    setAccessibleName(QStringLiteral("Picture of the coil, %1 wires marked").arg(marks.size()));
    update();
}

void PictureView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
    const Colours& c = coloursOf(*this);
    if (image_.isNull()) {
        p.setFont(benchFont(20));
        p.setPen(c.soft);
        p.drawText(rect().adjusted(40, 0, -40, 0), Qt::AlignCenter | Qt::TextWordWrap,
                   QStringLiteral("A picture of the coil from its front, on a plain ground of another "
                                  "colour, filling half of it.\nO opens it."));
        return;
    }
    const QSizeF shown = QSizeF(whole_).scaled(size(), Qt::KeepAspectRatio);
    const QRectF at(QPointF((width() - shown.width()) / 2, (height() - shown.height()) / 2), shown);
    p.drawImage(at, image_);
    const double scale = shown.width() / whole_.width();
    for (std::size_t i = 0; i < marks_.size(); ++i) {
        const WireMark& m = marks_[i];
        const QPointF inner = at.topLeft() + QPointF(m.x1, m.y1) * scale,
                      outer = at.topLeft() + QPointF(m.x2, m.y2) * scale;
        const bool now = i == at_;
        p.setPen(QPen(now ? c.copper : QColor("#1C2529"), now ? 4 : 1.5,
                      m.agreement > 0.6 ? Qt::SolidLine : Qt::DashLine));
        p.drawLine(inner, outer);
        const bool ten = (i + 1) % 10 == 0;
        const QPointF middle =
            outer +
            (outer - inner) / std::max(1.0, std::hypot(outer.x() - inner.x(), outer.y() - inner.y())) * 16;
        const double r = ten || now ? 13 : 11;
        p.setPen(QPen(now ? c.copper : QColor("#1C2529"), 1.5));
        p.setBrush(ten ? QColor("#1C2529") : QColor("#FCFAF5"));
        p.drawEllipse(middle, r, r);
        p.setFont(benchFont(12, true));
        p.setPen(ten ? QColor("#FCFAF5") : QColor("#1C2529"));
        p.drawText(QRectF(middle - QPointF(14, 10), QSizeF(28, 20)), Qt::AlignCenter, QString::number(i + 1));
    }
}

}  // namespace ombrek
