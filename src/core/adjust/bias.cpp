#include "core/adjust/bias.h"

#include <algorithm>
#include <optional>

namespace ombrek {
namespace {

constexpr double kEnd = 0.02;         ///< counts as the end itself [travel]
constexpr double kFinest = 0.002;     ///< that a hand can turn [travel]
constexpr double kUsualVolts = 14;    ///< across a bias' travel at most, when nobody says
constexpr double kStepVolts = 0.12;   ///< two decades of a junction: 60 mV a decade
constexpr double kDecades = 2;        ///< that such a step may bring at most
constexpr double kTouch = 0.01;       ///< of the travel, back
constexpr double kNear = 0.025;       ///< so closely is known where it begins to rise [travel]
constexpr double kScatter = 4;        ///< times: above the unrest
constexpr double kOfBaseline = 0.01;  ///< of the baseline: less is no rise
constexpr double kOfRise = 0.05;      ///< of the rise wanted: less is none yet
constexpr double kLeast = 0.5e-3;     ///< that is called a rise when nothing else is known [A]
constexpr double kMatched = 1.0 / 3, kDead = 0.2;

std::string percent(double position) { return decimals(position * 100, 1) + " %"; }

/// Positions from the safe end on, as the search sees them.
class Way {
 public:
    Way(const std::vector<AdjusterReading>& readings, const BiasRule& rule) : rule_(rule) {
        for (const AdjusterReading& r : readings) {
            if (r.position >= 0 && r.position <= 1 && !std::isnan(r.reading))
                all_.push_back({rule.safe == SafeEnd::high ? 1 - r.position : r.position, r.reading});
        }
    }
    BiasState state();

 private:
    struct At {
        double x, current;
    };
    bool baseline();
    double wanted() const { return rule_.rise > 0 ? rule_.rise : out_.unrest; }
    double ceiling() const { return rule_.never > 0 ? rule_.never : out_.baseline + 20 * wanted(); }
    double step(double rise) const;
    /// A place of the search as the builder sees it.
    double seen(double x) const { return rule_.safe == SafeEnd::high ? 1 - x : x; }
    BiasState go(double x, VerdictState state, std::string sentence);
    BiasState justRises();
    BiasState toRise();
    BiasState upFrom(const At& base);

