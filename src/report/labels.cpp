#include "report/labels.h"

#include <QPainter>

#include "look/colours.h"

namespace ombrek {
namespace {

/// Page measures in millimetres; a painter unit is a tenth of one.
constexpr double kUnit = 10, kLabelWidth = 63, kLabelHeight = 33, kMargin = 10, kTop = 22;
constexpr int kColumns = 3, kRows = 8;

QString text(const std::string& utf8) { return QString::fromStdString(utf8); }

QString joined(const std::vector<std::string>& refs) {
    QStringList out;
    for (const auto& ref : refs) out << text(ref);
    return out.join(QStringLiteral(", "));
}

QFont fontOf(double millimetres, bool bold = false) { return benchFont(int(millimetres * kUnit), bold); }

/// A line of text that shrinks until it fits, down to two thirds, and is then cut with dots.
void drawFitting(QPainter& p, const QRectF& room, const QString& line, double millimetres, bool bold) {
    QFont font = fontOf(millimetres, bold);
    const int least = font.pixelSize() * 2 / 3;
    while (font.pixelSize() > least && QFontMetricsF(font).horizontalAdvance(line) > room.width())
        font.setPixelSize(font.pixelSize() - 1);
    p.setFont(font);
    p.drawText(room, Qt::AlignLeft | Qt::AlignVCenter,
               QFontMetricsF(font).elidedText(line, Qt::ElideRight, room.width()));
}

class SheetPrinter {
 public:
    SheetPrinter(QPagedPaintDevice& writer, const LabelSheet& sheet)
        : writer_(writer), sheet_(sheet), p_(&writer) {
        p_.scale(writer.logicalDpiX() / 25.4 / kUnit, writer.logicalDpiX() / 25.4 / kUnit);
    }

    void print() {
        head();
        for (std::size_t i = 0; i < sheet_.labels.size(); ++i) {
            const int cell = int(i % (kColumns * kRows));
            if (i > 0 && cell == 0) nextPage();
            const int column = cell % kColumns, row = cell / kColumns;
            label(sheet_.labels[i],
                  {kMargin * kUnit + column * kLabelWidth * kUnit, kTop * kUnit + row * kLabelHeight * kUnit,
                   kLabelWidth * kUnit, kLabelHeight * kUnit});
        }
    }

 private:
    void head() {
        p_.setPen(QColor("#1C2529"));
        drawFitting(p_, QRectF(kMargin * kUnit, 80, 1500, 100), text(sheet_.title), 6, true);
        p_.setFont(fontOf(3.4));
        p_.drawText(QRectF(1500, 80, 500, 100), Qt::AlignRight | Qt::AlignVCenter,
                    QStringLiteral("sheet %1").arg(page_));
    }

    void nextPage() {
        writer_.newPage();
        ++page_;
        head();
    }

    void label(const PartLabel& label, const QRectF& cell) {
        p_.setPen(QPen(QColor("#8B928F"), 1, Qt::DashLine));
        p_.drawRect(cell);
        const QRectF r = cell.adjusted(22, 14, -16, -12);
        p_.setPen(QColor("#59646A"));
        drawFitting(p_, QRectF(r.left(), r.top(), r.width() - 110, 40), text(label.group), 2.8, false);
        p_.setFont(fontOf(3.2, true));
        p_.drawText(QRectF(r.right() - 100, r.top(), 100, 40), Qt::AlignRight | Qt::AlignVCenter,
                    QStringLiteral("%1 pc").arg(label.refs.size()));
        p_.setPen(QColor("#1C2529"));
        drawFitting(p_, QRectF(r.left(), r.top() + 44, r.width(), 80), joined(label.refs), 6.4, true);
        drawFitting(p_, QRectF(r.left(), r.top() + 128, r.width(), 62), text(label.value), 4.6, false);
        if (!label.mark.empty())
            drawFitting(p_, QRectF(r.left(), r.top() + 196, r.width(), 54),
                        QStringLiteral("marked ") + text(label.mark), 3.6, false);
        if (sheet_.way == BagWay::beforeFitting) {  // a box to tick when it is fitted
            p_.setPen(QPen(QColor("#1C2529"), 3));
            p_.drawRect(QRectF(r.right() - 46, r.bottom() - 46, 40, 40));
        }
    }

    QPagedPaintDevice& writer_;
    const LabelSheet& sheet_;
    QPainter p_;
    int page_ = 1;
};

}  // namespace

A4Sheet labels(const LabelSheet& sheet) {
    return {text(sheet.title), 0, 1200,
            [sheet](QPagedPaintDevice& writer) { SheetPrinter(writer, sheet).print(); }};
}

}  // namespace ombrek
