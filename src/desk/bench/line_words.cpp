#include "desk/bench/line_words.h"

#include <QMouseEvent>
#include <QPainter>

#include "look/colours.h"

namespace ombrek {
namespace {

constexpr int kPad = 14, kGap = 10, kHigh = 48, kBelow = 24;

}  // namespace

LineWords::LineWords(QWidget* parent) : QWidget(parent) {
    setFont(benchFont(24));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void LineWords::show(const QStringList& words, int at, int number, std::optional<int> unit) {
    words_ = words;
    at_ = at;
    number_ = number;
    unit_ = unit;
    setAccessibleName(words.join(QChar(' ')));
    update();
}

/// In one row, closer together where there are many; what has no room is left out.
std::vector<QRect> LineWords::boxes() const {
    std::vector<QRect> out;
    int x = 2;
    for (const QString& word : words_) {
        const int wide = fontMetrics().horizontalAdvance(word) + 2 * kPad;
        if (x + wide > width()) break;
        out.emplace_back(x, 4, wide, kHigh);
        x += wide + kGap;
    }
    return out;
}

void LineWords::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Colours& colours = coloursOf(*this);
    const auto all = boxes();
    for (std::size_t i = 0; i < all.size(); ++i) {
        const bool number = int(i) == number_, unit = unit_ && int(i) == *unit_;
        painter.setPen(QPen(int(i) == at_ ? colours.copper : colours.line, int(i) == at_ ? 3 : 1));
        painter.setBrush(number || unit ? colours.card : QColor(Qt::transparent));
        painter.drawRoundedRect(QRectF(all[i]).adjusted(1, 1, -1, -1), 3, 3);
        painter.setPen(number || unit ? colours.ink : colours.soft);
        painter.setFont(benchFont(24, number));
        painter.drawText(all[i], Qt::AlignCenter, words_[int(i)]);
        if (!number && !unit) continue;
        painter.setFont(benchFont(13));
        painter.drawText(QRect(all[i].left() - 10, all[i].bottom() + 2, all[i].width() + 20, kBelow),
                         Qt::AlignCenter, number ? QStringLiteral("number") : QStringLiteral("unit"));
    }
}

void LineWords::mousePressEvent(QMouseEvent* event) {
    const auto all = boxes();
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (all[i].contains(event->position().toPoint())) emit clicked(int(i));
    }
}

}  // namespace ombrek
