#include "report/report.h"

#include <QAbstractTextDocumentLayout>
#include <QImage>
#include <QPainter>
#include <QSvgRenderer>
#include <QTextBlock>
#include <QTextCursor>
#include <QTextDocument>
#include <QTextTable>
#include <algorithm>

#include "judged/repair.h"
#include "report/filter_plot.h"
#include "report/plots.h"
#include "report/report_html.h"
#include "report/report_sections.h"
#include "report/report_summary.h"
#include "station/proof/filter.h"
#include "station/proof/frequencies.h"
#include "station/proof/power_table.h"

namespace ombrek {
namespace {

constexpr QSize kPlotSize(600, 240);

/// A plot goes into the report under its heading.
void addPlot(Report& report, const QString& heading, const PlotData& data) {
    report.html +=
        QStringLiteral("<h3>%1</h3><p><img src=\"plot:%2\" width=\"%3\" height=\"%4\" alt=\"%1\"></p>")
            .arg(heading)
            .arg(report.plots.size())
            .arg(kPlotSize.width())
            .arg(kPlotSize.height());
    report.plots.push_back(plotSvg(data, kPlotSize));
}

void addProofPlots(const Judged& judged, Report& out) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    const PowerTable powers = powerTable(kit, build);
    for (std::size_t b = 0; b < powers.bands.size(); ++b) {
        const std::string& band = powers.bands[b];
        const QString on = band.empty() ? QString() : QStringLiteral(", ") + esc(band);
        const ProofState& proof = judged.proof(band);
        if (const auto n = std::count_if(powers.cells[b].begin(), powers.cells[b].end(),
                                         [](const PowerCell& c) { return c.reading.has_value(); });
            n >= 2)
            addPlot(out, QStringLiteral("Power against supply") + on,
                    supplyPlot(powers, b, kit.ratings.on(band)));
        if (proof.harmonics.empty()) continue;
        addPlot(out, QStringLiteral("Harmonics and limit") + on,
                spectrumPlot(kit, build, proof, judged.profile(), band));
        const auto filter = filterAsBuilt(kit, build, band);
        if (filter.empty()) continue;
        const double watts = proof.power ? proof.power->watts : 0;
        addPlot(out, QStringLiteral("Low-pass as built") + on,
                filterPlot(filter, filterQuestion(kit, build, judged.profile(), watts, band), {}, {}, {}));
    }
}

void addTunePlots(const Judged& judged, Report& out) {
    for (const Adjustment& a : judged.kit().adjustments) {
        const TuneState& state = judged.tune(a);
        if (state.readings.size() < 3) continue;
        addPlot(out, esc(a.title) + QStringLiteral(": ") + mark(state.state), tunePlot(judged, a));
        out.html += QStringLiteral("<p>%1 %2</p>").arg(esc(state.sentence), esc(state.remedy));
    }
}

void addPhotos(const Judged& judged, const ReportWords& words, Report& out) {
    if (words.photos.empty()) return;
    out.html += QStringLiteral("<h2>Photographs</h2>");
    for (const auto& [line, jpeg] : words.photos) {
        const Step* step = judged.kit().step(line.step);
        const Repair* repair = repairOf(judged.build(), line);
        const QString what =
            QStringLiteral("%1, %2, %3")
                .arg(step != nullptr     ? esc(step->title)
                     : repair != nullptr ? QStringLiteral("Repair of ") + esc(repair->ref)
                                         : esc(line.step),
                     line.after ? QStringLiteral("after") : QStringLiteral("before"), dayOf(line.at));
        QImage image;
        if (jpeg.isEmpty() || !image.loadFromData(jpeg)) {
            out.html += QStringLiteral("<p>%1: this photograph is not in the book any more.</p>").arg(what);
            continue;
        }
        constexpr int kWide = 420, kHigh = 320;
        const QSize size = image.size().scaled(kWide, kHigh, Qt::KeepAspectRatio);
        out.html +=
            QStringLiteral("<p><img src=\"photo:%1\" width=\"%2\" height=\"%3\" alt=\"%4\"><br>%4</p>")
                .arg(out.photos.size())
                .arg(size.width())
                .arg(size.height())
                .arg(what);
        out.photos.push_back(jpeg);
    }
}

}  // namespace

Report makeReport(const Judged& judged, const ReportWords& words) {
    Report out;
    out.title = QString::fromStdString(judged.kit().name);
    out.html = reportSummary(judged, words) +
               QStringLiteral("<div style=\"page-break-before: always\"></div>") +
               reportSections(judged, words);
    addProofPlots(judged, out);
    if (const auto points = dialPointsOf(judged.build()); points.size() >= 3)
        addPlot(out, QStringLiteral("Dial"), dialPlot(points));
    addTunePlots(judged, out);
    addPhotos(judged, words, out);
    return out;
}

