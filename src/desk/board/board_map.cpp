#include "desk/board/board_map.h"

#include "desk/board/step_parts.h"

namespace ombrek {
namespace {

constexpr int kLegend = 24;

}  // namespace

/// The drawing with its legend.
class DrawingView : public QWidget {
 public:
    void show(BoardDrawing drawing) {
        drawing_ = std::move(drawing);
        update();
    }
    void setLegend(const QString& marks) { legend_ = marks; }

 protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        const Colours& c = coloursOf(*this);
        drawing_.paint(p, QRectF(rect()).adjusted(0, 0, 0, -kLegend), c);
        const QRectF line(0, height() - kLegend, width(), kLegend);
        p.setFont(benchFont(13));
        p.setPen(c.soft);
        const QString side =
            drawing_.mirrored ? QStringLiteral("From the solder side") : QStringLiteral("From above");
        const QString whole =
            side + (drawing_.mirrored ? QStringLiteral(", mirrored") : QStringLiteral(", print towards you"));
        const auto wide = [&](const QString& text) { return QFontMetrics(p.font()).horizontalAdvance(text); };
        p.drawText(line, Qt::AlignRight | Qt::AlignVCenter, legend_);
        p.drawText(line, Qt::AlignLeft | Qt::AlignVCenter,
                   wide(whole) + wide(legend_) + 20 < width() ? whole : side);
    }

 private:
    BoardDrawing drawing_;
    QString legend_ = QStringLiteral("ringed: now · hatched: in · outline: waits");
};

void BoardMap::setLegend(const QString& marks) { drawing_->setLegend(marks); }

BoardMap::BoardMap(QWidget* parent)
    : QStackedWidget(parent), drawing_(new DrawingView), parts_(new StepParts) {
    setObjectName(QStringLiteral("map"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    addWidget(drawing_);
    addWidget(parts_);
}

void BoardMap::show(BoardDrawing drawing, const std::vector<const Part*>& inHand) {
    const bool placed = drawing.board.width > 0 && !drawing.pieces.empty();
    QStringList now;
    for (const Part* part : inHand) now << QString::fromStdString(part->ref);
    setAccessibleName(QStringLiteral("The board%1; in hand: %2")
                          .arg(drawing.mirrored ? QStringLiteral(", solder side") : QString(),
                               now.join(QStringLiteral(", "))));
    setCurrentWidget(placed ? static_cast<QWidget*>(drawing_) : parts_);
    parts_->show(inHand);
    drawing_->show(std::move(drawing));
}

}  // namespace ombrek
