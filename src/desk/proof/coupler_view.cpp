#include "desk/proof/coupler_view.h"

#include <QPainter>
#include <cmath>

#include "desk/session.h"
#include "look/colours.h"

namespace ombrek {
namespace {

/// Where a value stands between the ends of its range, by its ratio; 0 … 1.
double share(double value, const PartRange& range) {
    if (!(value > 0) || !(range.high > range.low)) return 0;
    return range.low > 0 ? std::log(value / range.low) / std::log(range.high / range.low)
                         : value / range.high;
}

QString volts(double value) { return qs(formatQuantity(value, Unit::volt, 2)) + QStringLiteral(" peak"); }

}  // namespace

CouplerView::CouplerView(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void CouplerView::show(const Coupler& coupler, const CouplerMatch& match, const QString& load) {
    coupler_ = coupler;
    match_ = match;
    load_ = load;
    setAccessibleName(
        QStringLiteral("Coil %1, capacitor at the rig %2, at the antenna %3")
            .arg(qs(formatQuantity(match.l, Unit::henry, 3)), qs(formatQuantity(match.c1, Unit::farad, 3)),
                 match.c2 > 0 ? qs(formatQuantity(match.c2, Unit::farad, 3)) : QStringLiteral("none")));
    update();
}

double CouplerView::radius() const {
    return std::clamp(std::min(height() / 5.8, width() / 11.5), 30.0, 90.0);
}

void CouplerView::paintPart(QPainter& p, QPointF at, bool series, bool coil, double value,
                            const PartRange& range, const CouplerMatch::Stress& stress) const {
    const Colours& c = coloursOf(*this);
    const double knob = radius();
    p.setPen(QPen(c.line, 2));
    if (!series) {
        const QPointF foot(at.x(), at.y() + 2 * knob + 26);
        p.drawLine(at, foot);
        for (int i = 0; i < 3; ++i)
            p.drawLine(foot + QPointF(-12 + 4 * i, 5 * i), foot + QPointF(12 - 4 * i, 5 * i));
        at.ry() += knob + 10;
    }
    const bool held = coil || coupler_.volts <= 0 || stress.volts <= coupler_.volts;
    p.setBrush(c.card);
    p.setPen(QPen(held ? c.copper : c.fail, 2.5));
    p.drawEllipse(at, knob, knob);
    const double turn = (-225 + 270 * std::clamp(share(value, range), 0.0, 1.0)) * M_PI / 180;
    p.setPen(QPen(c.ink, 3, Qt::SolidLine, Qt::RoundCap));
    if (value > 0)
        p.drawLine(at + QPointF(knob / 3 * std::cos(turn), knob / 3 * std::sin(turn)),
                   at + QPointF((knob - 5) * std::cos(turn), (knob - 5) * std::sin(turn)));
    // Words: above a part in the way, beside one to ground.
    const QRectF words = series ? QRectF(at.x() - 90, at.y() - knob - withText(44), 180, withText(42))
                                : QRectF(at.x() + knob + 8, at.y() - 2, 140, withText(44));
    const auto side = series ? Qt::AlignHCenter : Qt::AlignLeft;
    p.setPen(c.ink);
    p.setFont(benchFont(16, true));
    p.drawText(words, int(side | Qt::AlignTop),
               value > 0 ? qs(formatQuantity(value, coil ? Unit::henry : Unit::farad, 3))
                         : QStringLiteral("not in"));
    p.setPen(held ? c.soft : c.fail);
    p.setFont(benchFont(14));
    if (value > 0) p.drawText(words, int(side | Qt::AlignBottom), volts(stress.volts));
}

void CouplerView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Colours& c = coloursOf(*this);
    const double knob = radius();
    const double y = std::max(height() * 0.38, knob + withText(46.0)), left = 70, right = width() - 90;
    p.setPen(QPen(c.line, 2));
    p.drawLine(QPointF(left, y), QPointF(right, y));
    p.setPen(c.ink);
    p.setFont(benchFont(15, true));
    p.drawText(QRectF(0, y - 14, left - 8, 28), Qt::AlignRight | Qt::AlignVCenter, QStringLiteral("rig"));
    p.drawText(QRectF(right + 8, y - 14, width() - right - 8, 28), Qt::AlignLeft | Qt::AlignVCenter,
               QStringLiteral("antenna"));
    p.setPen(c.soft);
    p.setFont(benchFont(14));
    p.drawText(QRectF(0, height() - 28, width(), 26), Qt::AlignHCenter, QStringLiteral("into %1").arg(load_));
    const auto at = [&](double part) { return QPointF(left + part * (right - left), y); };
    const auto first = [&](double part, bool series) {
        paintPart(p, at(part), series, false, match_.c1, coupler_.c1, match_.first);
    };
    const auto second = [&](double part, bool series) {
        paintPart(p, at(part), series, false, match_.c2, coupler_.c2, match_.second);
    };
    const auto coil = [&](double part, bool series) {
        paintPart(p, at(part), series, true, match_.l, coupler_.l, match_.coil);
    };
    switch (coupler_.kind) {
        case Coupler::Kind::t:
            first(0.2, true);
            coil(0.48, false);
            second(0.8, true);
            break;
        case Coupler::Kind::pi:
            first(0.12, false);
            coil(0.5, true);
            second(0.72, false);
            break;
        default:
            coil(match_.atLoad ? 0.3 : 0.62, true);
            first(match_.atLoad ? 0.66 : 0.16, false);
    }
}

}  // namespace ombrek
