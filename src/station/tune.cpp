#include "station/tune.h"

#include <algorithm>
#include <cmath>

#include "core/adjust/joint_null.h"
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
    const PeakEstimate peak = out.heard.empty() ? estimatePeak(amplitudes) : peakByEar(out.heard);
    if (peak.halfWidth > 0 && out.heard.empty()) out.peak = peak;
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

/// A level in decibels, whatever it was read in.
double levelOf(const Reading& r) {
    if (r.unit == Unit::decibel || r.unit == Unit::dbm) return r.value;
    const double size = std::abs(r.value);
    return (r.unit == Unit::watt ? 10 : 20) * std::log10(std::max(size, 1e-12));
}

/// The nulls that pull each other, in the kit's order.
std::vector<const Adjustment*> nulledTogether(const Kit& kit, const Adjustment& a) {
    std::vector<const Adjustment*> out;
    for (const Adjustment& other : kit.adjustments) {
        const auto names = [](const Adjustment& of, const std::string& id) {
            return std::find(of.partners.begin(), of.partners.end(), id) != of.partners.end();
        };
        const bool with = other.id == a.id || names(a, other.id) || names(other, a.id);
        if (with && other.kind == Adjustment::Kind::null && other.unit == a.unit) out.push_back(&other);
    }
    return out;
}

/// Every reading of them with where all stood; half travel before the first reading of each.
std::vector<NullReading> rowsOf(const Build& build, const std::vector<const Adjustment*>& together) {
    std::vector<std::pair<Reading, std::size_t>> readings;
    for (std::size_t i = 0; i < together.size(); ++i) {
        const Subject subject = Subject::adjustment(together[i]->id);
        for (const Reading& r : build.all(subject)) {
            if (r.id > build.changedAfter(subject) && r.unit == together[i]->unit)
                readings.emplace_back(r, i);
        }
    }
    std::sort(readings.begin(), readings.end(),
              [](const auto& a, const auto& b) { return a.first.id < b.first.id; });
    std::vector<NullReading> out;
    std::vector<double> stands(together.size(), 0.5);
    for (const auto& [r, i] : readings) {
        stands[i] = r.setting(kPosition);
        out.push_back({stands, levelOf(r)});
    }
    return out;
}

void settleTogether(const std::vector<const Adjustment*>& together, const Adjustment& a, const Build& build,
                    TuneState& out) {
    const auto rows = rowsOf(build, together);
    const auto me = std::size_t(std::find(together.begin(), together.end(), &a) - together.begin());
    if (rows.empty()) {
        out.nextPosition = 0.5;
        out.sentence = "They pull each other: bring all of them to half travel first.";
        return;
    }
    const JointNull null = jointNull(rows, together.size());
    out.bestPosition = null.best[me];
    out.state = null.converged ? VerdictState::pass : VerdictState::doubtful;
    out.nextPosition = rows.back().at[me];
    out.sentence = null.sentence;
    if (null.converged) {
        if (std::isfinite(null.floor))
            out.sentence += " About " + decimals(null.floor, 0) + " dB is the least that can be reached.";
        return;
    }
    const Adjustment& turned = *together[std::size_t(std::max(0, null.adjuster))];
    if (turned.id == a.id)
        out.nextPosition = null.position;
    else
        out.other = turned.id;
    out.sentence =
        "Of all their readings: turn " + turned.adjuster + " to " + decimals(null.position * 100, 1) + " %.";
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
    for (const Reading& r : readings) {
        if (r.unit == Unit::none && r.settings.contains(kBefore)) {
            out.heard.push_back({r.setting(kBefore), r.setting(kPosition), int(r.value)});
        } else {
            out.heard.clear();
            out.readings.push_back({r.setting(kPosition), r.value});
        }
    }
    const auto together = nulledTogether(kit, adjustment);
    if (adjustment.kind == Adjustment::Kind::peak) {
        settlePeak(kit, adjustment, build, out);
    } else if (adjustment.kind == Adjustment::Kind::null && together.size() > 1) {
        settleTogether(together, adjustment, build, out);
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
