#include "report/rig_card_sheet.h"

#include <QPainter>

#include "look/colours.h"
#include "report/report_html.h"

namespace ombrek {
namespace {

constexpr double kMargin = 18, kWide = 298 - 2 * kMargin, kHigh = 420;  ///< A6 [points]

/// Lines from the top to the foot; what finds no room any more is left out and said.
class CardPainter {
 public:
    explicit CardPainter(QPagedPaintDevice& device) : p_(&device) { p_.setPen(Qt::black); }

    void title(const QString& text, const QString& right) {
        font(15, true);
        write(text, right, 22);
        rule(1.2);
    }
    void row(const QString& left, const QString& middle, const QString& right) {
        if (full(17)) return;
        font(11, true);
        p_.drawText(QRectF(kMargin, y_, 58, 17), Qt::AlignLeft | Qt::AlignVCenter, cut(left, 58));
        font(11);
        p_.drawText(QRectF(kMargin + 60, y_, 92, 17), Qt::AlignLeft | Qt::AlignVCenter, cut(middle, 92));
        p_.drawText(QRectF(kMargin + 154, y_, kWide - 154, 17), Qt::AlignRight | Qt::AlignVCenter,
                    cut(right, kWide - 154));
        y_ += 17;
    }
    void fact(const QString& name, const QString& value, bool strong = false) {
        font(10);
        const QRectF left(kMargin, y_, 92, 60), room(kMargin + 96, y_, kWide - 96, 60);
        const double height = std::max(p_.boundingRect(left, Qt::TextWordWrap, name).height(),
                                       p_.boundingRect(room, Qt::TextWordWrap, value).height());
        if (full(height)) return;
        p_.setPen(QColor(70, 70, 70));
        p_.drawText(left, Qt::TextWordWrap, name);
        p_.setPen(Qt::black);
        font(10, strong);
        p_.drawText(room, Qt::TextWordWrap, value);
        y_ += height + 5;
    }
    void rule(double width = 0.6) {
        y_ += 3;
        p_.setPen(QPen(Qt::black, width));
        p_.drawLine(QPointF(kMargin, y_), QPointF(kMargin + kWide, y_));
        y_ += 4;
    }
    void foot(QString text) {
        font(8);
        if (left_ > 0) text.prepend(QStringLiteral("%1 more lines: see the report. ").arg(left_));
        p_.drawText(QRectF(kMargin, kHigh - kMargin - 24, kWide, 26), Qt::TextWordWrap | Qt::AlignBottom,
                    text);
    }

 private:
    void font(int points, bool bold = false) {
        QFont f(QStringLiteral("Ombrek Readout"));
        f.setPixelSize(points);  // a pixel is a point here
        f.setBold(bold);
        p_.setFont(f);
    }
    QString cut(const QString& text, double width) {
        return QFontMetricsF(p_.font()).elidedText(text, Qt::ElideRight, width);
    }
    void write(const QString& text, const QString& right, double height) {
        p_.drawText(QRectF(kMargin, y_, kWide - 70, height), Qt::AlignLeft | Qt::AlignVCenter,
                    cut(text, kWide - 74));
        font(10, true);
        p_.drawText(QRectF(kMargin, y_, kWide, height), Qt::AlignRight | Qt::AlignVCenter, right);
        y_ += height;
    }
    bool full(double height) {
        if (y_ + height < kHigh - kMargin - 26) return false;
        ++left_;
        return true;
    }

    QPainter p_;
    double y_ = kMargin;
    int left_ = 0;
};

}  // namespace

A4Sheet rigCardSheet(const RigCard& card, const QString& call, std::int64_t now) {
    A4Sheet out{QString::fromStdString(card.title), 0, 72, [card, call, now](QPagedPaintDevice& device) {
                    const auto q = [](const std::string& text) { return QString::fromStdString(text); };
                    CardPainter p(device);
                    p.title(q(card.title), call);
                    for (const RigCard::Band& b : card.bands)
                        p.row(q(b.name) + (b.proved ? QString() : QStringLiteral(" *")), q(b.frequency),
                              q(b.power));
                    if (!card.bands.empty()) p.rule();
                    for (const RigCard::Line& line : card.lines) p.fact(q(line.what), q(line.text));
                    for (const std::string& d : card.defects) p.fact(QStringLiteral("Forbidden"), q(d), true);
                    const bool all =
                        std::all_of(card.bands.begin(), card.bands.end(), [](auto& b) { return b.proved; });
                    p.foot((all ? QString() : QStringLiteral("* not every gate is earned. ")) +
                           QStringLiteral("Load or antenna on before the key. ") + dayOf(now));
                }};
    out.page = QPageSize::A6;
    return out;
}

}  // namespace ombrek
