#include <algorithm>
#include <cmath>

#include "core/adjust/joint_null.h"
#include "core/adjust/null.h"
#include "station/tune/tune_kinds.h"
#include "station/tune/tune_rounds.h"

namespace ombrek {
namespace {

/// A level in decibels, whatever it was read in.
double levelOf(const Reading& r) {
    if (r.unit == Unit::decibel || r.unit == Unit::dbm) return r.value;
    const double size = std::abs(r.value);
    return (r.unit == Unit::watt ? 10 : 20) * std::log10(std::max(size, 1e-12));
}

/// The nulls that pull each other, in the kit's order.
std::vector<const Adjustment*> nulledTogether(const Kit& kit, const Adjustment& a) {
    std::vector<const Adjustment*> out = partnersOf(kit, a);
    std::erase_if(out, [&](const Adjustment* other) {
        return other->kind != Adjustment::Kind::null || other->unit != a.unit ||
               other->scale.kind != ReadingScale::Kind::number;
    });
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
    out.together = true;
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
    out.sentence = "Of all their readings: turn " + turned.adjuster + " to " +
                   positionText(turned.turned, null.position) + ".";
}

void settleOne(const Adjustment& a, TuneState& out) {
    const bool marks = a.scale.kind != ReadingScale::Kind::number;
    if (marks || !out.heard.empty()) {
        if (marks && out.heard.empty()) {
            std::vector<MarkPoint> points;
            for (const AdjusterReading& r : out.readings) points.push_back({r.position, -r.reading});
            out.heard = comparisons(points);
            for (HeardPoint& h : out.heard) h.louder = -h.louder;
        }
        const PeakEstimate least = peakByEar(out.heard, {marks, true});
        out.bestPosition = least.position;
        out.nextPosition = least.nextPosition;
        out.state = least.state;
        out.sentence = least.sentence;
        return;
    }
    const NullEstimate null = estimateNull(out.readings);
    out.bestPosition = null.position;
    out.nextPosition = null.nextPosition;
    out.state = null.state;
    out.sentence = null.sentence;
}

}  // namespace

void settleNull(const Kit& kit, const Adjustment& a, const Build& build, TuneState& out) {
    const auto together = nulledTogether(kit, a);
    if (together.size() > 1 && out.heard.empty())
        settleTogether(together, a, build, out);
    else
        settleOne(a, out);
}

}  // namespace ombrek
