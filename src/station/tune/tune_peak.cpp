#include <algorithm>
#include <cmath>

#include "core/proof/power.h"
#include "core/text/counted.h"
#include "station/first_light/key_down.h"
#include "station/tune/tune_kinds.h"
#include "station/tune/tune_ways.h"
#include "station/winding/winding.h"

namespace ombrek {
namespace {

constexpr double kNearest = 0.5, kFurthest = 1.8;  ///< of the way backed off: it stands there
constexpr double kFinest = 0.002;                  ///< that a hand can turn [travel]
constexpr double kWideTop = 0.1;  ///< the middle of a narrower top is near enough to the peak [travel]

std::string turnsSentence(int change, const std::string& coil) {
    return std::string(change > 0 ? "Add " : "Remove ") + counted(std::abs(change), "turn") +
           (change > 0 ? " on " : " from ") + coil + ", then peak it again.";
}

/// What wands near the coil say, where the readings cannot.
void addWands(const Adjustment& a, TuneState& out) {
    if (out.wands.empty() || out.state == VerdictState::pass) return;
    const std::string coil = a.coil.empty() ? "the coil" : a.coil;
    const auto says = wandsSay(out.wands);
    out.sentence += !says       ? " What was brought near it does not tell yet."
                    : *says > 0 ? " What was brought near it says: " + coil + " is too small, or too spread."
                    : *says < 0 ? " What was brought near it says: " + coil + " is too large, or too close."
                                : " What was brought near it says that it is at its peak.";
}

void endStopOf(const Kit& kit, const Adjustment& a, const Build& build, const PeakEstimate& peak,
               TuneState& out) {
    // By ear or marks nobody knows how far beyond the end it lies: the end is brought to the middle.
    out.ended = true;
    const Coil* coil = kit.coil(a.coil);
    if (coil == nullptr) return;
    if (coil->tune) {
        const int change = endStopRemedy(peak, tankOf(kit, *coil->tune), mainTurns(*coil, build));
        out.remedy = turnsSentence(change, coil->ref);
    } else {
        out.remedy = peak.kind == PeakEstimate::Kind::atMost
                         ? "Add a turn on " + coil->ref + ", or squeeze it, then peak it again."
                         : "Remove a turn from " + coil->ref + ", or spread it, then peak it again.";
    }
}

std::vector<AdjusterReading> amplitudes(const TuneState& state, const Adjustment& a) {
    std::vector<AdjusterReading> out = state.readings;
    for (AdjusterReading& r : out) r.reading = amplitudeOf(r.reading, a.unit);
    return out;
}

/// Over how much of the travel a scale shows its most.
double fullOver(const ReadingScale& scale, const std::vector<AdjusterReading>& readings) {
    double low = 1, high = 0;
    for (const AdjusterReading& r : readings) {
        if (!isFull(scale, r.reading)) continue;
        low = std::min(low, r.position);
        high = std::max(high, r.position);
    }
    return std::max(0.0, high - low);
}

/// The peak as it was proved before the adjuster was turned off it on purpose; nothing when it never was.
std::optional<PeakEstimate> provedBefore(std::vector<AdjusterReading> readings, const PeakEstimate& now,
                                         double off) {
    for (int back = 0; back < 6 && readings.size() > 3; ++back) {
        if (std::abs(readings.back().position - now.position) > 4 * off + kFinest) return std::nullopt;
        readings.pop_back();
        const PeakEstimate then = estimatePeak(readings);
        if (then.state == VerdictState::pass) return then;
    }
    return std::nullopt;
}

/// Of a peak of power, for those who back off from it.
void backOffFrom(const Adjustment& a, const BackOff& way, PeakEstimate peak, TuneState& out) {
    const std::vector<AdjusterReading> readings = amplitudes(out, a);
    if (readings.empty() || peak.kind != PeakEstimate::Kind::inside || !(peak.halfWidth > 0)) return;
    const double off = std::max(backOff(peak, way.share), kFinest);
    if (peak.state != VerdictState::pass) {
        const auto proved = provedBefore(readings, peak, off);
        if (!proved) return;
        peak = *proved;
    }
    const double sense = way.toMore ? 1 : -1, stands = readings.back().position;
    const double wanted = std::clamp(peak.position + sense * off, 0.0, 1.0);
    const double turned = sense * (stands - peak.position);
    const double fallen = 1 - std::pow(responseAt(peak, stands) / peak.reading, 2);
    const std::string side = way.toMore ? "more" : "less";
    out.bestPosition = peak.position;
    out.nextPosition = wanted;
    if (turned > kNearest * off && turned < kFurthest * off) {
        out.state = VerdictState::pass;
        out.nextPosition = stands;
        out.sentence = "Peaked, and backed off towards " + side + ": " + decimals(fallen * 100, 1) +
                       " % less than the most.";
        return;
    }
    out.state = VerdictState::doubtful;
    out.sentence = "The peak is proved. Back off towards " + side + " until the power just falls, by " +
                   decimals(way.share * 100, 1) + " %.";
}

}  // namespace

double amplitudeOf(double reading, Unit unit) {
    if (unit == Unit::watt) return reading > 0 ? std::sqrt(reading) : 0.0;
    if (unit == Unit::dbm) return std::sqrt(wattsFromDbm(reading));
    return reading;
}

void settlePeak(const Kit& kit, const Adjustment& a, const Build& build, TuneState& out) {
    const bool marks = a.scale.kind != ReadingScale::Kind::number;
    const bool numbers = !marks && out.heard.empty();
    if (marks && out.heard.empty() && !out.readings.empty()) {
        std::vector<MarkPoint> points;
        for (const AdjusterReading& r : out.readings) points.push_back({r.position, r.reading});
        out.heard = comparisons(points);
    }
    const PeakEstimate peak =
        numbers ? estimatePeak(amplitudes(out, a)) : peakByEar(out.heard, {marks, false});
    if (peak.halfWidth > 0 && numbers) out.peak = peak;
    out.bestPosition = peak.position;
    out.nextPosition = peak.nextPosition;
    out.state = peak.state;
    out.sentence = peak.sentence;
    if (marks && out.readings.size() == 1) {
        out.bestPosition = out.readings.front().position;
        out.nextPosition = out.bestPosition > 0.5 ? 0.38 : 0.62;
    }
    if (marks && fullOver(a.scale, out.readings) > kWideTop) {
        out.state = VerdictState::cannotTell;
        out.sentence =
            "It shows its most over a wide stretch: weaken the signal until it does not; X begins "
            "again.";
    }
    if (peak.state == VerdictState::fail) endStopOf(kit, a, build, peak, out);
    addWands(a, out);
    const BackOff way = backOffOf(build);
    if (way.share > 0 && numbers && keyDown(a)) backOffFrom(a, way, peak, out);
}

}  // namespace ombrek
