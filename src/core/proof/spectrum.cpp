#include "core/proof/spectrum.h"

#include <algorithm>
#include <cstdlib>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

constexpr double kOverNoise = 10, kOverSaddle = 6;  ///< [dB]
constexpr double kNear = 2e-4;  ///< of a frequency: the same within the analyser's own error
constexpr double kBins = 2.5;   ///< of the trace
constexpr int kHighestOrder = 7;
constexpr std::size_t kMost = 200;  ///< peaks told, the highest

double median(std::vector<double> x) {
    if (x.empty()) return NAN;
    const auto middle = x.begin() + std::ptrdiff_t(x.size() / 2);
    std::nth_element(x.begin(), middle, x.end());
    return *middle;
}

/// A trace by rising frequency.
class Trace {
 public:
    explicit Trace(std::vector<TracePoint> points) : points_(std::move(points)) {
        std::erase_if(points_, [](const TracePoint& p) {
            return !(p.hertz >= 0) || !std::isfinite(p.hertz) || !std::isfinite(p.level);
        });
        std::stable_sort(points_.begin(), points_.end(),
                         [](const TracePoint& a, const TracePoint& b) { return a.hertz < b.hertz; });
        std::vector<double> levels, steps;
        for (std::size_t i = 0; i < points_.size(); ++i) {
            levels.push_back(points_[i].level);
            if (i > 0) steps.push_back(points_[i].hertz - points_[i - 1].hertz);
        }
        floor_ = median(levels);
        step_ = steps.empty() ? 0 : median(steps);
    }

    const std::vector<TracePoint>& points() const { return points_; }
    double floor() const { return floor_; }
    /// Two frequencies are one within this [Hz].
    double near(double hertz) const { return std::max(kNear * hertz, kBins * step_); }
    /// The same of a multiple: where the carrier was told by its bin, half a bin counts as often.
    double nearOf(double carrier, long order) const {
        return std::max(near(double(order) * carrier), (kBins + double(order) / 2) * step_);
    }
    bool covers(double hertz) const {
        return points_.size() > 1 && hertz >= points_.front().hertz && hertz <= points_.back().hertz;
    }
    /// The highest level within reach of a frequency; NaN where the trace has a gap.
    double levelAround(double hertz) const {
        double out = NAN;
        for (auto at = from(hertz - near(hertz)); at != points_.end() && at->hertz <= hertz + near(hertz);
             ++at)
            out = std::fmax(out, at->level);
        return out;
    }
    std::vector<TracePoint> peaks() const;

 private:
    std::vector<TracePoint>::const_iterator from(double hertz) const {
        return std::lower_bound(points_.begin(), points_.end(), hertz,
                                [](const TracePoint& p, double f) { return p.hertz < f; });
    }

    std::vector<TracePoint> points_;
    double floor_ = NAN, step_ = 0;
};

/// Going up and down once: a peak is told when the trace has fallen by the saddle since.
std::vector<TracePoint> Trace::peaks() const {
    std::vector<TracePoint> out;
    const double least = floor_ + kOverNoise;
    bool rising = true;
    TracePoint high{0, -INFINITY};
    double low = INFINITY;
    const auto tell = [&] {
        if (high.level >= least) out.push_back(high);
    };
    for (const TracePoint& p : points_) {
        if (rising) {
            if (p.level > high.level) high = p;
            if (p.level < high.level - kOverSaddle) {
                tell();
                rising = false;
                low = p.level;
            }
        } else {
            low = std::min(low, p.level);
            if (p.level > low + kOverSaddle) {
                rising = true;
                high = p;
            }
        }
    }
    if (rising && std::isfinite(high.level)) tell();
    return out;
}

