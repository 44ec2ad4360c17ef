#pragma once

#include <QByteArray>
#include <QString>
#include <QWidget>
#include <limits>
#include <vector>

#include "look/colours.h"

namespace ombrek {

/// What a plot shows, without any drawing.
struct PlotData {
    enum class Kind { line, dots, stems, band };
    struct Series {
        Kind kind = Kind::line;
        std::vector<double> x, y;
        std::vector<double> below{};  ///< of a band: its other edge
        bool quiet = false;           ///< a thinner line: what was, beside what is
        bool limit = false;           ///< in the limit's colour
    };
    /// A straight line across the whole plot with a word beside it.
    struct Mark {
        bool vertical = false;
        double at = 0;
        QString word;
        bool accent = false;  ///< copper; otherwise the limit's colour
    };
    /// A word at a point.
    struct Label {
        double x = 0, y = 0;
        QString word;
        bool accent = false;
    };
    QString title, xLabel, yLabel;
    double xLow = 0, xHigh = 1, yLow = 0, yHigh = 1;
    std::vector<Series> series;
    std::vector<Mark> marks;
    std::vector<Label> labels;
    std::vector<std::pair<double, QString>> xTicks;  ///< own words on the x axis; empty: numbers
};

/// A plot in the window, in the bench's colours. QCustomPlot stays inside plot.cpp: its header is heavy.
class Plot : public QWidget {
 public:
    explicit Plot(QWidget* parent = nullptr);
    /// Curves, marks and limits, drawn anew.
    void show(const PlotData& data);

 protected:
    void changeEvent(QEvent* event) override;

 private:
    QWidget* plot_;
    PlotData data_;
};

/// The same plot as SVG on white, for reports. Needs a QApplication.
QByteArray plotSvg(const PlotData& data, QSize size);

}  // namespace ombrek
