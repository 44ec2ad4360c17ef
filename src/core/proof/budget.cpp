#include "core/proof/budget.h"

#include <algorithm>
#include <cmath>

namespace ombrek {
namespace {

using Shape = BudgetInput::Shape;

constexpr double kStep = 1e-3;     ///< of a deviation, for a sensitivity
constexpr double kWater = 4186;    ///< [J/(kg K)]
constexpr double kUsualVolts = 3;  ///< of a scope's vertical [%], common practice
constexpr double kUsualDc = 1;     ///< of a meter on a probe [%]
constexpr double kUsualClass = 5;  ///< of a wattmeter [% of full scale]

BudgetInput percent(const char* what, double value, double share, const char* unit) {
    return {what, value, std::abs(value) * share / 100, Shape::limits, unit};
}
double orElse(double value, double usual) { return std::isnan(value) ? usual : value; }

/// ± in power of two mismatches whose phases nobody knows: 2·|Γs|·|Γl|.
double mismatch(double sourceLoss, double loadLoss) {
    if (!(sourceLoss > 0) || !(loadLoss > 0)) return 0;
    return 2 * std::pow(10, -sourceLoss / 20) * std::pow(10, -loadLoss / 20);
}

PowerBudget peakToPeak(const PowerWay& w) {
    const double ratio = w.bandwidth > 0 && w.frequency > 0 ? w.frequency / w.bandwidth : 0;
    const double lost = ratio * ratio;  // of the power, by one pole
    return budgetOf([](const auto& x) { return x[0] * x[0] * x[2] * x[2] * (1 + x[3]) / (8 * x[1]); },
                    {percent("voltage, peak to peak", w.volts, orElse(w.voltsError, kUsualVolts), "V"),
                     percent("load", w.load, w.loadError, "ohm"),
                     percent("probe", 1, w.probeError, ""),
                     {"bandwidth of the scope", lost, lost / 3, Shape::limits, ""}});
}

PowerBudget diodeProbe(const PowerWay& w) {
    return budgetOf([](const auto& x) { return (x[0] + x[1]) * (x[0] + x[1]) / (2 * x[2]); },
                    {percent("voltage of the probe", w.volts, orElse(w.voltsError, kUsualDc), "V"),
                     {"diode", w.drop, w.dropError, Shape::limits, "V"},
                     percent("load", w.load, w.loadError, "ohm")});
}

PowerBudget wattmeter(const PowerWay& w) {
    const double scale = w.fullScale > 0 ? w.fullScale : w.watts;
    PowerBudget out =
        budgetOf([](const auto& x) { return x[0] * x[1]; },
                 {{"wattmeter", w.watts, scale * orElse(w.wattsError, kUsualClass) / 100, Shape::limits, "W"},
                  percent("calibration", w.correction, w.correctionError, "")});
    out.atLeast = w.fullScale > 0 && w.watts >= w.fullScale;
    return out;
}

PowerBudget analyser(const PowerWay& w) {
    return budgetOf([](const auto& x) { return 1e-3 * std::pow(10, (x[0] + x[1]) / 10) * x[2]; },
                    {{"level", w.dbm, w.dbmError, Shape::limits, "dBm"},
                     {"attenuation", w.attenuation, w.attenuationError, Shape::limits, "dB"},
                     {"mismatch", 1, mismatch(w.sourceLoss, w.loadLoss), Shape::arcsine, ""}});
}

PowerBudget current(const PowerWay& w) {
    return budgetOf(
        [](const auto& x) { return x[0] * x[0] * x[1]; },
        {percent("current", w.amps, w.ampsError, "A"), percent("load", w.load, w.loadError, "ohm")});
}

PowerBudget heat(const PowerWay& w) {
    return budgetOf([](const auto& x) { return x[0] * kWater * x[1] / x[2] * x[3]; },
                    {percent("water", w.kilograms, 2, "kg"),
                     {"rise", w.kelvins, w.kelvinsError, Shape::limits, "K"},
                     percent("time", w.seconds, 1, "s"),
                     percent("warmth kept", 1, w.heatError, "")});
}

/// A way, what of its figures must be there, and how it is reckoned.
struct WayRow {
    const char* id;
    double (*needed)(const PowerWay&);  ///< not above nothing: missing, or cannot be
    const char* missing;
    PowerBudget (*reckon)(const PowerWay&);
};
const std::vector<WayRow>& ways() {
    static const std::vector<WayRow> rows{
        {"peak-to-peak", [](const PowerWay& w) { return std::min(w.volts, w.load); },
         "Peak to peak wants a voltage and a load.", peakToPeak},
        {"diode-probe", [](const PowerWay& w) { return std::min(w.volts, w.load); },
         "A diode probe wants its voltage and the load.", diodeProbe},
        {"wattmeter", [](const PowerWay& w) { return std::min(w.watts, w.correction); },
         "A wattmeter wants what it reads.", wattmeter},
        {"analyser", [](const PowerWay& w) { return std::isfinite(w.dbm) && w.attenuation >= 0 ? 1.0 : 0.0; },
         "An analyser or power meter wants its level in dBm, and what is before it.", analyser},
        {"current", [](const PowerWay& w) { return std::min(w.amps, w.load); },
         "An RF current wants its amperes and the load.", current},
        {"heat",
         [](const PowerWay& w) {
             return std::min({w.kilograms, w.kelvins, w.seconds});
         },
         "Heat wants the water's mass, how far it rose, and in how long.", heat}};
    return rows;
}

}  // namespace

double deviationOf(const BudgetInput& input) {
    const double spread = std::abs(input.spread);
    return input.shape == Shape::normal   ? spread
           : input.shape == Shape::limits ? spread / std::sqrt(3.0)
                                          : spread / std::sqrt(2.0);
}

PowerBudget budgetOf(const PowerFormula& formula, const std::vector<BudgetInput>& inputs) {
    std::vector<double> at;
    for (const BudgetInput& input : inputs) at.push_back(input.value);
    PowerBudget out;
    out.watts = formula(at);
    double squares = 0;
    for (std::size_t i = 0; i < inputs.size(); ++i) {
        const double u = deviationOf(inputs[i]);
        BudgetLine line{inputs[i], u, 0};
        if (u > 0) {
            std::vector<double> up = at, down = at;
            up[i] += kStep * u;
            down[i] -= kStep * u;
            line.watts = std::abs(formula(up) - formula(down)) / (2 * kStep);
        }
        squares += line.watts * line.watts;
        out.lines.push_back(std::move(line));
    }
    out.deviation = std::sqrt(squares);
    std::stable_sort(out.lines.begin(), out.lines.end(),
                     [](const BudgetLine& a, const BudgetLine& b) { return a.watts > b.watts; });
    return out;
}

const std::vector<std::string>& powerWays() {
    static const std::vector<std::string> ids = [] {
        std::vector<std::string> out;
        for (const WayRow& row : ways()) out.emplace_back(row.id);
        return out;
    }();
    return ids;
}

Result<PowerBudget> powerBy(const PowerWay& way) {
    for (const WayRow& row : ways()) {
        if (way.method != row.id) continue;
        if (!(row.needed(way) > 0)) return problem(row.id, row.missing);
        PowerBudget out = row.reckon(way);
        if (!std::isfinite(out.watts) || !std::isfinite(out.deviation))
            return problem(row.id, "These figures make no power.");
        return out;
    }
    std::string all;
    for (const std::string& id : powerWays()) all += (all.empty() ? "" : ", ") + id;
    return problem("method", "One of " + all + ".");
}

Combined combined(const PowerBudget& a, const PowerBudget& b) {
    Combined out;
    const double u2 = a.deviation * a.deviation + b.deviation * b.deviation;
    out.apart = u2 > 0 ? std::abs(a.watts - b.watts) / std::sqrt(u2) : a.watts == b.watts ? 0 : INFINITY;
    out.agree = out.apart <= 2;
    if (!(a.deviation > 0) || !(b.deviation > 0)) {
        const PowerBudget& exact = a.deviation > 0 ? b : a;
        out.watts = exact.watts;
        return out;
    }
    const double wa = 1 / (a.deviation * a.deviation), wb = 1 / (b.deviation * b.deviation);
    out.watts = (wa * a.watts + wb * b.watts) / (wa + wb);
    out.deviation = 1 / std::sqrt(wa + wb);
    return out;
}

}  // namespace ombrek
