#include <algorithm>
#include <cmath>
#include <limits>

#include "core/coil/winding.h"
#include "practice/resonance_curve.h"
#include "practice/truth.h"
#include "station/tune/tune_rounds.h"

// What the practice rig answers to its adjusters.

namespace ombrek {
namespace {

constexpr double kHotTimes = 4;  ///< of the current that is wanted: a final without its sink (from memory)
constexpr int kHotReadings = 4;
constexpr double kNothing = std::numeric_limits<double>::quiet_NaN();
constexpr double kOscillates = 0.25;  ///< of its usual current, below which an oscillator stops
constexpr double kPull = 0.35;        ///< that a partner's null moves with one [travel by travel]
constexpr double kCross = 0.15;       ///< that a partner's peak does
constexpr double kPeakWidth = 0.12;   ///< half of a generic peak [travel]
constexpr double kSeenWidth = 0.08;   ///< half of a contrast's window [travel]
constexpr double kHeard = 1;          ///< difference that an ear is sure of [dB], common practice
constexpr double kReceives = 0.035;   ///< current of a rig without a circuit, its finals shut [A]
constexpr double kColdOff = 40e-6, kWarmsIn = 120;  ///< of a cold oscillator, and its time [s]

/// A transistor from nothing over its subthreshold to its square law [A], the bias' voltage over its own
/// threshold. Source: the interpolation of Enz, Krummenacher and Vittoz 1995.
double drain(double over) {
    constexpr double kGain = 0.08, kSlope = 1.4, kThermal = 0.02585;
    const double x = std::log1p(std::exp(over / (2 * kSlope * kThermal)));
    return kGain * std::pow(2 * kSlope * kThermal * x, 2);
}

}  // namespace

/// How far an adjuster is from its best place, with what its partners pull [travel].
double PracticeTruth::off(const Adjustment& a) const {
    const auto own = [&](const Adjustment& of) {
        return position(of.id) - 0.5 - 0.22 * scatter("adjust:" + of.id);
    };
    double out = own(a);
    for (const Adjustment* other : partnersOf(kit_, a))
        if (other->id != a.id) out += kCross * own(*other);
    return out;
}

double PracticeTruth::peakResponse(const Adjustment& a) {
    const Coil* coil = kit_.coil(a.coil);
    const bool band = coil != nullptr && coil->tune;
    double amplitude = 1;
    if (band) {
        const double rated = kit_.ratings.frequency;
        const bool within = rated >= coil->tune->low && rated <= coil->tune->high;
        amplitude = resonanceCurve(within ? rated : std::sqrt(coil->tune->low * coil->tune->high),
                                   tuned(*coil->tune, coil->ref, position(a.id)));
    } else if (!a.partners.empty()) {  // one signal through all of them
        for (const Adjustment* stage : partnersOf(kit_, a))
            amplitude /= std::hypot(1.0, off(*stage) / kPeakWidth);
    } else {
        amplitude = resonanceCurve(1.0, 1.0 + 0.05 * (position(a.id) - 0.5));
    }
    if (a.unit == Unit::watt && (band || kit_.ratings.transmits())) return power(a.band);
    return 0.8 * amplitude * circuit().works("receive");
}

/// The low end goes with the coil above all, the high end with the trimmer, and each with the other.
double PracticeTruth::ranged(const Adjustment& a) const {
    constexpr double kOwn = 0.06, kOther = 0.025;  // of the frequency, over the whole travel
    double moved = 0;
    for (const Adjustment* of : partnersOf(kit_, a)) {
        const double off = position(of->id) - 0.5 - 0.22 * scatter("adjust:" + of->id);
        moved += (of->id == a.id ? kOwn : kOther) * off;
    }
    return a.target * (1 - moved);
}

double PracticeTruth::setResponse(const Adjustment& a) {
    const double x = a.safe == SafeEnd::high ? 1 - position(a.id) : position(a.id);
    if (a.unit == Unit::hertz && circuit().works(a.id) < kOscillates) return kNothing;
    if (a.kind == Adjustment::Kind::range && !a.partners.empty()) return drifted(ranged(a));
    if (const Coil* coil = kit_.coil(a.coil); coil != nullptr && coil->tune)
        return drifted(tuned(*coil->tune, a.coil, x));
    if (a.unit == Unit::hertz) {  // a trimmer pulls a crystal by a hundred parts per million or so
        const double pull = 200e-6 * (0.45 + 0.1 * scatter("adjust:" + a.id) - x) / (1 + 0.5 * x);
        return drifted(a.target * (1 + pull));
    }
    if (a.unit == Unit::ampere) {
        if (const auto drawn = circuit().currentBy(a.adjuster, x, "key down")) return *drawn;
    }
    if (a.kind == Adjustment::Kind::level)
        return 2 * a.target * std::pow(x, 1.5) * (1 + 0.2 * scatter("adjust:" + a.id));
    const double over = std::max(0.0, x - 0.3);  // a bias: nothing, then a square law
    return 6.0 * a.target * over * over;
}

/// What the finals draw over what the rig draws with them shut.
double PracticeTruth::biased(const Adjustment& a) {
    const double x = a.safe == SafeEnd::high ? 1 - position(a.id) : position(a.id);
    if (const auto drawn = circuit().currentBy(a.adjuster, x, "key down")) return *drawn;
    const double volts = (a.volts > 0 ? a.volts : 5.0) * x;
    double out = kReceives;
    const std::vector<std::string> each = a.each.empty() ? std::vector<std::string>{a.adjuster} : a.each;
    for (const std::string& ref : each) out += drain(volts - 2.1 - 0.25 * scatter("threshold:" + ref));
    return out;
}

double PracticeTruth::drifted(double hertz) const {
    return onFor_ < 0 ? hertz : hertz * (1 - kColdOff * std::exp(-onFor_ / kWarmsIn));
}

/// A bridge that balances near the middle of each adjuster, on a floor; partners pull each other by a third.
double PracticeTruth::nulled(const Adjustment& a) const {
    std::vector<double> all;
    for (const Adjustment* of : partnersOf(kit_, a)) {
        if (of->kind == Adjustment::Kind::null)
            all.push_back(position(of->id) - 0.47 - 0.1 * scatter("adjust:" + of->id));
    }
    double left = 0;
    for (std::size_t i = 0; i < all.size(); ++i) {
        double sum = all[i];
        for (std::size_t j = 0; j < all.size(); ++j) sum += j == i ? 0 : kPull * all[j];
        left = std::hypot(left, sum);
    }
    return 0.01 + left;
}

double PracticeTruth::adjustment(const std::string& id) {
    const Adjustment* a = kit_.adjustment(id);
    if (a == nullptr) return kNothing;
    switch (a->kind) {
        case Adjustment::Kind::null:
            return nulled(*a);
        case Adjustment::Kind::peak:
            return peakResponse(*a);
        case Adjustment::Kind::bias:
            return biased(*a);
        case Adjustment::Kind::contrast:
            return kNothing;  // nobody's instrument sees it
        default:
            return setResponse(*a);
    }
}

std::string PracticeTruth::shown(const Subject& subject, double before) {
    const Adjustment* a = kit_.adjustment(subject.id);
    if (a == nullptr || !subject.is(Subject::Kind::adjustment)) return "";
    const double stands = position(a->id);
    if (a->kind == Adjustment::Kind::contrast)
        return std::abs(stands - 0.62 - 0.1 * scatter("adjust:" + a->id)) < kSeenWidth ? "seen" : "nothing";
    const double level = adjustment(a->id);
    if (!std::isfinite(level) || !(level > 0)) return "";
    if (!std::isnan(before)) {
        settings_[subject] = before;
        const double then = adjustment(a->id);
        settings_[subject] = stands;
        const double rise = 20 * std::log10(level / then);
        return rise > kHeard ? "louder" : rise < -kHeard ? "softer" : "the same";
    }
    const double share = std::clamp(level / 0.95, 0.0, 1.0);  // at the peak a little is left
    const ReadingScale& scale = a->scale;
    if (scale.kind == ReadingScale::Kind::sMeter)
        return std::to_string(std::clamp(int(std::lround(9 + 20 * std::log10(share) / 3)), 0, 9));
    if (scale.kind == ReadingScale::Kind::light) return std::to_string(int(std::lround(5 * share)));
    if (scale.kind != ReadingScale::Kind::bar) return "";
    // Each range goes twice as far as the one before it.
    int range = 1;
    double top = std::pow(0.5, scale.ranges - 1);
    while (range < scale.ranges && share > top) ++range, top *= 2;
    const std::string blocks = std::to_string(int(std::lround(scale.blocks * std::min(1.0, share / top))));
    return scale.ranges > 1 ? std::to_string(range) + " " + blocks : blocks;
}

/// A counter with a reference of its own and an offset of its own; `known` is what the subject was set to.
double PracticeTruth::counted(const Subject& subject) const {
    const auto known = settings_.find(subject);
    if (known == settings_.end() || !(known->second > 0)) return kNothing;
    return known->second * (1 + 9e-6 * scatter("counter")) + 400 * scatter("counter offset");
}

/// The tuned frequency over the knob's travel: denser at one end, as a variable capacitor has it.
double PracticeTruth::dialled(const Subject& subject) const {
    const auto knob = settings_.find(subject);
    double low = 0, high = 0;
    for (const Adjustment& a : kit_.adjustments) {
        if (a.kind != Adjustment::Kind::range) continue;
        low = low > 0 ? std::min(low, a.target) : a.target;
        high = std::max(high, a.target);
    }
    if (!(low > 0)) low = kit_.ratings.frequency;
    if (!(high > low)) high = low * 1.005;
    if (knob == settings_.end() || !(low > 0)) return kNothing;
    const double x = std::clamp(knob->second, 0.0, 1.0);
    return low + (high - low) * (0.72 * x + 0.28 * x * x);
}

/// A batch as a bag has it: within some hundred hertz of the mark.
double PracticeTruth::crystal(const std::string& id) const {
    for (const Part& p : kit_.parts) {
        const auto marked = parseQuantity(p.value.substr(0, p.value.find_first_of(",;")), Unit::hertz);
        if (p.kind == PartKind::crystal && marked && marked->value > 0)
            return marked->value + 180 * scatter("crystal:" + id);
    }
    return kNothing;
}

/// A final whose bias is left far too high dies of the heat: at the fourth reading in a row, so that it may
/// be turned down in time.
double PracticeTruth::warmed(const std::string& id, double reads) {
    const Adjustment* a = kit_.adjustment(id);
    if (a == nullptr || a->safe == SafeEnd::none || a->unit != Unit::ampere || dead_) return reads;
    const double hot = a->target > 0 ? kHotTimes * (a->target + a->tolerance) : a->never;
    hot_ = hot > 0 && reads > hot ? hot_ + 1 : 0;
    if (hot_ < kHotReadings) return reads;
    for (const RestsOn& row : kit_.restsOn) {
        if (row.what != Subject::adjustment(id)) continue;
        for (const Subject& on : row.on) {
            dead_ = circuit().seed(on.id + " drain and source shorted") ||
                    circuit().seed(on.id + " collector and emitter shorted");
            if (dead_) return adjustment(id);
        }
    }
    return reads;
}

}  // namespace ombrek
