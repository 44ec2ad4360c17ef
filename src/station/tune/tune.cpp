#include "station/tune/tune.h"

#include <algorithm>
#include <cmath>

#include "core/adjust/seen.h"
#include "station/rests_on.h"
#include "station/tune/tune_kinds.h"
#include "station/tune/tune_order.h"
#include "station/tune/tune_rounds.h"

namespace ombrek {
namespace {

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
    // The meter's own error leaves less within the limits than a hand can set: turning on is no use.
    const double off = std::abs(readings.back().value - adjustment.target), u = readings.back().uncertainty;
    const bool provable = adjustment.tolerance - u > adjustment.tolerance / 20;
    out.meterEnds = out.state == VerdictState::doubtful && !provable && limits.holds(readings.back().value) &&
                    off <= std::max(u / 4, adjustment.tolerance / 20);
    if (!out.meterEnds) return;
    out.bestPosition = out.nextPosition = readings.back().setting(kPosition);
    out.sentence = verdict.sentence + " It stands as near as this meter tells.";
}

/// The transistors of a bias, one by one: the last reading with each of them out.
void settleShares(const Adjustment& a, const std::vector<Reading>& lifted, TuneState& out) {
    if (a.each.size() < 2 || !out.bias || std::isnan(out.bias->baseline) || out.readings.empty()) return;
    std::vector<double> without(a.each.size(), NAN);
    for (const Reading& r : lifted) {
        const double which = r.setting(kLifted);
        if (which >= 1 && which <= double(without.size()))
            without[std::size_t(which) - 1] = r.value - out.bias->baseline;
    }
    out.shares = sharesOf(out.readings.back().reading - out.bias->baseline, without, a.each);
    if (out.shares->state == VerdictState::fail && out.state == VerdictState::pass) {
        out.state = VerdictState::fail;
        out.sentence = out.shares->sentence;
    }
}

/// A bias in whole counts is rounded towards its safe end; where that does not move it, a count is more than
/// can be told to be safe.
void countSafely(const Adjustment& a, SafeEnd safe, TuneState& out) {
    const double counts = a.turned.high - a.turned.low;
    const bool counted = a.turned.kind == Adjuster::Kind::jumper || a.turned.kind == Adjuster::Kind::menu;
    if (!counted || !(counts > 0) || out.readings.empty() || out.state == VerdictState::pass) return;
    const double wanted = out.nextPosition, stands = out.readings.back().position;
    const bool high = safe == SafeEnd::high;
    out.nextPosition =
        (high ? std::ceil(wanted * counts - 1e-6) : std::floor(wanted * counts + 1e-6)) / counts;
    const bool up = high ? wanted < stands : wanted > stands;
    if (!up || std::abs(out.nextPosition - stands) > 0.5 / counts) return;
    out.state = VerdictState::cannotTell;
    out.nextPosition = stands;
    out.sentence =
        "One step more may draw more than can be foreseen: follow the paper, with the supply's current "
        "limited.";
}

void settleBias(const Adjustment& a, const std::vector<Reading>& lifted, TuneState& out) {
    BiasRule rule{a.target, a.tolerance, a.never, a.volts, a.safe, a.unit};
    if (rule.safe == SafeEnd::none) rule.safe = SafeEnd::low;
    out.bias = biasState(out.readings, rule);
    out.state = out.bias->state;
    out.sentence = out.bias->sentence;
    out.nextPosition = out.bias->next;
    out.bestPosition = std::isnan(out.bias->first) ? out.bias->next : out.bias->first;
    countSafely(a, rule.safe, out);
    settleShares(a, lifted, out);
}

void settleSeen(const std::vector<Reading>& readings, TuneState& out) {
    std::vector<SeenPoint> looked;
    for (const Reading& r : readings) looked.push_back({r.setting(kPosition), r.value > 0.5});
    const PeakEstimate seen = seekSeen(looked);
    out.state = seen.state;
    out.sentence = seen.sentence;
    out.bestPosition = seen.position;
    out.nextPosition = seen.nextPosition;
}

/// Where the adjuster stands that is begun anew, because of what was changed: from there, not from the
/// middle.
void beginWhereItStands(const Adjustment& a, const Build& build, TuneState& out) {
    const Reading* was = build.lastEver(Subject::adjustment(a.id));
    if (was == nullptr || !a.sets() || a.safe != SafeEnd::none) return;
    out.nextPosition = was->setting(kPosition, out.nextPosition);
}

/// A peak whose partners were turned since: it is near where it was, so three readings about it begin.
void beginNearBefore(const Adjustment& a, const Build& build, TuneState& out) {
    if (a.kind != Adjustment::Kind::peak || a.partners.empty() || out.readings.size() > 2 ||
        a.scale.kind != ReadingScale::Kind::number || !out.heard.empty())
        return;
    std::vector<AdjusterReading> before;
    const Subject subject = Subject::adjustment(a.id);
    for (const Reading& r : build.all(subject, build.changedAfter(subject))) {
        if (r.unit == a.unit) before.push_back({r.setting(kPosition), amplitudeOf(r.value, a.unit)});
    }
    constexpr std::size_t kMost = 8;
    before.resize(before.size() - std::min(before.size(), out.readings.size()));
    if (before.size() > kMost) before.erase(before.begin(), before.end() - kMost);
    const PeakEstimate was = estimatePeak(before);
    if (was.kind != PeakEstimate::Kind::inside || !(was.halfWidth > 0)) return;
    const double about = 0.7 * was.halfWidth;
    const double places[] = {was.position, was.position - about, was.position + about};
    out.nextPosition = std::clamp(places[out.readings.size()], 0.0, 1.0);
}

/// What is put aside before the kinds are judged: comparisons, wands, transistors out.
std::vector<Reading> sortedOut(std::vector<Reading>& readings, TuneState& out) {
    std::vector<Reading> lifted;
    for (const Reading& r : readings) {
        if (r.unit == Unit::none && r.settings.contains(kWand)) {
            out.wands.push_back({Wand(std::clamp(int(r.setting(kWand)), 0, 2)), int(r.value)});
        } else if (r.settings.contains(kLifted)) {
            lifted.push_back(r);
        } else if (r.unit == Unit::none && r.settings.contains(kBefore)) {
            out.heard.push_back({r.setting(kBefore), r.setting(kPosition), int(r.value)});
        } else {
            out.heard.clear();
            out.readings.push_back({r.setting(kPosition), r.value});
        }
    }
    std::erase_if(readings, [](const Reading& r) {
        return r.settings.contains(kWand) || r.settings.contains(kLifted) || r.settings.contains(kBefore);
    });
    return lifted;
}

}  // namespace

TuneState tuneState(const Kit& kit, const Adjustment& adjustment, const Build& build) {
    using Kind = Adjustment::Kind;
    TuneState out;
    const Subject subject = Subject::adjustment(adjustment.id);
    std::vector<Reading> readings = standing(kit, build, subject);
    const bool begun = !readings.empty();
    const std::vector<Reading> lifted = sortedOut(readings, out);
    if (adjustment.kind == Kind::peak) {
        settlePeak(kit, adjustment, build, out);
    } else if (adjustment.kind == Kind::null) {
        settleNull(kit, adjustment, build, out);
    } else if (adjustment.kind == Kind::bias) {
        settleBias(adjustment, lifted, out);
    } else if (adjustment.kind == Kind::contrast) {
        settleSeen(readings, out);
    } else {
        settleSetting(adjustment, build, readings, out);
    }
    beginNearBefore(adjustment, build, out);
    if (!begun && !out.together) {
        const std::string changed = changedSince(kit, build, subject);
        if (!changed.empty()) {
            out.sentence = changed + " " + out.sentence;
            beginWhereItStands(adjustment, build, out);
        }
    }
    out.nextPosition = standable(adjustment.turned, out.nextPosition);
    return out;
}

}  // namespace ombrek
