#include "report/build_sheet.h"

#include <QBuffer>
#include <QPainter>
#include <QPdfWriter>
#include <QTextDocument>
#include <algorithm>
#include <cmath>

#include "report/board_drawing.h"

namespace ombrek {
namespace {

constexpr double kMargin = 36, kMapWidth = 150, kGap = 14;  ///< [points]

QString esc(const std::string& text) { return QString::fromStdString(text).toHtmlEscaped(); }

/// Ink on paper: what is a colour on the screen is black or grey here.
Colours paperColours() {
    Colours out = dayBench();
    out.copper = out.copperLight = out.ink = out.boardInk = out.fail = Qt::black;
    out.board = out.card = out.paper = Qt::white;
    out.soft = QColor(70, 70, 70);
    return out;
}

QString stepHtml(const Kit& kit, const Build& build, const Step& step, std::size_t number) {
    QString out = QStringLiteral("<p><b>%1 %2 %3</b>")
                      .arg(build.done(step.id) ? QStringLiteral("\u2611") : QStringLiteral("\u2610"))
                      .arg(number)
                      .arg(esc(step.title));
    QStringList parts;
    for (const std::string& ref : step.fits) {
        const Part* part = kit.part(ref);
        if (part == nullptr) continue;
        QString line = QStringLiteral("\u2610 %1 %2").arg(esc(ref), esc(part->value));
        if (!part->mark.empty()) line += QStringLiteral(" <i>%1</i>").arg(esc(part->mark));
        if (!part->orientation.empty()) line += QStringLiteral(", ") + esc(part->orientation);
        parts << line;
    }
    if (!parts.isEmpty()) out += QStringLiteral("<br>") + parts.join(QStringLiteral("<br>"));
    const auto line = [&](const char* word, const QString& text) {
        if (!text.isEmpty()) out += QStringLiteral("<br>%1%2").arg(QString::fromUtf8(word), text);
    };
    QStringList tools, keeps;
    for (const std::string& tool : step.tools) tools << esc(tool);
    for (const Step::Keep& keep : step.keeps)
        keeps << QStringLiteral("%1 %2").arg(keep.count).arg(esc(keep.what));
    line("Have ready: ", tools.join(QStringLiteral(", ")));
    line("Keep: ", keeps.join(QStringLiteral(", ")));
    line("Erratum: ", esc(step.erratum));
    line("", esc(step.note));
    line("<b>Caution:</b> ", esc(step.caution));
    for (const LookAhead& ahead : kit.lookAheads) {
        if (ahead.from == step.id) line("Look ahead: ", esc(ahead.say));
    }
    if (step.hold) line("<b>HOLD.</b> ", esc(step.hold->say));
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

}  // namespace

QByteArray buildSheetAsPdf(const Kit& kit, const Build& build, const std::vector<std::size_t>& order) {
    QByteArray out;
    QBuffer buffer(&out);
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter writer(&buffer);
    writer.setPageSize(QPageSize(QPageSize::A4));
    writer.setPageMargins(QMarginsF(0, 0, 0, 0));
    writer.setResolution(72);
    writer.setTitle(QString::fromStdString(kit.name) + QStringLiteral(", build sheet"));
    QPainter p(&writer);
    const Colours colours = paperColours();
    const double width = writer.width() - 2 * kMargin, foot = writer.height() - kMargin - 16;
    int page = 1;
    double y = kMargin;
    const auto footer = [&] {
        p.setFont(benchFont(9));
        p.setPen(Qt::black);
        p.drawText(QRectF(kMargin, writer.height() - kMargin, width, 14), Qt::AlignRight,
                   QStringLiteral("%1, page %2").arg(QString::fromStdString(kit.name)).arg(page));
    };
    p.setFont(benchFont(18, true));
    p.drawText(QRectF(kMargin, y, width, 26), Qt::AlignLeft,
               QString::fromStdString(kit.name) + QStringLiteral(", build sheet, ") +
                   QString::fromUtf8(school(build.order).name.data(), int(school(build.order).name.size())));
    y += 34;
    for (std::size_t i = 0; i < order.size(); ++i) {
        const Step& step = kit.steps[order[i]];
        const auto map = mapOf(kit, step);
        QTextDocument text;
        text.setDefaultFont(benchFont(10));
        text.setDocumentMargin(0);
        text.setTextWidth(map ? width - kMapWidth - kGap : width);
        text.setHtml(stepHtml(kit, build, step, i + 1));
        const double height = std::max(text.size().height(), map ? 96.0 : 0.0);
        if (y + height > foot && y > kMargin + 40) {
            footer();
            writer.newPage();
            ++page;
            y = kMargin;
        }
        p.save();
        p.translate(kMargin, y);
        text.drawContents(&p);
        p.restore();
        if (map) map->paint(p, QRectF(kMargin + width - kMapWidth, y, kMapWidth, 92), colours);
        if (step.hold) {
            p.setPen(QPen(Qt::black, 1.6));
            p.setBrush(Qt::NoBrush);
            p.drawRect(QRectF(kMargin - 6, y - 3, width + 12, height + 6));
        }
        y += height + 12;
    }
    footer();
    p.end();
    return out;
}

}  // namespace ombrek
