#include "station/parts_in/one_cause.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <tuple>

#include "core/quantity/preferred.h"
#include "station/parts_in/parts_in.h"

namespace ombrek {
namespace {

constexpr double kAgree = 0.10;      ///< ratios of one line this near each other are one (common practice)
constexpr double kScale = 0.03;      ///< ratios of a meter's scale agree more closely
constexpr double kLeastOff = 0.015;  ///< below this a scale is not off

struct Read {
    const Part* part;
    double value, ratio;
    bool off;
    bool replaced = false;  ///< it was off, and what is there now is right
};

double medianOf(std::vector<double> values) {
    std::sort(values.begin(), values.end());
    return values[values.size() / 2];
}

std::string countWord(std::size_t count) {
    static constexpr std::array<const char*, 13> words{"none", "one",    "two",   "three", "four",
                                                       "five", "six",    "seven", "eight", "nine",
                                                       "ten",  "eleven", "twelve"};
    return count < words.size() ? words[count] : std::to_string(count);
}

/// The parts with their last readings.
std::vector<Read> readsOf(const Kit& kit, const Build& build) {
    std::vector<Read> out;
    for (const Part& part : kit.parts) {
        const Reading* reading = build.last(Subject::part(part.ref));
        if (!part.measurable() || reading == nullptr || !std::isfinite(reading->value) ||
            !(reading->value > 0))
            continue;
        const VerdictState state = partVerdict(part, build).state;
        out.push_back({&part, reading->value, reading->value / part.nominal,
                       state == VerdictState::fail || state == VerdictState::doubtful});
    }
    return out;
}

/// What is right by now and was outside its limits before speaks for how the line was packed, too.
void recallReplaced(const Build& build, std::vector<Read>& reads) {
    std::map<std::string, Read*> right;
    for (Read& r : reads) {
        if (!r.off) right[r.part->ref] = &r;
    }
    for (const Reading& r : build.readings) {
        const auto hit = r.subject.is(Subject::Kind::part) ? right.find(r.subject.id) : right.end();
        if (hit == right.end() || !std::isfinite(r.value) || !(r.value > 0)) continue;
        const Part& part = *hit->second->part;
        if (judgeReading(r, partLimits(part), build.rule, part.unit).state == VerdictState::fail)
            *hit->second = {&part, r.value, r.value / part.nominal, true, true};
    }
}

/// The readings whose ratio lies near the middle of all.
std::vector<const Read*> together(const std::vector<const Read*>& reads, double within, double& ratio) {
    std::vector<double> ratios;
    for (const Read* r : reads) ratios.push_back(r->ratio);
    ratio = medianOf(ratios);
    std::vector<const Read*> out;
    for (const Read* r : reads) {
        if (std::fabs(r->ratio / ratio - 1) <= within) out.push_back(r);
    }
    return out;
}

std::vector<std::string> refsOf(const std::vector<const Read*>& reads) {
    std::vector<std::string> out;
    for (const Read* r : reads) out.push_back(r->part->ref);
    return out;
}

/// Everything of a kind by one ratio: the meter's scale.
std::vector<OneCause> scales(const std::vector<Read>& reads) {
    std::vector<OneCause> out;
    std::map<PartKind, std::vector<const Read*>> kinds;
    for (const Read& r : reads) kinds[r.part->kind].push_back(&r);
    for (const auto& [kind, all] : kinds) {
        double ratio = 1;
        const auto near = together(all, kScale, ratio);
        double least = INFINITY, most = 0;
        for (const Read* r : near) {
            least = std::min(least, r->part->nominal);
            most = std::max(most, r->part->nominal);
        }
        const bool off = std::any_of(near.begin(), near.end(), [](const Read* r) { return r->off; });
        if (near.size() < 4 || near.size() * 10 < all.size() * 8 || most < 1.5 * least || !off ||
            std::fabs(ratio - 1) < kLeastOff)
            continue;
        OneCause cause;
        cause.what = OneCause::What::scale;
        cause.refs = refsOf(near);
        cause.ratio = ratio;
        cause.head =
            "Every " + std::string(word(kind)) + " reads " + decimals(100 * (ratio - 1), 0, true) + " %";
        cause.sentence = countWord(near.size()) + " of " + countWord(all.size()) +
                         " readings, of several values, are off by the same "
                         "ratio: that is the meter's scale, not the bag. Hold it against a part you trust "
                         "before you write to anybody.";
        cause.sentence.front() = char(std::toupper(static_cast<unsigned char>(cause.sentence.front())));
        out.push_back(std::move(cause));
    }
    return out;
}

/// The value that was packed, as it is sold: of E12 where one is near, else as read.
double soldAs(double value) {
    const double near = nearestPreferred(value, Series::e12);
    return std::fabs(near / value - 1) < kAgree ? near : value;
}

}  // namespace

std::vector<OneCause> oneCauses(const Kit& kit, const Build& build) {
    std::vector<Read> reads = readsOf(kit, build);
    std::vector<OneCause> out = scales(reads);
    recallReplaced(build, reads);
    const auto explained = [&](const Read& r) {
        return std::any_of(out.begin(), out.end(), [&](const OneCause& cause) {
            return std::find(cause.refs.begin(), cause.refs.end(), r.part->ref) != cause.refs.end();
        });
    };
    std::map<std::tuple<PartKind, double, double>, std::vector<const Read*>> lines;
    for (const Read& r : reads) {
        if (!explained(r)) lines[{r.part->kind, r.part->nominal, r.part->tolerance}].push_back(&r);
    }
    for (const auto& [line, all] : lines) {
        std::vector<const Read*> off;
        for (const Read* r : all) {
            if (r->off) off.push_back(r);
        }
        if (off.size() < 3 || off.size() * 10 < all.size() * 6) continue;
        double ratio = 1;
        const auto near = together(off, kAgree, ratio);
        if (near.size() < 3 || near.size() * 10 < all.size() * 6) continue;
        const Part& part = *near.front()->part;
        const double value = soldAs(ratio * part.nominal);
        OneCause cause;
        std::vector<const Read*> left;
        for (const Read* r : near) {
            if (!r->replaced) left.push_back(r);
        }
        if (left.empty()) continue;
        cause.refs = refsOf(left);
        cause.ratio = ratio;
        const bool every = near.size() == all.size();
        cause.head = (every ? "All " + countWord(near.size())
                            : countWord(near.size()) + " of " + countWord(all.size())) +
                     " " + part.value + " read " + formatQuantity(value, part.unit, 3);
        cause.head.front() = char(std::toupper(static_cast<unsigned char>(cause.head.front())));
        if (left.size() < near.size())
            cause.head += ", " + countWord(near.size() - left.size()) + " replaced";
        cause.sentence = "They are off by one ratio, " + decimals(ratio, 2) +
                         ": the line was packed with another value. One remedy serves them all.";
        out.push_back(std::move(cause));
    }
    return out;
}

std::vector<BagTrouble> toldOnce(std::vector<BagTrouble> troubles, const std::vector<OneCause>& causes) {
    std::vector<BagTrouble> out;
    for (const OneCause& cause : causes) {
        BagTrouble trouble;
        trouble.what = BagTrouble::What::anotherValue;
        trouble.ref = cause.refs.front();
        if (cause.what == OneCause::What::packed)
            trouble.alike.assign(cause.refs.begin() + 1, cause.refs.end());
        trouble.head = cause.head;
        trouble.sentence = cause.sentence;
        trouble.state = cause.what == OneCause::What::scale ? VerdictState::doubtful : VerdictState::fail;
        out.push_back(std::move(trouble));
    }
    for (BagTrouble& trouble : troubles) {
        const bool told =
            trouble.what != BagTrouble::What::missing &&
            std::any_of(causes.begin(), causes.end(), [&](const OneCause& cause) {
                return std::find(cause.refs.begin(), cause.refs.end(), trouble.ref) != cause.refs.end();
            });
        if (!told) out.push_back(std::move(trouble));
    }
    return out;
}

}  // namespace ombrek