    const BiasRule& rule_;
    std::vector<At> all_;
    BiasState out_;
};

BiasState Way::go(double x, VerdictState state, std::string sentence) {
    // Never rounded to the far side.
    x = std::clamp(std::floor(x * 1000 + 1e-6) / 1000, 0.0, 1.0);
    out_.next = seen(x);
    out_.state = state;
    out_.sentence = std::move(sentence);
    return out_;
}

/// The current at the safe end, and how much it moves by itself; @return false when it is not proved yet
bool Way::baseline() {
    double sum = 0, low = INFINITY, high = -INFINITY;
    int n = 0;
    for (const At& at : all_) {
        if (at.x > kEnd) continue;
        sum += at.current, ++n;
        low = std::min(low, at.current);
        high = std::max(high, at.current);
    }
    if (n < 2) return false;
    out_.baseline = sum / n;
    out_.unrest = std::max({kScatter * (high - low) / 2, kOfBaseline * std::abs(out_.baseline),
                            rule_.rise > 0 ? kOfRise * rule_.rise : kLeast});
    return true;
}

/// Whatever the transistor is, this brings it no nearer to the ceiling than half of what is left.
double Way::step(double rise) const {
    const double full = kStepVolts / (rule_.volts > 0 ? rule_.volts : kUsualVolts);
    const double room = ceiling() - out_.baseline;
    const double now = std::max(rise, out_.unrest);
    if (!(room > 2 * now)) return kFinest;
    return std::clamp(full * std::log10(room / now / 2) / kDecades, kFinest, full);
}

BiasState Way::upFrom(const At& base) {
    double by = step(base.current - out_.baseline);
    // What was read to be too much before is come at by halves.
    for (const At& at : all_) {
        if (at.x > base.x && at.current - out_.baseline > wanted() + rule_.tolerance)
            by = std::min(by, std::max(kFinest, (at.x - base.x) / 2));
    }
    if (base.x >= 1 - 1e-9)
        return go(1, VerdictState::fail,
                  "The whole travel gives no such current: is the stage fed, and its transistor alive?");
    const double to = std::min(1.0, base.x + by);
    return go(to, VerdictState::doubtful,
              std::string("Watch the meter and turn slowly, no further than that; stop as soon as it ") +
                  (rule_.rise > 0 ? "rises by " + formatQuantity(rule_.rise, rule_.unit, 3) : "rises") + ".");
}

BiasState Way::justRises() {
    const At& last = all_.back();
    const auto rose = [&](const At& at) { return at.current - out_.baseline > out_.unrest; };
    std::optional<double> first;
    double quiet = 0;  // the furthest below it that did not rise
    for (const At& at : all_) {
        if (at.x > kEnd && rose(at)) first = first ? std::min(*first, at.x) : at.x;
    }
    for (const At& at : all_) {
        if (first && at.x < *first && !rose(at)) quiet = std::max(quiet, at.x);
    }
    out_.first = first ? seen(*first) : NAN;
    if (!first) return upFrom(last);
    const double back = std::max(0.0, *first - kTouch);
    const bool known = *first - quiet <= kNear;  // where it begins to rise
    // Turned further than was told, nobody knows what a touch less draws: down to where it was quiet.
    if (rose(last) && !known)
        return go(quiet, VerdictState::doubtful,
                  "It rises: down at once, to " + percent(seen(quiet)) + ", where it did not.");
    if (rose(last))
        return go(back, VerdictState::doubtful, "It rises. Back a touch, to " + percent(seen(back)) + ".");
    if (!known && last.x < *first) return upFrom(last);
    if (last.x < back - 0.05)
        return go(back, VerdictState::doubtful, "It rose further up: back to " + percent(seen(back)) + ".");
    if (last.x > *first)  // it cooled, or the meter moved: the rise is looked for again from below
        return go(back, VerdictState::doubtful, "Back a touch, to " + percent(seen(back)) + ".");
    return go(last.x, VerdictState::pass,
              "It just rises at " + percent(out_.first) + " and stands a touch below.");
}

BiasState Way::toRise() {
    const At& last = all_.back();
    const double rise = last.current - out_.baseline;
    if (std::abs(rise - rule_.rise) <= rule_.tolerance)
        return go(last.x, VerdictState::pass,
                  formatQuantity(rise, rule_.unit, 3) + " over the " +
                      formatQuantity(out_.baseline, rule_.unit, 3) + " at its safe end: as wanted.");
    if (rise > rule_.rise) {
        double below = 0;
        for (const At& at : all_) {
            if (at.x < last.x && at.current - out_.baseline <= rule_.rise) below = std::max(below, at.x);
        }
        return go(below, VerdictState::doubtful,
                  "More than wanted: down to " + percent(seen(below)) + ", where it read less.");
    }
    return upFrom(last);
}

BiasState Way::state() {
    const double safe = seen(0);
    if (all_.empty())
        return go(0, VerdictState::notDone,
                  "Fully down first: turn it to " + percent(safe) + " and read the current there.");
    // Where nobody said what must never be reached, twenty times what is wanted is too much as well.
    const bool based = baseline();
    const double most = rule_.never > 0 ? rule_.never : based ? ceiling() : INFINITY;
    out_.over = all_.back().current >= most;
    if (out_.over)
        return go(0, VerdictState::fail,
                  all_.back().x <= kEnd
                      ? "Even at its safe end it reads what must never be reached: power off, and look for "
                        "the fault."
                      : "Too much: down at once, to " + percent(safe) + ".");
    if (all_.front().x > kEnd && all_.back().x > kEnd && !based)
        return go(
            0, VerdictState::doubtful,
            "Nothing proves that it began fully down: turn it to " + percent(safe) + " and read there.");
    if (!based)
        return go(0, VerdictState::doubtful,
                  "Read once more fully down: what moves by itself there is no rise.");
    out_.rise = all_.back().current - out_.baseline;
    if (!(ceiling() > out_.baseline + wanted()))
        return go(0, VerdictState::fail,
                  "What is drawn at the safe end leaves no room below what must never be reached: look for "
                  "the fault first.");
    return rule_.rise > 0 ? toRise() : justRises();
}

}  // namespace

BiasState biasState(const std::vector<AdjusterReading>& readings, const BiasRule& rule) {
    return Way(readings, rule).state();
}

Shares sharesOf(double total, const std::vector<double>& without, const std::vector<std::string>& names) {
    Shares out;
    double sum = 0;
    std::size_t known = 0;
    for (const double rest : without) {
        out.each.push_back(total - rest);
        if (std::isnan(rest)) continue;
        sum += total - rest, ++known;
    }
    if (known < without.size() || known < 2 || !(sum > 0)) {
        out.state = known == 0 ? VerdictState::notDone : VerdictState::cannotTell;
        out.sentence = "Lift or pull each of them in turn and read what is left.";
        return out;
    }
    const double mean = sum / double(known);
    out.state = VerdictState::pass;
    out.sentence = "They draw alike, within a third.";
    for (std::size_t i = 0; i < out.each.size(); ++i) {
        const std::string name = i < names.size() ? names[i] : std::to_string(i + 1);
        if (out.each[i] < kDead * mean) {
            out.state = VerdictState::fail;
            out.sentence = name + " draws next to nothing: dead, or not soldered.";
            return out;
        }
        if (std::abs(out.each[i] - mean) > kMatched * mean && out.state == VerdictState::pass) {
            out.state = VerdictState::doubtful;
            out.sentence = name + " draws " + (out.each[i] > mean ? "more" : "less") +
                           " than the others by over a third: match them, or exchange it.";
        }
    }
    return out;
}

}  // namespace ombrek
