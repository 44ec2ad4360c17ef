#include "desk/first_light/before_power.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/shown.h"
#include "desk/session.h"
#include "judged/before_plug.h"
#include "station/board/loupe.h"

namespace ombrek {
namespace {

const Check* firstOf(const Kit& kit, Unit unit) {
    const auto hit = std::find_if(kit.checks.begin(), kit.checks.end(),
                                  [&](const Check& c) { return c.unit == unit && !c.yesNo() && !c.diode; });
    return hit == kit.checks.end() ? nullptr : &*hit;
}

/// Up to the next of 1, 1.5, 2, 3, 5, 7.
double upToStep(double value) {
    if (!(value > 0)) return 0;
    const double decade = std::pow(10.0, std::floor(std::log10(value)));
    for (const double step : {1.0, 1.5, 2.0, 3.0, 5.0, 7.0, 10.0}) {
        if (value <= step * decade * (1 + 1e-9)) return step * decade;
    }
    return 10 * decade;
}

Fact stateOf(const QString& name, const Check* check, const Judged& judged) {
    const Verdict verdict = judged.check(*check);
    const bool read = verdict.state != VerdictState::notDone && std::isfinite(verdict.reading);
    return {name,
            read                                     ? qs(formatQuantity(verdict.reading, check->unit, 4))
            : verdict.state == VerdictState::notDone ? QStringLiteral("not read yet")
                                                     : qs(std::string(word(verdict.state))),
            verdict.state, true};
}

Fact counted(const QString& name, std::size_t left, std::size_t all) {
    if (all == 0) return {name, QStringLiteral("none fitted yet"), VerdictState::notDone, true};
    return {name, left == 0 ? QStringLiteral("all looked at") : QStringLiteral("%1 not looked at").arg(left),
            left == 0 ? VerdictState::pass : VerdictState::doubtful, true};
}

}  // namespace

double currentLimit(const Judged& judged, const ExpectedReadings& expected) {
    const Check* current = firstOf(judged.kit(), Unit::ampere);
    if (current == nullptr) return 0;
    double most = current->limits.high;
    if (const auto hit = expected.find(current->id); hit != expected.end() && std::isfinite(hit->second.high))
        most = std::isfinite(most) ? std::min(most, hit->second.high) : hit->second.high;
    return std::isfinite(most) ? upToStep(2 * most) : 0;
}

std::vector<Fact> beforePower(const Judged& judged, const ExpectedReadings& expected) {
    const Kit& kit = judged.kit();
    std::vector<Fact> out;
    if (const Check* ohms = firstOf(kit, Unit::ohm)) out.push_back(stateOf(qs(ohms->title), ohms, judged));
    for (const PlugItem& item : beforePlug(judged))
        out.push_back({qs(item.name),
                       item.seen            ? QStringLiteral("seen")
                       : powerWasOn(judged) ? QStringLiteral("nobody said so")
                                            : QStringLiteral("not seen"),
                       item.seen ? VerdictState::pass : VerdictState::doubtful, true});
    out.push_back(counted(QStringLiteral("Joints"), jointsToLookAt(kit, judged.build(), true).size(),
                          fittedParts(kit, judged.build())));
    const double limit = currentLimit(judged, expected);
    if (limit > 0)
        out.push_back({QStringLiteral("Supply's limit"), qs(formatQuantity(limit, Unit::ampere, 3)),
                       VerdictState::notDone, false});
    return out;
}

std::string expectedWords(const Check& check, const Verdict& verdict, const ExpectedReading& e) {
    if (std::isnan(e.value) || std::isinf(e.value)) return "";
    const auto shown = [&](double value, int figures) {
        const double least = check.unit == Unit::volt ? 1e-3 : check.unit == Unit::ampere ? 1e-6 : 1e-2;
        return formatQuantity(std::round(value / least) * least, check.unit, figures);
    };
    const std::string span = shown(e.low, 3) + " to " + shown(e.high, 3);
    std::string meter;
    if (std::abs(e.value - e.unloaded) > 0.01 * std::abs(e.unloaded) + 5e-3)
        meter = " Your meter's own 10 MΩ pulls it down from " + shown(e.unloaded, 3) + ".";
    if (!std::isfinite(verdict.reading) || verdict.state == VerdictState::notDone)
        return "A sound rig of your parts reads " + span + " here." + meter;
    // The kit's own limit bars the way, whatever parts may do.
    if (verdict.state == VerdictState::fail && verdict.reading >= e.low && verdict.reading <= e.high)
        return "Parts within their tolerances may read " + span +
               " here, but the kit's limit says no: do not go on." + meter;
    if (verdict.reading >= e.low && verdict.reading <= e.high)
        return shown(verdict.reading, 3) + " is " + shown(e.value, 2) +
               ": parts within their tolerances read " + span + " here." + meter;
    if (verdict.state == VerdictState::pass)
        return "Inside the kit's limits, but parts within their tolerances read " + span +
               " here: W says what may be wrong." + meter;
    return "A sound rig of your parts reads " + span + ": W says what may be wrong." + meter;
}

}  // namespace ombrek