/// "2 × VFO − BFO", the one of lowest order within reach; empty: none.
std::string productOf(double hertz, double near, const std::vector<Oscillator>& all) {
    std::string best;
    int bestOrder = kHighestOrder + 1;
    const auto term = [](int m, const std::string& name) {
        const int n = std::abs(m);
        return (n == 1 ? "" : std::to_string(n) + " × ") + name;
    };
    const auto consider = [&](int order, double f, auto words) {
        if (order >= bestOrder || std::abs(std::abs(f) - hertz) > near) return;
        bestOrder = order;
        best = words();
    };
    for (std::size_t i = 0; i < all.size(); ++i) {
        for (int m = 1; m <= kHighestOrder; ++m)
            consider(m, m * all[i].hertz, [&] { return term(m, all[i].name); });
        for (std::size_t j = i + 1; j < all.size(); ++j) {
            for (int m = 1; m < kHighestOrder; ++m) {
                for (int n = 1; m + n <= kHighestOrder; ++n) {
                    for (const int sign : {1, -1}) {
                        const double f = m * all[i].hertz + sign * n * all[j].hertz;
                        consider(m + n, f, [&] {
                            const bool turned = f < 0;
                            const std::string a = term(m, all[i].name), b = term(n, all[j].name);
                            return sign > 0 ? a + " + " + b : turned ? b + " − " + a : a + " − " + b;
                        });
                    }
                }
            }
        }
    }
    return best;
}

/// Below by at least what is required, or not, or within the uncertainty of it.
VerdictState judged(const TracePeak& peak, double uncertainty) {
    if (std::isnan(peak.required)) return VerdictState::cannotTell;
    const double spare = peak.below - peak.required;
    if (!peak.seen) return spare >= uncertainty ? VerdictState::pass : VerdictState::cannotTell;
    return spare >= uncertainty    ? VerdictState::pass
           : spare <= -uncertainty ? VerdictState::fail
                                   : VerdictState::cannotTell;
}

void name(TracePeak& peak, const Trace& trace, double carrier, const std::vector<Oscillator>& oscillators) {
    const auto order = std::lround(peak.hertz / carrier);
    if (order >= 2 && std::abs(peak.hertz - double(order) * carrier) <= trace.nearOf(carrier, order)) {
        peak.harmonic = int(order);
        peak.name = "harmonic " + std::to_string(order);
        return;
    }
    const std::string product = productOf(peak.hertz, trace.near(peak.hertz), oscillators);
    peak.name = product.empty() ? "not named" : product;
}

void addUnseen(Spectrum& out, const Trace& trace, double carrier, const SpectrumQuestion& q) {
    for (int order = 2; order <= q.harmonics; ++order) {
        const double hertz = order * carrier;
        const bool there = std::any_of(out.peaks.begin(), out.peaks.end(),
                                       [&](const TracePeak& p) { return p.harmonic == order; });
        const double level = trace.levelAround(hertz);
        if (there || !trace.covers(hertz) || std::isnan(level)) continue;
        TracePeak unseen{hertz, level, out.carrier.level - level, order, "harmonic " + std::to_string(order)};
        unseen.seen = false;
        out.peaks.push_back(std::move(unseen));
    }
}

void sum(Spectrum& out, const SpectrumQuestion& q) {
    const TracePeak* worst = nullptr;
    bool unsure = q.watts <= 0, covered = false;
    for (const TracePeak& p : out.peaks) {
        covered = covered || p.harmonic == 2;
        if (p.state == VerdictState::cannotTell) unsure = true;
        if (p.seen && (worst == nullptr || p.below < worst->below)) worst = &p;
    }
    const bool fails = std::any_of(out.peaks.begin(), out.peaks.end(),
                                   [](const TracePeak& p) { return p.state == VerdictState::fail; });
    out.state = fails                ? VerdictState::fail
                : unsure || !covered ? VerdictState::cannotTell
                                     : VerdictState::pass;
    if (worst == nullptr)
        out.sentence = "Nothing stands out of the noise beside the carrier.";
    else
        out.sentence = "The highest beside the carrier is " + worst->name + ", " + decimals(worst->below, 1) +
                       " dB below it at " + formatQuantity(worst->hertz, Unit::hertz, 6) + ".";
    if (worst != nullptr && worst->state == VerdictState::cannotTell && std::isfinite(worst->required))
        out.sentence += " That is within " + decimals(q.uncertainty, 0) + " dB of the limit of " +
                        decimals(worst->required, 0) + " dB, as near as an analyser is known.";
    if (out.carrier.hertz > 0 && !q.profile.speaksOf(out.carrier.hertz))
        out.sentence += " This limit does not speak of carriers at " +
                        formatQuantity(out.carrier.hertz, Unit::hertz, 3) +
                        ": choose another, ask your own rules.";
    if (!covered) out.sentence += " The trace does not cover the second harmonic.";
}

}  // namespace

