#include "station/tune.h"

#include <cmath>

#include "core/adjust/null.h"
#include "core/proof/power.h"
#include "station/judged.h"
#include "station/rests_on.h"
#include "station/winding.h"

namespace ombrek {
namespace {

double amplitude(double reading, Unit unit) {
    if (unit == Unit::watt) return reading > 0 ? std::sqrt(reading) : 0.0;
    if (unit == Unit::dbm) return std::sqrt(wattsFromDbm(reading));
    return reading;
}

std::string turnsSentence(int change, const std::string& coil) {
    const int count = std::abs(change);
    return std::string(change > 0 ? "Add " : "Remove ") + std::to_string(count) +
           (count == 1 ? " turn" : " turns") + (change > 0 ? " on " : " from ") + coil +
           ", then peak it again.";
}

void settlePeak(const Kit& kit, const Adjustment& adjustment, const Build& build, TuneState& out) {
    std::vector<AdjusterReading> amplitudes = out.readings;
    for (auto& r : amplitudes) r.reading = amplitude(r.reading, adjustment.unit);
    const PeakEstimate peak = estimatePeak(amplitudes);
    if (peak.halfWidth > 0) out.peak = peak;
    out.bestPosition = peak.position;
    out.nextPosition = peak.nextPosition;
    out.state = peak.state;
    out.sentence = peak.sentence;
    const Coil* coil = kit.coil(adjustment.coil);
    if (peak.state == VerdictState::fail && coil != nullptr && coil->tune) {
        const int change = endStopRemedy(peak, tankOf(kit, *coil->tune), mainTurns(*coil, build));
        out.remedy = turnsSentence(change, coil->ref);
    }
}

void settleNull(TuneState& out) {
    const NullEstimate null = estimateNull(out.readings);
    out.bestPosition = null.position;
    out.nextPosition = null.nextPosition;
    out.state = null.state;
    out.sentence = null.sentence;
}

SettingEstimate nextSetting(const Adjustment& a, const TuneState& state) {
    if (a.safe != SafeEnd::none) return approachSafely(state.readings, a.target, a.tolerance, a.unit, a.safe);
    return estimateSetting(state.readings, a.target, a.unit);
}

void settleSetting(const Adjustment& adjustment, const Build& build, const std::vector<Reading>& readings,
                   TuneState& out) {
    const SettingEstimate estimate = nextSetting(adjustment, out);
    out.bestPosition = estimate.position;
    out.nextPosition = estimate.nextPosition;
    out.sentence = estimate.sentence;
    if (readings.empty()) return;
    const Limits limits{adjustment.target - adjustment.tolerance, adjustment.target + adjustment.tolerance};
    const Verdict verdict = judgeReading(readings.back(), limits, build.rule, adjustment.unit);
    if (verdict.state == VerdictState::pass) {
        out.state = VerdictState::pass;
        out.sentence = verdict.sentence;
        out.bestPosition = out.nextPosition = readings.back().setting(kPosition);
    } else {
        out.state = estimate.reachable ? VerdictState::doubtful : VerdictState::fail;
    }
}

}  // namespace

TuneState tuneState(const Kit& kit, const Adjustment& adjustment, const Build& build) {
    TuneState out;
    const Subject subject = Subject::adjustment(adjustment.id);
    const std::vector<Reading> readings = standing(kit, build, subject);
    for (const Reading& r : readings) out.readings.push_back({r.setting(kPosition), r.value});
    if (adjustment.kind == Adjustment::Kind::peak) {
        settlePeak(kit, adjustment, build, out);
    } else if (adjustment.kind == Adjustment::Kind::null) {
        settleNull(out);
    } else {
        settleSetting(adjustment, build, readings, out);
    }
    if (readings.empty()) {
        const std::string changed = changedSince(kit, build, subject);
        if (!changed.empty()) out.sentence = changed + " " + out.sentence;
    }
    return out;
}

const Adjustment* nextAdjustment(const Judged& judged) {
    for (const Adjustment& adjustment : judged.kit().adjustments) {
        if (judged.tune(adjustment).state != VerdictState::pass) return &adjustment;
    }
    return nullptr;
}

}  // namespace ombrek