QByteArray reportAsHtml(const Report& report) {
    QString body = report.html;
    for (std::size_t i = 0; i < report.plots.size(); ++i) {
        body.replace(QStringLiteral("\"plot:%1\"").arg(i),
                     QStringLiteral("\"data:image/svg+xml;base64,%1\"")
                         .arg(QString::fromLatin1(report.plots[i].toBase64())));
    }
    for (std::size_t i = 0; i < report.photos.size(); ++i) {
        body.replace(QStringLiteral("\"photo:%1\"").arg(i),
                     QStringLiteral("\"data:image/jpeg;base64,%1\"")
                         .arg(QString::fromLatin1(report.photos[i].toBase64())));
    }
    return QStringLiteral(
               "<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>%1</title><style>"
               "body{font-family:Ombrek "
               "Readout,B612,sans-serif;color:#1C2529;background:#fff;max-width:52em;margin:2em "
               "auto;padding:0 1em}"
               "table{border-collapse:collapse}td,th{border-bottom:1px solid "
               "#DCD5C7;text-align:left;vertical-align:top}img{max-width:100%}"
               "@media print{body{margin:0;max-width:none}tr,img{break-inside:avoid}}"
               "</style></head><body>%2</body></html>\n")
        .arg(report.title.toHtmlEscaped(), body)
        .toUtf8();
}

namespace {

QImage rendered(const QByteArray& svg) {
    constexpr int scale = 3;
    QImage image(kPlotSize * scale, QImage::Format_RGB32);
    image.fill(Qt::white);
    QSvgRenderer renderer(svg);
    QPainter painter(&image);
    renderer.render(&painter);
    return image;
}

}  // namespace

namespace {

/// What of a printed document stands on one page goes to the next one whole, from its top to its foot: each
/// change moves what is below it.
class PageKeeper {
 public:
    explicit PageKeeper(QTextDocument& document) : document_(document), high_(document.pageSize().height()) {
        (void)document.pageCount();  // laid out whole: what is changed before that is lost behind it
    }

    void keep() {
        for (QTextBlock block = document_.begin(); block.isValid(); block = block.next()) {
            if (QTextTable* table = QTextCursor(block).currentTable())
                keepRow(*table, block);
            else if (block.blockFormat().headingLevel() >= 2)
                keepHeading(block);
        }
    }

 private:
    QRectF place(const QTextBlock& block) const {
        return document_.documentLayout()->blockBoundingRect(block);
    }
    int pageAt(double y) const { return int(y / high_); }

    /// A heading with what it is the heading of; of a table its head and a row.
    void keepHeading(const QTextBlock& block) {
        const QTextBlock next = block.next();
        if (!next.isValid()) return;
        constexpr double kRoom = 40;
        const bool table = QTextCursor(next).currentTable() != nullptr;
        if (pageAt(place(block).top()) == pageAt(place(next).bottom() + (table ? kRoom : 0))) return;
        QTextBlockFormat format = block.blockFormat();
        format.setPageBreakPolicy(QTextFormat::PageBreak_AlwaysBefore);
        QTextCursor(block).setBlockFormat(format);
    }

    /// A row of a table, told by the first block of its first cell: room above it pushes it over the foot.
    void keepRow(QTextTable& table, const QTextBlock& block) {
        const QTextTableCell first = table.cellAt(block.position());
        if (first.column() != 0 || first.row() == 0 || first.firstCursorPosition().block() != block) return;
        const double top = place(block).top();
        double bottom = top;
        for (int c = 0; c < table.columns(); ++c)
            bottom =
                std::max(bottom, place(table.cellAt(first.row(), c).lastCursorPosition().block()).bottom());
        if (pageAt(top) == pageAt(bottom) || bottom - top > high_ / 2) return;
        const double room = (pageAt(top) + 1) * high_ - top + 1;
        for (int c = 0; c < table.columns(); ++c) {
            QTextTableCell cell = table.cellAt(first.row(), c);
            QTextTableCellFormat format = cell.format().toTableCellFormat();
            format.setTopPadding(table.format().cellPadding() + room);
            cell.setFormat(format);
        }
    }

    QTextDocument& document_;
    double high_;
};

}  // namespace

A4Sheet reportSheet(const Report& report) {
    A4Sheet out{
        report.title, 16, 96, [report](QPagedPaintDevice& writer) {
            QTextDocument document;
            QFont font(QStringLiteral("Ombrek Readout"));
            font.setPointSizeF(8.5);
            document.setDefaultFont(font);
            document.setDefaultStyleSheet(
                QStringLiteral("th { color: #59646A; } h1 { font-size: 20pt; } h2 { font-size: 13pt; }"));
            for (std::size_t i = 0; i < report.plots.size(); ++i) {
                document.addResource(QTextDocument::ImageResource, QUrl(QStringLiteral("plot:%1").arg(i)),
                                     rendered(report.plots[i]));
            }
            for (std::size_t i = 0; i < report.photos.size(); ++i) {
                document.addResource(QTextDocument::ImageResource, QUrl(QStringLiteral("photo:%1").arg(i)),
                                     QImage::fromData(report.photos[i]));
            }
            document.setHtml(report.html);
            document.setPageSize(QSizeF(writer.width(), writer.height()));
            PageKeeper(document).keep();
            document.print(&writer);
        }};
    out.forArchive = true;
    return out;
}

}  // namespace ombrek
