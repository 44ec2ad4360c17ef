#include "desk/pieces/verdict_line.h"

#include <QPainter>
#include <algorithm>

#include "look/verdict_mark.h"

namespace ombrek {

VerdictLine::VerdictLine(QWidget* parent) : QWidget(parent) {
    setMinimumHeight(74);
    QSizePolicy policy(QSizePolicy::Expanding, QSizePolicy::Preferred);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
}

int VerdictLine::heightForWidth(int width) const {
    const QRect room(0, 0, std::max(40, width - 52), 1000);
    return 34 + QFontMetrics(benchFont(14)).boundingRect(room, Qt::TextWordWrap, sentence_).height();
}

void VerdictLine::show(VerdictState state, const QString& sentence) {
    state_ = state;
    sentence_ = sentence;
    setAccessibleName(wordOf(state) + QStringLiteral(". ") + sentence);
    updateGeometry();
    update();
}

void VerdictLine::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Colours& c = coloursOf(*this);
    drawVerdictMark(p, QRectF(0, 8, 38, 38), state_, c);
    p.setFont(benchFont(24, true));
    p.setPen(colourOf(c, state_));
    const QString word = wordOf(state_);
    p.drawText(QRectF(52, 0, width() - 52.0, 30), Qt::AlignLeft | Qt::AlignVCenter, word);
    p.setFont(benchFont(14));
    p.setPen(c.soft);
    p.drawText(QRectF(52, 30, width() - 52.0, height() - 30.0),
               Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, sentence_);
}

}  // namespace ombrek
