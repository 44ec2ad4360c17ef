#include "look/plot.h"

#include <qcustomplot.h>

#include <QBuffer>
#include <QEvent>
#include <QSvgGenerator>
#include <QVBoxLayout>

namespace ombrek {
namespace {

QVector<double> vectorOf(const std::vector<double>& values) { return {values.begin(), values.end()}; }

void styleAxis(QCPAxis* axis, const QString& label, const Colours& c, int pixels) {
    axis->setLabel(label);
    axis->setLabelFont(benchFont(pixels));
    axis->setTickLabelFont(benchFont(pixels));
    axis->setLabelColor(c.soft);
    axis->setTickLabelColor(c.soft);
    axis->setBasePen(QPen(c.line, 1));
    axis->setTickPen(QPen(c.line, 1));
    axis->setSubTickPen(Qt::NoPen);
    axis->grid()->setPen(QPen(c.line, 1, Qt::DotLine));
    axis->grid()->setZeroLinePen(QPen(c.line, 1));
}

/// @param floor  where stems stand
void addSeries(QCustomPlot& plot, const PlotData::Series& series, double floor, const Colours& c) {
    if (series.kind == PlotData::Kind::stems) {
        for (std::size_t i = 0; i < series.x.size(); ++i) {
            QCPGraph* stem = plot.addGraph();
            stem->setPen(QPen(c.pass, 7, Qt::SolidLine, Qt::FlatCap));
            stem->setData({series.x[i], series.x[i]}, {floor, series.y[i]});
        }
        return;
    }
    if (series.kind == PlotData::Kind::band) {
        QCPGraph *top = plot.addGraph(), *foot = plot.addGraph();
        top->setData(vectorOf(series.x), vectorOf(series.y));
        foot->setData(vectorOf(series.x), vectorOf(series.below));
        QColor tint = c.copper;
        tint.setAlpha(56);
        for (QCPGraph* edge : {top, foot}) edge->setPen(Qt::NoPen);
        top->setBrush(tint);
        top->setChannelFillGraph(foot);
        return;
    }
    QCPGraph* graph = plot.addGraph();
    if (series.kind == PlotData::Kind::dots) {
        graph->setLineStyle(QCPGraph::lsNone);
        graph->setScatterStyle(
            QCPScatterStyle(QCPScatterStyle::ssCircle, QPen(c.ink, 2), QBrush(c.card), 10));
    } else {
        graph->setPen(series.limit   ? QPen(c.fail, 3)
                      : series.quiet ? QPen(c.soft, 1.5)
                                     : QPen(c.copper, 2.5));
    }
    graph->setData(vectorOf(series.x), vectorOf(series.y));
}

/// How many words of marks before it lie at the height of a mark's own [lines]: so much lower it stands.
int linesBelow(const PlotData& data, const PlotData::Mark& mark) {
    constexpr double kWord = 0.25;  // of the width; what a word takes
    int lines = 0;
    for (const auto& other : data.marks) {
        if (&other == &mark) break;
        lines += other.vertical && std::fabs(other.at - mark.at) < kWord * (data.xHigh - data.xLow);
    }
    return lines;
}

void addMark(QCustomPlot& plot, const PlotData::Mark& mark, const PlotData& data, const Colours& c) {
    const QColor colour = mark.accent ? c.copper : c.fail;
    auto* line = new QCPItemLine(&plot);
    line->setPen(QPen(colour, 2, Qt::DashLine));
    if (mark.vertical) {
        line->start->setCoords(mark.at, data.yLow);
        line->end->setCoords(mark.at, data.yHigh);
    } else {
        line->start->setCoords(data.xLow, mark.at);
        line->end->setCoords(data.xHigh, mark.at);
    }
    auto* text = new QCPItemText(&plot);
    text->setText(mark.word);
    text->setFont(benchFont(14));
    text->setColor(colour);
    text->setPadding(QMargins(6, 2, 6, 2));
    const bool rightHalf = mark.at > (data.xLow + data.xHigh) / 2;
    if (mark.vertical) {
        text->setPositionAlignment((rightHalf ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignTop);
        text->position->setCoords(mark.at, data.yHigh);
        text->setPadding(QMargins(6, 2 + withText(18) * linesBelow(data, mark), 6, 2));
    } else {
        text->setPositionAlignment(Qt::AlignRight | Qt::AlignBottom);
        text->position->setCoords(data.xHigh, mark.at);
    }
}

void addLabel(QCustomPlot& plot, const PlotData::Label& label, const PlotData& data, const Colours& c) {
    auto* text = new QCPItemText(&plot);
    text->setText(label.word);
    text->setFont(benchFont(13));
    text->setColor(label.accent ? c.copper : c.ink);
    text->setPadding(QMargins(4, 1, 4, 1));
    const double part = (label.x - data.xLow) / (data.xHigh - data.xLow);
    const auto side = part < 0.08 ? Qt::AlignLeft : part > 0.9 ? Qt::AlignRight : Qt::AlignHCenter;
    text->setPositionAlignment(side | Qt::AlignBottom);
    text->position->setCoords(label.x, label.y);
}

void fill(QCustomPlot& plot, const PlotData& data, const Colours& c, const QColor& background) {
    plot.clearPlottables();
    plot.clearItems();
    plot.setBackground(background);
    plot.axisRect()->setBackground(background);
    styleAxis(plot.xAxis, data.xLabel, c, 14);
    styleAxis(plot.yAxis, data.yLabel, c, 14);
    plot.xAxis->setRange(data.xLow, data.xHigh);
    plot.yAxis->setRange(data.yLow, data.yHigh);
    if (!data.xTicks.empty()) {
        auto ticker = QSharedPointer<QCPAxisTickerText>::create();
        for (const auto& [at, word] : data.xTicks) ticker->addTick(at, word);
        plot.xAxis->setTicker(ticker);
    }
    for (const auto& series : data.series) addSeries(plot, series, data.yLow, c);
    for (const auto& mark : data.marks) addMark(plot, mark, data, c);
    for (const auto& label : data.labels) addLabel(plot, label, data, c);
}

}  // namespace

Plot::Plot(QWidget* parent) : QWidget(parent), plot_(new QCustomPlot(this)) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(plot_);
    plot_->setObjectName(QStringLiteral("plot"));
    plot_->setFocusPolicy(Qt::NoFocus);
    plot_->setAttribute(Qt::WA_TransparentForMouseEvents);
}

void Plot::show(const PlotData& data) {
    data_ = data;
    auto& plot = static_cast<QCustomPlot&>(*plot_);
    const Colours& c = coloursOf(*this);
    fill(plot, data_, c, c.card);
    plot.replot(QCustomPlot::rpQueuedReplot);
    setAccessibleName(data.title);
}

void Plot::changeEvent(QEvent* event) {
    if (event->type() == QEvent::PaletteChange) show(PlotData(data_));
    QWidget::changeEvent(event);
}

QByteArray plotSvg(const PlotData& data, QSize size) {
    QCustomPlot plot;
    plot.setGeometry(0, 0, size.width(), size.height());
    fill(plot, data, dayBench(), Qt::white);
    QByteArray bytes;
    QBuffer buffer(&bytes);
    QSvgGenerator generator;
    generator.setOutputDevice(&buffer);
    generator.setSize(size);
    generator.setViewBox(QRect(QPoint(0, 0), size));
    generator.setTitle(data.title);
    QCPPainter painter;
    painter.begin(&generator);
    plot.toPainter(&painter, size.width(), size.height());
    painter.end();
    return bytes;
}

}  // namespace ombrek