Spectrum judgeSpectrum(std::vector<TracePoint> points, const SpectrumQuestion& q) {
    Spectrum out;
    const Trace trace(std::move(points));
    out.floor = trace.floor();
    std::vector<TracePoint> peaks = trace.peaks();
    if (peaks.empty()) {
        out.sentence = "Nothing stands out of the noise in this trace.";
        return out;
    }
    const auto byLevel = [](const TracePoint& a, const TracePoint& b) { return a.level < b.level; };
    auto carrier = std::max_element(peaks.begin(), peaks.end(), byLevel);
    if (q.carrier > 0) {
        auto best = peaks.end();
        for (auto p = peaks.begin(); p != peaks.end(); ++p) {
            const bool near =
                std::abs(p->hertz - q.carrier) <= std::max(0.01 * q.carrier, trace.near(q.carrier));
            if (near && (best == peaks.end() || p->level > best->level)) best = p;
        }
        if (best == peaks.end()) {
            out.sentence = "The carrier at " + formatQuantity(q.carrier, Unit::hertz, 6) +
                           " does not stand out of the noise in this trace.";
            return out;
        }
        carrier = best;
    }
    out.carrier = {carrier->hertz, carrier->level, 0, 1, "carrier"};
    // A carrier that was said is better known than the bin it stands in.
    const bool said = std::abs(out.carrier.hertz - q.carrier) <= trace.near(q.carrier);
    const double exact = q.carrier > 0 && said ? q.carrier : out.carrier.hertz;
    peaks.erase(carrier);
    if (peaks.size() > kMost) {
        std::partial_sort(peaks.begin(), peaks.begin() + kMost, peaks.end(),
                          [&](const auto& a, const auto& b) { return byLevel(b, a); });
        peaks.resize(kMost);
    }
    for (const TracePoint& p : peaks) {
        TracePeak peak;
        peak.hertz = p.hertz;
        peak.level = p.level;
        peak.below = out.carrier.level - p.level;
        name(peak, trace, exact, q.oscillators);
        out.peaks.push_back(std::move(peak));
    }
    addUnseen(out, trace, exact, q);
    std::sort(out.peaks.begin(), out.peaks.end(),
              [](const TracePeak& a, const TracePeak& b) { return a.hertz < b.hertz; });
    for (TracePeak& peak : out.peaks) {
        if (q.watts > 0 && q.profile.speaksOf(out.carrier.hertz))
            peak.required = requiredSuppression(q.profile, q.watts);
        peak.state = judged(peak, q.uncertainty);
    }
    sum(out, q);
    return out;
}

std::vector<TracePeak> ownProducts(const Spectrum& first, const Spectrum& more) {
    constexpr double kMoved = 4;  ///< [dB]: what is of the rig goes with its carrier
    std::vector<TracePeak> out;
    if (!(first.carrier.hertz > 0) || !(more.carrier.hertz > 0)) return out;
    for (const TracePeak& p : first.peaks) {
        if (!p.seen) continue;
        const auto same = std::find_if(more.peaks.begin(), more.peaks.end(), [&](const TracePeak& other) {
            return std::abs(other.hertz - p.hertz) <= 2 * kNear * p.hertz ||
                   (p.harmonic > 0 && other.harmonic == p.harmonic);
        });
        if (same != more.peaks.end() && same->below > p.below + kMoved) out.push_back(p);
    }
    return out;
}

}  // namespace ombrek
