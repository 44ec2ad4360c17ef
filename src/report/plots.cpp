#include "report/plots.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "station/tune.h"

namespace ombrek {
namespace {

QString qs(const std::string& text) { return QString::fromStdString(text); }

/// Readings in the prefix that suits them, with the axis' word.
struct Scaled {
    double factor = 1;
    QString unit;
};

Scaled scaleFor(double value, Unit unit) {
    const SplitText split = splitQuantity(value, unit, 3);
    const auto number = parseQuantity(split.number);
    const double shown = number ? number->value : 0;
    return {shown != 0 ? std::pow(10.0, 3 * std::round(std::log10(std::fabs(shown / value)) / 3)) : 1,
            qs(split.unit)};
}

/// Readings of a setting joined in the order of their positions.
PlotData::Series joinedUp(const PlotData::Series& dots) {
    std::map<double, double> byPosition;
    for (std::size_t i = 0; i < dots.x.size(); ++i) byPosition[dots.x[i]] = dots.y[i];
    PlotData::Series line;
    for (const auto& [x, y] : byPosition) {
        line.x.push_back(x);
        line.y.push_back(y);
    }
    return line;
}

double highestOf(const TuneState& state, Unit unit) {
    return unit == Unit::watt ? state.peak->reading * state.peak->reading : state.peak->reading;
}

/// The resonance that was fitted to the readings.
PlotData::Series fittedCurve(const TuneState& state, Unit unit, double factor) {
    PlotData::Series line;
    if (!state.peak) return line;
    for (int i = 0; i <= 400; ++i) {
        const double amplitude = responseAt(*state.peak, i / 400.0);
        line.x.push_back(i / 4.0);
        line.y.push_back(factor * (unit == Unit::watt ? amplitude * amplitude : amplitude));
    }
    return line;
}

}  // namespace

PlotData tunePlot(const Judged& judged, const Adjustment& adjustment) {
    const TuneState& state = judged.tune(adjustment);
    PlotData out;
    out.title = qs(adjustment.title);
    out.xLabel = QStringLiteral("travel of %1, least to most [%]").arg(qs(adjustment.adjuster));
    out.xLow = 0;
    out.xHigh = 100;
    PlotData::Series dots{PlotData::Kind::dots, {}, {}};
    double low = 1e300, high = -1e300;
    for (const auto& r : state.readings) {
        low = std::min(low, r.reading);
        high = std::max(high, r.reading);
    }
    const bool set = adjustment.kind == Adjustment::Kind::set;
    if (set) {
        low = std::min(low, adjustment.target - 2 * adjustment.tolerance);
        high = std::max(high, adjustment.target + 2 * adjustment.tolerance);
    } else {
        low = 0;
        high = std::max(high, state.peak ? highestOf(state, adjustment.unit) : 0.0) * 1.2;
    }
    if (!(high > low)) high = low + 1;
    const Scaled scale = set && adjustment.unit == Unit::hertz
                             ? Scaled{1e-3, QStringLiteral("kHz from target")}
                             : scaleFor(high, adjustment.unit);
    const double zero = set && adjustment.unit == Unit::hertz ? adjustment.target : 0.0;
    const auto shown = [&](double reading) { return (reading - zero) * scale.factor; };
    for (const auto& r : state.readings) {
        dots.x.push_back(r.position * 100);
        dots.y.push_back(shown(r.reading));
    }
    const double margin = set ? (high - low) * 0.08 : 0.0;
    out.yLow = shown(low - margin);
    out.yHigh = shown(high + margin);
    out.yLabel = QStringLiteral("[%1]").arg(scale.unit);
    out.series = {set ? joinedUp(dots) : fittedCurve(state, adjustment.unit, scale.factor), dots};
    if (state.bestPosition >= 0 && state.bestPosition <= 1 && state.readings.size() >= 2) {
        out.marks.push_back({true, state.bestPosition * 100, QStringLiteral("best"), true});
    }
    if (set) out.marks.push_back({false, shown(adjustment.target), QStringLiteral("wanted"), true});
    return out;
}

PlotData spectrumPlot(const Kit& kit, const Build& build, const ProofState& proof,
                      const LimitProfile& profile) {
    const double f = kit.ratings.frequency, last = f * (kit.ratings.harmonics + 0.6);
    PlotData out;
    out.title = QStringLiteral("Harmonics below the fundamental");
    out.xLabel = QStringLiteral("[MHz]");
    out.yLabel = QStringLiteral("dB against the fundamental");
    out.xLow = 0;
    out.xHigh = last / 1e6;
    out.yLow = -90;
    out.yHigh = 5;
    PlotData::Series stems{PlotData::Kind::stems, {f / 1e6}, {0.0}};
    for (const Harmonic& h : proof.harmonics) {
        stems.x.push_back(h.order * f / 1e6);
        stems.y.push_back(-h.below);
    }
    PlotData::Series filter;
    if (const auto ladder = lowPassAsBuilt(kit, build); !ladder.empty()) {
        const double reference = insertionLoss(ladder, f, kit.ratings.ohms);
        for (double at = last / 300; at <= last; at += last / 300) {
            filter.x.push_back(at / 1e6);
            filter.y.push_back(reference - insertionLoss(ladder, at, kit.ratings.ohms));
        }
    }
    out.series = {filter, stems};
    out.marks.push_back({false, -proof.required, QStringLiteral("limit: %1").arg(qs(profile.name)), false});
    constexpr int kMost = 5;  // more figures under the axis would run into each other
    const int each = 1 + (kit.ratings.harmonics - 1) / kMost;
    for (int order = 1; order <= kit.ratings.harmonics; order += each) {
        out.xTicks.emplace_back(order * f / 1e6, QString::fromStdString(decimals(order * f / 1e6, 2)));
    }
    return out;
}

}  // namespace ombrek
