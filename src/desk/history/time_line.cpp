#include "desk/history/time_line.h"

#include <QDateTime>
#include <QLocale>
#include <QPainter>
#include <algorithm>

#include "look/colours.h"

namespace ombrek {
namespace {

QString day(std::int64_t at) {
    return QLocale::c().toString(QDateTime::fromSecsSinceEpoch(at).date(), QStringLiteral("d MMM yyyy"));
}

constexpr double kEdge = 8;

}  // namespace

TimeLine::TimeLine(QWidget* parent) : QWidget(parent) { setFixedHeight(withText(78)); }

void TimeLine::show(const std::vector<HistoryLine>& lines, std::int64_t begun, std::int64_t now,
                    std::int64_t inHand) {
    strokes_.clear();
    from_ = begun;
    to_ = std::max(now, begun + 1);
    inHand_ = inHand;
    for (const HistoryLine& line : lines) {
        const bool repair = line.text.starts_with("repaired") || line.text.starts_with("noticed");
        strokes_.push_back(
            {line.at, line.state, repair, repair ? QString::fromStdString(line.what) : QString()});
        from_ = std::min(from_, line.at);
        to_ = std::max(to_, line.at);
    }
    setAccessibleName(QStringLiteral("Line of time from %1 to %2, %3 things on it")
                          .arg(day(from_), day(to_))
                          .arg(strokes_.size()));
    update();
}

double TimeLine::x(std::int64_t at) const {
    return kEdge +
           (width() - 2 * kEdge) * double(at - from_) / double(std::max<std::int64_t>(1, to_ - from_));
}

void TimeLine::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    const double y = height() * 0.56;
    p.setPen(QPen(c.copper, 3));
    p.drawLine(QPointF(kEdge, y), QPointF(width() - kEdge, y));
    for (const Stroke& s : strokes_) {
        const double high = s.repair ? 18 : s.state == VerdictState::notDone ? 6 : 11;
        p.setPen(QPen(s.repair ? c.fail : colourOf(c, s.state), s.repair ? 3 : 1.2));
        p.drawLine(QPointF(x(s.at), y - high), QPointF(x(s.at), y + high));
    }
    p.setFont(benchFont(13));
    double free = -1;
    for (auto s = strokes_.rbegin(); s != strokes_.rend(); ++s) {  // oldest first
        if (!s->repair || s->word.isEmpty()) continue;
        const double wide = p.fontMetrics().horizontalAdvance(s->word) + 8;
        const double at = std::clamp(x(s->at) - wide / 2, 0.0, width() - wide);
        if (at < free) continue;
        p.setPen(c.fail);
        p.drawText(QRectF(at, 0, wide, y - 20), Qt::AlignHCenter | Qt::AlignBottom, s->word);
        free = at + wide;
    }
    if (inHand_ != 0) {
        p.setPen(QPen(c.copper, 2));
        p.setBrush(c.card);
        p.drawEllipse(QPointF(x(inHand_), y), 6, 6);
    }
    p.setPen(c.soft);
    const QRectF foot(kEdge, height() - 20.0, width() - 2 * kEdge, 20);
    p.drawText(foot, Qt::AlignLeft | Qt::AlignVCenter, day(from_));
    p.drawText(foot, Qt::AlignRight | Qt::AlignVCenter, day(to_));
}

}  // namespace ombrek
