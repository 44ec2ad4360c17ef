#include "report/dial_sheet.h"

#include <QBuffer>
#include <QPainter>
#include <QSvgGenerator>
#include <cmath>

#include "look/colours.h"

namespace ombrek {
namespace {

constexpr double kUnits = 100;              ///< a millimetre
constexpr int kPerInch = 2540;              ///< units
constexpr double kWide = 210, kHigh = 297;  ///< the page [mm]
constexpr double kTop = 30;                 ///< of what is drawn [mm]
constexpr double kMajor = 6, kMinor = 3;    ///< lengths of marks [mm]
constexpr double kGauge = 50;               ///< [mm]

class DialPainter {
 public:
    DialPainter(QPainter& p, const Dial& dial) : p_(p), dial_(dial) {
        p_.setRenderHint(QPainter::Antialiasing);
        QFont font = p_.font();
        font.setPixelSize(int(3.2 * kUnits));
        p_.setFont(font);
    }

    void paint(const QString& title) {
        text({kWide / 2, 18}, title);
        p_.save();
        if (dial_.shape.mirrored) {
            p_.translate(kWide * kUnits, 0);
            p_.scale(-1, 1);
        }
        if (dial_.shape.round)
            ring();
        else
            scale();
        p_.restore();
        gauge();
    }

 private:
    void line(QPointF a, QPointF b, double millimetres) {
        p_.setPen(QPen(Qt::black, millimetres * kUnits, Qt::SolidLine, Qt::FlatCap));
        p_.drawLine(a * kUnits, b * kUnits);
    }
    void text(QPointF at, const QString& words) {
        p_.setPen(Qt::black);
        const QPointF m = at * kUnits;
        p_.drawText(QRectF(m.x() - 90 * kUnits, m.y() - 3 * kUnits, 180 * kUnits, 6 * kUnits),
                    Qt::AlignCenter, words);
    }

    /// The scale's middle is drawn upwards.
    void ring() {
        const double r = dial_.shape.size / 2, up = (dial_.from + dial_.to) / 2;
        const QPointF hub(kWide / 2, kTop + r + 14);
        const auto at = [&](double degrees, double radius) {
            const double a = (degrees - up) * M_PI / 180;
            return hub + QPointF(std::sin(a), -std::cos(a)) * radius;
        };
        for (const DialMark& mark : dial_.marks) {
            line(at(mark.place, r), at(mark.place, r + (mark.major ? kMajor : kMinor)),
                 mark.major ? 0.4 : 0.2);
            if (mark.major) text(at(mark.place, r + kMajor + 5), QString::fromStdString(mark.label));
        }
        p_.setPen(QPen(Qt::black, 0.2 * kUnits));
        p_.setBrush(Qt::NoBrush);
        p_.drawEllipse(hub * kUnits, r * kUnits, r * kUnits);
        line(hub - QPointF(2, 0), hub + QPointF(2, 0), 0.2);
        line(hub - QPointF(0, 2), hub + QPointF(0, 2), 0.2);
    }

    void scale() {
        const double left = (kWide - dial_.shape.size) / 2, base = kTop + 20;
        for (const DialMark& mark : dial_.marks) {
            const QPointF foot(left + mark.place, base);
            line(foot, foot - QPointF(0, mark.major ? kMajor : kMinor), mark.major ? 0.4 : 0.2);
            if (mark.major) text(foot - QPointF(0, kMajor + 4), QString::fromStdString(mark.label));
        }
        line({left, base}, {left + dial_.shape.size, base}, 0.3);
    }

    void gauge() {
        const double y = kHigh - 60, left = (kWide - kGauge) / 2;
        line({left, y}, {left + kGauge, y}, 0.3);
        for (const double x : {left, left + kGauge}) line({x, y - 2}, {x, y + 2}, 0.3);
        text({kWide / 2, y + 6},
             QStringLiteral("50 mm: hold a rule against it before you cut; print at 100 %"));
        QStringList checks;
        for (const DialMark& mark : toCheck(dial_)) checks << QString::fromStdString(mark.label);
        text({kWide / 2, y + 14},
             QStringLiteral("Then count at %1 MHz on the finished dial.").arg(checks.join(", ")));
    }

    QPainter& p_;
    const Dial& dial_;
};

}  // namespace

void paintDial(QPainter& painter, const Dial& dial, const QString& title) {
    DialPainter(painter, dial).paint(title);
}

QRectF dialBox(const Dial& dial) {
    const double size = dial.shape.size, room = 16;
    if (!dial.shape.round) return {(kWide - size) / 2 - room, kTop + 2, size + 2 * room, 24};
    return {(kWide - size) / 2 - room, kTop - 2, size + 2 * room, size + 2 * room};
}

A4Sheet dialSheet(const Dial& dial, const QString& title) {
    A4Sheet out;
    out.title = title;
    out.dotsPerInch = kPerInch;
    out.draw = [dial, title](QPagedPaintDevice& device) {
        QPainter painter(&device);
        DialPainter(painter, dial).paint(title);
    };
    return out;
}

QByteArray dialSvg(const Dial& dial, const QString& title) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    QSvgGenerator generator;
    generator.setOutputDevice(&buffer);
    generator.setResolution(kPerInch);
    generator.setSize(QSize(int(kWide * kUnits), int(kHigh * kUnits)));
    generator.setViewBox(QRectF(0, 0, kWide * kUnits, kHigh * kUnits));
    generator.setTitle(title);
    QPainter painter(&generator);
    DialPainter(painter, dial).paint(title);
    painter.end();
    return bytes;
}

}  // namespace ombrek
