#include "report/trace_plot.h"

#include <algorithm>
#include <cmath>

namespace ombrek {
namespace {

constexpr int kStretches = 1200;
constexpr std::size_t kLabels = 8;

PlotData::Series curveOf(const std::vector<TracePoint>& points, double low, double high) {
    PlotData::Series out;
    auto at = std::lower_bound(points.begin(), points.end(), low,
                               [](const TracePoint& p, double f) { return p.hertz < f; });
    const auto end =
        std::upper_bound(at, points.end(), high, [](double f, const TracePoint& p) { return f < p.hertz; });
    const auto count = std::size_t(end - at);
    const std::size_t step = std::max<std::size_t>(1, (count + kStretches - 1) / kStretches);
    while (at < end) {
        const auto next = std::size_t(end - at) > step ? at + std::ptrdiff_t(step) : end;
        const auto highest =
            std::max_element(at, next, [](const auto& a, const auto& b) { return a.level < b.level; });
        out.x.push_back(highest->hertz / 1e6);
        out.y.push_back(highest->level);
        at = next;
    }
    return out;
}

/// Words that would run into each other go up, from left to right.
void spreadOut(PlotData& out) {
    const double wide = out.xHigh - out.xLow, step = 0.055 * (out.yHigh - out.yLow);
    std::sort(out.labels.begin(), out.labels.end(), [](const auto& a, const auto& b) { return a.x < b.x; });
    const auto reach = [&](const PlotData::Label& l) { return 0.011 * wide * double(l.word.size()); };
    for (std::size_t i = 1; i < out.labels.size(); ++i) {
        for (std::size_t tries = 0, j = 0; j < i && tries < 8; ++j) {
            PlotData::Label &a = out.labels[j], &b = out.labels[i];
            const bool beside = std::abs(a.x - b.x) > (reach(a) + reach(b)) / 1.6;
            if (beside || std::abs(a.y - b.y) >= step) continue;
            b.y = a.y + step;
            j = std::size_t(-1);  // from the first again
            ++tries;
        }
    }
}

/// The highest peaks in view by their names, and the one in hand.
void addLabels(const Spectrum& s, double low, double high, int inHand, PlotData& out) {
    std::vector<std::pair<double, int>> all;
    for (int i = 0; i < int(s.peaks.size()); ++i) {
        const TracePeak& p = s.peaks[std::size_t(i)];
        if (p.hertz >= low && p.hertz <= high) all.emplace_back(i == inHand ? 1e9 : p.level, i);
    }
    std::sort(all.rbegin(), all.rend());
    if (all.size() > kLabels) all.resize(kLabels);
    for (const auto& [level, i] : all) {
        const TracePeak& p = s.peaks[std::size_t(i)];
        const QString name = QString::fromStdString(p.name);
        out.labels.push_back({p.hertz / 1e6, p.level + 1,
                              p.seen ? name : QStringLiteral("%1 not seen").arg(name), i == inHand});
    }
    if (s.carrier.hertz >= low && s.carrier.hertz <= high)
        out.labels.push_back({s.carrier.hertz / 1e6, s.carrier.level + 1, QStringLiteral("carrier"), false});
    spreadOut(out);
}

}  // namespace

PlotData tracePlot(const std::vector<TracePoint>& points, const Spectrum& s, double low, double high,
                   int inHand) {
    PlotData out;
    out.title = QStringLiteral("What leaves the antenna socket");
    out.xLabel = QStringLiteral("[MHz]");
    out.yLabel = QStringLiteral("[dB]");
    out.xLow = low / 1e6;
    out.xHigh = high / 1e6;
    PlotData::Series curve = curveOf(points, low, high);
    double least = s.floor, most = s.carrier.level;
    for (const double y : curve.y) {
        least = std::isnan(least) ? y : std::min(least, y);
        most = std::max(most, y);
    }
    out.yLow = std::max(least - 5, most - 140);
    out.yHigh = most + 12;
    out.series.push_back(std::move(curve));
    const double required = s.peaks.empty() ? NAN : s.peaks.front().required;
    if (std::isfinite(required))
        out.marks.push_back({false, s.carrier.level - required,
                             QStringLiteral("limit, %1 dB below").arg(qRound(required)), false});
    addLabels(s, low, high, inHand, out);
    return out;
}

}  // namespace ombrek
