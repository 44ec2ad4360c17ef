#include "report/build_sheet.h"

#include <QPainter>
#include <QTextDocument>
#include <algorithm>
#include <cmath>

#include "report/board_drawing.h"

namespace ombrek {
namespace {

constexpr double kMargin = 36, kMapWidth = 150, kGap = 14;  ///< [points]

QString html(const std::string& text) { return QString::fromStdString(text).toHtmlEscaped(); }

/// Ink on paper: what is a colour on the screen is black or grey here.
Colours paperColours() {
    Colours out = dayBench();
    out.copper = out.copperLight = out.ink = out.boardInk = out.fail = Qt::black;
    out.board = out.card = out.paper = Qt::white;
    out.soft = QColor(70, 70, 70);
    return out;
}

QString stepHtml(const Kit& kit, const Build& build, const Step& step, const QString& number) {
    QString out = QStringLiteral("<p><b>%1 %2 %3</b>")
                      .arg(build.done(step.id) ? QStringLiteral("\u2611") : QStringLiteral("\u2610"))
                      .arg(number.toHtmlEscaped())
                      .arg(html(step.title));
    QStringList parts;
    for (const std::string& ref : step.fits) {
        const Part* part = kit.part(ref);
        if (part == nullptr) continue;
        QString line = QStringLiteral("\u2610 %1 %2").arg(html(ref), html(part->value));
        if (!part->mark.empty()) line += QStringLiteral(" <i>%1</i>").arg(html(part->mark));
        if (!part->orientation.empty()) line += QStringLiteral(", ") + html(part->orientation);
        parts << line;
    }
    if (!parts.isEmpty()) out += QStringLiteral("<br>") + parts.join(QStringLiteral("<br>"));
    const auto line = [&](const char* word, const QString& text) {
        if (!text.isEmpty()) out += QStringLiteral("<br>%1%2").arg(QString::fromUtf8(word), text);
    };
    QStringList tools, keeps;
    for (const std::string& tool : step.tools) tools << html(tool);
    for (const Step::Keep& keep : step.keeps)
        keeps << QStringLiteral("%1 %2").arg(keep.count).arg(html(keep.what));
    line("Have ready: ", tools.join(QStringLiteral(", ")));
    line("Keep: ", keeps.join(QStringLiteral(", ")));
    line("Erratum: ", html(step.erratum));
    line("", html(step.note));
    line("<b>Caution:</b> ", html(step.caution));
    for (const LookAhead& ahead : kit.lookAheads) {
        if (ahead.from == step.id) line("Look ahead: ", html(ahead.say));
    }
    if (step.hold) line("<b>HOLD.</b> ", html(step.hold->say));
    return out + QStringLiteral("</p>");
}

/// The board around the parts of a step; nothing when none of them has a place.
std::optional<BoardDrawing> mapOf(const Kit& kit, const Step& step) {
    BoardDrawing out;
    out.board = kit.board;
    out.leaders = false;
    double left = 1e9, right = -1e9, top = 1e9, bottom = -1e9;
    for (const Part& part : kit.parts) {
        if (!part.place) continue;
        const bool now = std::find(step.fits.begin(), step.fits.end(), part.ref) != step.fits.end();
        out.pieces.push_back({&part, now ? BoardPiece::Fitting::now : BoardPiece::Fitting::waits});
        if (!now) continue;
        left = std::min(left, part.place->x);
        right = std::max(right, part.place->x);
        top = std::min(top, part.place->y);
        bottom = std::max(bottom, part.place->y);
    }
    if (right < left || kit.board.width <= 0) return std::nullopt;
    const double span = std::max({right - left + 20, (bottom - top + 20) * 1.4, 45.0});
    out.zoom = std::max(1.0, kit.board.width / span);
    out.middle = {(left + right) / 2, (top + bottom) / 2};
    return out;
}

/// Steps one below another, each with its piece of the map, over as many pages as it takes.
class SheetPrinter {
 public:
    SheetPrinter(QPagedPaintDevice& writer, const Kit& kit, const Build& build)
        : writer_(writer),
          kit_(kit),
          build_(build),
          p_(&writer),
          width_(writer.width() - 2 * kMargin),
          foot_(writer.height() - kMargin - 16) {}

    void print(const std::vector<std::size_t>& order) {
        const std::string_view name = school(build_.order).name;
        p_.setFont(benchFont(18, true));
        p_.drawText(QRectF(kMargin, y_, width_, 26), Qt::AlignLeft,
                    QString::fromStdString(kit_.name) + QStringLiteral(", build sheet, ") +
                        QString::fromUtf8(name.data(), int(name.size())));
        y_ += 34;
        // The paper's own numbers where it has any: they are what one looks for in it.
        const bool numbered = std::any_of(kit_.steps.begin(), kit_.steps.end(),
                                          [](const Step& step) { return !step.number.empty(); });
        for (std::size_t i = 0; i < order.size(); ++i) {
            const Step& step = kit_.steps[order[i]];
            printStep(step, numbered ? QString::fromStdString(step.number) : QString::number(i + 1));
        }
        printFoot();
    }

 private:
    void printFoot() {
        p_.setFont(benchFont(9));
        p_.setPen(Qt::black);
        p_.drawText(QRectF(kMargin, writer_.height() - kMargin, width_, 14), Qt::AlignRight,
                    QStringLiteral("%1, page %2").arg(QString::fromStdString(kit_.name)).arg(page_));
    }

    void turnPage() {
        printFoot();
        writer_.newPage();
        ++page_;
        y_ = kMargin;
    }

    void printStep(const Step& step, const QString& number) {
        const auto map = mapOf(kit_, step);
        QTextDocument text;
        text.setDefaultFont(benchFont(10));
        text.setDocumentMargin(0);
        text.setTextWidth(map ? width_ - kMapWidth - kGap : width_);
        text.setHtml(stepHtml(kit_, build_, step, number));
        const double height = std::max(text.size().height(), map ? 96.0 : 0.0);
        if (y_ + height > foot_ && y_ > kMargin + 40) turnPage();
        p_.save();
        p_.translate(kMargin, y_);
        text.drawContents(&p_);
        p_.restore();
        if (map) map->paint(p_, QRectF(kMargin + width_ - kMapWidth, y_, kMapWidth, 92), colours_);
        if (step.hold) {
            p_.setPen(QPen(Qt::black, 1.6));
            p_.setBrush(Qt::NoBrush);
            p_.drawRect(QRectF(kMargin - 6, y_ - 3, width_ + 12, height + 6));
        }
        y_ += height + 12;
    }

    QPagedPaintDevice& writer_;
    const Kit& kit_;
    const Build& build_;
    QPainter p_;
    const Colours colours_ = paperColours();
    const double width_, foot_;
    int page_ = 1;
    double y_ = kMargin;
};

}  // namespace

A4Sheet buildSheet(const Kit& kit, const Build& build, const std::vector<std::size_t>& order) {
    const QString title = QString::fromStdString(kit.name) + QStringLiteral(", build sheet");
    return {title, 0, 72, [kit, build, order](QPagedPaintDevice& writer) {
                SheetPrinter(writer, kit, build).print(order);
            }};
}

}  // namespace ombrek
