#include "report/plots.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/proof/power.h"
#include "look/qs.h"
#include "station/rests_on.h"
#include "station/tune/tune.h"
#include "station/tune/tune_rounds.h"

namespace ombrek {
namespace {

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

/// Where it was looked at, and whether it was seen there.
PlotData lookedAt(const TuneState& state, PlotData out) {
    PlotData::Series dots{PlotData::Kind::dots, {}, {}};
    for (const AdjusterReading& r : state.readings) {
        dots.x.push_back(r.position * 100);
        dots.y.push_back(r.reading > 0.5 ? 1 : 0);
    }
    out.yLow = -0.5;
    out.yHigh = 1.5;
    out.series = {dots};
    out.marks = {{false, 1, QStringLiteral("seen"), true}, {false, 0, QStringLiteral("not seen"), true}};
    return out;
}

/// What is left of nulls that pull each other, reading by reading, with where each round begins.
PlotData nullRounds(const Judged& judged, const std::vector<const Adjustment*>& together) {
    PlotData out;
    out.xLabel = QStringLiteral("readings, in order");
    out.yLabel = QStringLiteral("what is left [dB against the first]");
    std::vector<Reading> all;
    for (const Adjustment* a : together) {
        for (const Reading& r : judged.build().all(Subject::adjustment(a->id))) {
            const bool counts = r.unit == a->unit && r.id > judged.build().changedAfter(r.subject);
            if (counts) all.push_back(r);
        }
    }
    std::sort(all.begin(), all.end(), [](const Reading& a, const Reading& b) { return a.id < b.id; });
    PlotData::Series line, dots{PlotData::Kind::dots, {}, {}};
    const auto decibels = [](const Reading& r) {
        const bool already = r.unit == Unit::decibel || r.unit == Unit::dbm;
        return already ? r.value
                       : (r.unit == Unit::watt ? 10 : 20) * std::log10(std::max(std::fabs(r.value), 1e-12));
    };
    double low = 0, high = 0;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const double y = decibels(all[i]) - decibels(all.front());
        line.x.push_back(double(i + 1));
        line.y.push_back(y);
        low = std::min(low, y);
        high = std::max(high, y);
    }
    dots.x = line.x;
    dots.y = line.y;
    out.xLow = 0;
    out.xHigh = std::max<double>(8, double(all.size()) + 1);
    out.yLow = low - 4;
    out.yHigh = high + 4;
    out.series = {line, dots};
    const int step = all.size() > 24 ? 5 : all.size() > 12 ? 2 : 1;
    for (int i = 1; i < int(out.xHigh); i += step) out.xTicks.emplace_back(i, QString::number(i));
    double at = 0.5;
    const auto rounds = roundsOf(judged.build(), together);
    for (std::size_t i = 0; i < rounds.size(); ++i) {
        out.marks.push_back({true, at, i == 0 ? QStringLiteral("round 1") : QString::number(i + 1), true});
        for (const RoundTurn& turn : rounds[i].turns) at += turn.readings;
    }
    if (!all.empty() && judged.tune(*together.front()).state == VerdictState::pass)
        out.marks.push_back({false, low, QStringLiteral("as low as it goes"), true});
    return out;
}

}  // namespace

PlotData tunePlot(const Judged& judged, const Adjustment& adjustment) {
    const TuneState& state = judged.tune(adjustment);
    const auto together = partnersOf(judged.kit(), adjustment);
    if (adjustment.kind == Adjustment::Kind::null && together.size() > 1 && state.heard.empty())
        return nullRounds(judged, together);
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
    if (adjustment.kind == Adjustment::Kind::contrast) return lookedAt(state, std::move(out));
    const bool set = adjustment.sets();
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
    if (adjustment.scale.kind != ReadingScale::Kind::number) out.yLabel = QStringLiteral("marks");
    out.series = {set ? joinedUp(dots) : fittedCurve(state, adjustment.unit, scale.factor), dots};
    const bool known =
        adjustment.kind != Adjustment::Kind::bias || (state.bias && !std::isnan(state.bias->first));
    if (known && state.bestPosition >= 0 && state.bestPosition <= 1 && state.readings.size() >= 2) {
        out.marks.push_back({true, state.bestPosition * 100, QStringLiteral("best"), true});
    }
    if (set) out.marks.push_back({false, shown(adjustment.target), QStringLiteral("wanted"), true});
    return out;
}

PlotData spectrumPlot(const Kit& kit, const Build& build, const ProofState& proof,
                      const LimitProfile& profile, const std::string& band) {
    const double f = kit.ratings.on(band).frequency, last = f * (kit.ratings.harmonics + 0.6);
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
    if (const auto ladder = lowPassAsBuilt(kit, build, band); !ladder.empty()) {
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

PlotData supplyPlot(const PowerTable& table, std::size_t band, const Ratings& rated) {
    PlotData out;
    out.title = QStringLiteral("Power against the supply");
    out.xLabel = QStringLiteral("supply [V]");
    out.yLabel = QStringLiteral("[W]");
    PlotData::Series dots{PlotData::Kind::dots, {}, {}}, square;
    double through = rated.power / std::pow(rated.supply, 2), most = rated.power;
    for (std::size_t s = 0; s < table.supplies.size(); ++s) {
        const PowerCell& cell = table.at(band, s);
        if (!cell.reading) continue;
        dots.x.push_back(cell.supply);
        dots.y.push_back(cell.power.watts);
        most = std::max(most, cell.power.watts);
        if (s == table.rated || dots.x.size() == 1) through = cell.power.watts / std::pow(cell.supply, 2);
    }
    out.xLow = std::min(8.0, table.supplies.front() - 1);
    out.xHigh = table.supplies.back() + 1;
    for (double v = out.xLow; v <= out.xHigh; v += (out.xHigh - out.xLow) / 60) {
        square.x.push_back(v);
        square.y.push_back(through * v * v);
    }
    out.yHigh = 1.4 * std::max(most, square.y.back());
    out.series = {square, dots};
    out.marks.push_back(
        {false, rated.power,
         QStringLiteral("promised at %1").arg(qs(formatQuantity(rated.supply, Unit::volt, 3))), true});
    return out;
}

PlotData dialPlot(const std::vector<DialPoint>& points) {
    PlotData out;
    out.title = QStringLiteral("Frequency over the dial");
    out.xLabel = QStringLiteral("position");
    out.yLabel = QStringLiteral("[MHz]");
    PlotData::Series dots{PlotData::Kind::dots, {}, {}};
    for (const DialPoint& p : points) {
        dots.x.push_back(p.position);
        dots.y.push_back(p.frequency / 1e6);
    }
    const auto [low, high] = std::minmax_element(dots.y.begin(), dots.y.end());
    const double margin = std::max((*high - *low) * 0.08, 1e-6);
    out.xLow = dots.x.front();
    out.xHigh = std::max(dots.x.back(), dots.x.front() + 1e-9);
    out.yLow = *low - margin;
    out.yHigh = *high + margin;
    out.series = {joinedUp(dots), dots};
    return out;
}

}  // namespace ombrek
