#include "report/plots.h"

#include <algorithm>
#include <cmath>

#include "kit/tune.h"

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
    const double shown = std::strtod(split.number.c_str(), nullptr);
    return {shown != 0 ? std::pow(10.0, 3 * std::round(std::log10(std::fabs(shown / value)) / 3)) : 1, qs(split.unit)};
}

}  // namespace

PlotData tunePlot(const Kit& kit, const Adjustment& adjustment, const Build& build) {
    const TuneState state = tuneState(kit, adjustment, build);
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
        high = std::max(high, 0.0) * 1.2;
    }
    if (!(high > low)) high = low + 1;
    const Scaled scale = set && adjustment.unit == Unit::hertz ? Scaled{1e-3, QStringLiteral("kHz from target")}
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
    PlotData::Series line{PlotData::Kind::line, dots.x, dots.y};
    out.series = {line, dots};
    if (state.bestPosition >= 0 && state.bestPosition <= 1 && state.readings.size() >= 2) {
        out.marks.push_back({true, state.bestPosition * 100, QStringLiteral("best"), true});
    }
    if (set) out.marks.push_back({false, shown(adjustment.target), QStringLiteral("wanted"), true});
    return out;
}

PlotData harmonicsPlot(const Kit& kit, const ProofState& proof, const LimitProfile& profile) {
    PlotData out;
    out.title = QStringLiteral("Harmonics below the fundamental");
    out.yLabel = QStringLiteral("dB below the fundamental");
    out.xLow = 1.4;
    out.xHigh = kit.ratings.harmonics + 0.6;
    out.yLow = 0;
    out.yHigh = 80;
    PlotData::Series bars{PlotData::Kind::bars, {}, {}};
    for (const Harmonic& h : proof.harmonics) {
        bars.x.push_back(h.order);
        bars.y.push_back(h.below);
    }
    for (int order = 2; order <= kit.ratings.harmonics; ++order) {
        out.xTicks.emplace_back(order, QStringLiteral("harmonic %1\n%2").arg(order).arg(
                                           qs(formatQuantity(order * kit.ratings.frequency, Unit::hertz, 4))));
    }
    out.series = {bars};
    out.marks.push_back({false, proof.required,
                         QStringLiteral("at least %1: %2").arg(qs(formatQuantity(proof.required, Unit::decibel, 3)), qs(profile.name)),
                         false});
    return out;
}

}  // namespace ombrek
