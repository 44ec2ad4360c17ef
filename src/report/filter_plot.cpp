#include "report/filter_plot.h"

#include <algorithm>
#include <cmath>

#include "core/circuit/network.h"

namespace ombrek {
namespace {

constexpr double kDeepest = -90;

PlotData::Series curveOf(const std::vector<LadderElement>& filter, const FilterQuestion& q, double low,
                         double high) {
    PlotData::Series out;
    const auto frequencies = frequenciesFrom(low, high, 400);
    const LadderSweep s = sweep(filter, frequencies, q.source, q.load);
    for (std::size_t i = 0; i < frequencies.size(); ++i) {
        out.x.push_back(frequencies[i] / 1e6);
        out.y.push_back(std::max(-s.loss(i), kDeepest));
    }
    return out;
}

}  // namespace

PlotData filterPlot(const std::vector<FilterPart>& built, const FilterQuestion& q, const FilterBand& band,
                    const std::vector<LadderElement>& bent, const std::vector<FilterPoint>& measured) {
    PlotData out;
    const double low = q.carrier / 5, high = q.carrier * (std::max(2, q.harmonics) + 0.6);
    out.title = QStringLiteral("What the filter lets through");
    out.xLabel = QStringLiteral("[MHz]");
    out.yLabel = QStringLiteral("[dB]");
    out.xLow = low / 1e6;
    out.xHigh = high / 1e6;
    out.yLow = kDeepest;
    out.yHigh = 5;
    if (!band.frequencies.empty() && !band.low.empty()) {
        PlotData::Series most{PlotData::Kind::band, {}, {}, {}};
        for (std::size_t i = 0; i < band.frequencies.size(); ++i) {
            most.x.push_back(band.frequencies[i] / 1e6);
            most.y.push_back(std::max(-band.low[i], kDeepest));
            most.below.push_back(std::max(-band.high[i], kDeepest));
        }
        out.series.push_back(most);
    }
    auto now = curveOf(elementsOf(built), q, low, high);
    if (!bent.empty()) {
        now.quiet = true;
        out.series.push_back(now);
        out.series.push_back(curveOf(bent, q, low, high));
    } else {
        out.series.push_back(now);
    }
    if (!measured.empty()) {
        PlotData::Series dots{PlotData::Kind::dots, {}, {}, {}};
        const std::size_t step = std::max<std::size_t>(1, measured.size() / 60);
        for (std::size_t i = 0; i < measured.size(); i += step) {
            dots.x.push_back(measured[i].frequency / 1e6);
            dots.y.push_back(std::max(20 * std::log10(std::max(measured[i].through, 1e-9)), kDeepest));
        }
        out.series.push_back(dots);
    }
    out.marks.push_back({true, q.carrier / 1e6, QStringLiteral("carrier"), true});
    for (int order = 2; order <= std::max(2, q.harmonics); ++order) {
        // Where the filter must be for this harmonic of these finals.
        const double wanted = -(q.required - q.before(order));
        PlotData::Series need{PlotData::Kind::line, {}, {}, {}};
        need.limit = true;
        const double at = order * q.carrier / 1e6, wide = 0.14 * q.carrier / 1e6;
        need.x = {at - wide, at + wide};
        need.y = {wanted, wanted};
        out.series.push_back(need);
        out.xTicks.emplace_back(at, QString::fromStdString(decimals(at, 2)));
    }
    out.xTicks.emplace_back(q.carrier / 1e6, QString::fromStdString(decimals(q.carrier / 1e6, 2)));
    return out;
}

}  // namespace ombrek
