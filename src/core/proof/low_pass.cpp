#include "core/proof/low_pass.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace ombrek {
namespace {

/// A number from 0 to 1 by place and seed: the same run on every machine (splitmix64).
class Dice {
 public:
    explicit Dice(std::uint64_t seed) : state_(seed) {}
    double next() {
        std::uint64_t z = (state_ += 0x9e3779b97f4a7c15ULL);
        z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9ULL;
        z = (z ^ (z >> 27)) * 0x94d049bb133111ebULL;
        return double((z ^ (z >> 31)) >> 11) * 0x1.0p-53;
    }

 private:
    std::uint64_t state_;
};

/// The value below which a share of them lies.
float share(std::vector<float>& values, double part) {
    const auto at = values.begin() + std::ptrdiff_t(part * double(values.size() - 1));
    std::nth_element(values.begin(), at, values.end());
    return *at;
}

std::vector<double> carrierAndHarmonics(const FilterQuestion& q) {
    std::vector<double> out;
    for (int order = 1; order <= std::max(2, q.harmonics); ++order) out.push_back(order * q.carrier);
    return out;
}

FilterFigures figuresFrom(const LadderSweep& s, std::size_t first, const FilterQuestion& q) {
    FilterFigures out;
    out.loss = s.loss(first);
    out.worstMargin = std::numeric_limits<double>::infinity();
    for (int order = 2; order <= std::max(2, q.harmonics); ++order) {
        const double below = q.before(order) + s.loss(first + std::size_t(order) - 1) - out.loss;
        out.below.push_back(below);
        if (below - q.required >= out.worstMargin) continue;
        out.worstMargin = below - q.required;
        out.worstOrder = order;
    }
    return out;
}

/// What counts: more is better.
double worth(const FilterFigures& f, const FilterFigures& before, SqueezeFor aim) {
    if (aim == SqueezeFor::power) {
        const bool kept = f.worstMargin >= std::min(before.worstMargin, 3.0);
        return kept ? -f.loss : -std::numeric_limits<double>::infinity();
    }
    return f.loss <= before.loss + 0.2 ? f.worstMargin : -std::numeric_limits<double>::infinity();
}

}  // namespace

std::vector<LadderElement> elementsOf(const std::vector<FilterPart>& filter) {
    std::vector<LadderElement> out;
    for (const FilterPart& part : filter) out.push_back(part.element);
    return out;
}

double harmonicOf(Final stage, int order) {
    constexpr double kBalance = 20;
    const double pulse = 20 * std::log10(double(order));
    return stage == Final::pushPull && order % 2 == 0 ? pulse + kBalance : pulse;
}

double FilterQuestion::before(int order) const {
    const std::size_t at = std::size_t(order) - 2;
    return at < finals.size() && std::isfinite(finals[at]) ? finals[at] : harmonicOf(stage, order);
}

FilterFigures filterFigures(const std::vector<LadderElement>& filter, const FilterQuestion& q) {
    return figuresFrom(sweep(filter, carrierAndHarmonics(q), q.source, q.load), 0, q);
}

FilterBand toleranceBand(const std::vector<FilterPart>& filter, const FilterQuestion& q,
                         const std::vector<double>& frequencies, int trials, std::uint64_t seed,
                         const std::function<bool(double)>& progress) {
    FilterBand out;
    out.frequencies = frequencies;
    const std::size_t drawn = frequencies.size();
    std::vector<double> all = frequencies;
    for (const double f : carrierAndHarmonics(q)) all.push_back(f);
    Dice dice(seed);
    auto elements = elementsOf(filter);
    LadderSweep s;
    std::vector<std::vector<float>> taken(drawn);
    for (auto& row : taken) row.reserve(std::size_t(std::max(trials, 0)));
    std::vector<float> losses;
    int met = 0;
    for (int t = 0; t < trials; ++t) {
        if (t % 250 == 0 && progress && !progress(double(t) / trials)) break;
        for (std::size_t i = 0; i < filter.size(); ++i)
            elements[i].value =
                filter[i].element.value * (1 + filter[i].spread / 100 * (2 * dice.next() - 1));
        sweepInto(s, elements, all, q.source, q.load);
        // Power that comes through; its logarithm is taken of the few that are kept.
        for (std::size_t k = 0; k < drawn; ++k)
            taken[k].push_back(float(s.s21re[k] * s.s21re[k] + s.s21im[k] * s.s21im[k]));
        const FilterFigures f = figuresFrom(s, drawn, q);
        losses.push_back(float(f.loss));
        met += f.worstMargin >= 0;
        ++out.trials;
    }
    if (out.trials == 0) return out;
    const auto decibels = [](float power) { return -10 * std::log10(std::max(double(power), 1e-30)); };
    for (auto& row : taken) {
        out.high.push_back(decibels(share(row, 0.05)));
        out.middle.push_back(decibels(share(row, 0.5)));
        out.low.push_back(decibels(share(row, 0.95)));
    }
    out.chance = double(met) / out.trials;
    out.lossLow = share(losses, 0.05);
    out.lossHigh = share(losses, 0.95);
    return out;
}

TurnsMore turnsToMeet(const std::vector<FilterPart>& filter, const std::vector<int>& turns,
                      const FilterQuestion& q) {
    constexpr int kMost = 6;
    TurnsMore out;
    out.filter = elementsOf(filter);
    out.after = filterFigures(out.filter, q);
    const double loss = out.after.loss;
    std::vector<int> now = turns;
    now.resize(filter.size());
    while (out.after.worstMargin < 1 && int(out.coils.size()) < kMost) {
        TurnsMore best;
        std::size_t coil = filter.size();
        for (std::size_t i = 0; i < filter.size(); ++i) {
            if (!filter[i].coil() || now[i] < 1) continue;
            TurnsMore tried = out;
            tried.filter[i].value *= std::pow(double(now[i] + 1) / now[i], 2);
            tried.after = filterFigures(tried.filter, q);
            const double most = coil < filter.size() ? best.after.worstMargin : out.after.worstMargin + 0.1;
            if (tried.after.loss > loss + 0.5 || tried.after.worstMargin <= most) continue;
            best = tried;
            coil = i;
        }
        if (coil == filter.size()) break;
        ++now[coil];
        best.coils.push_back(filter[coil].ref);
        out = best;
    }
    return out;
}

namespace {

/// Which way a coil may be bent: 1 squeezed, −1 spread, 0 both.
int onlyWay(const FilterPart& part) {
    if (!part.measured || !(part.wanted > 0)) return 0;
    const double off = 100 * (part.element.value / part.wanted - 1);
    return off > part.spread ? -1 : off < -part.spread ? 1 : 0;
}

}  // namespace

std::vector<Squeeze> whichToSqueeze(const std::vector<FilterPart>& filter, const FilterQuestion& q,
                                    SqueezeFor aim, double reach) {
    std::vector<Squeeze> out;
    const FilterFigures before = filterFigures(elementsOf(filter), q);
    const double least = aim == SqueezeFor::power ? 0.02 : 0.2;
    for (std::size_t i = 0; i < filter.size(); ++i) {
        if (!filter[i].coil()) continue;
        Squeeze best;
        best.ref = filter[i].ref;
        best.before = best.after = before;
        double most = worth(before, before, aim) + least;
        const int way = onlyWay(filter[i]);
        for (double percent = -reach; percent <= reach + 1e-9; percent += 0.5) {
            if (way * percent < 0) continue;
            auto elements = elementsOf(filter);
            elements[i].value *= 1 + percent / 100;
            const FilterFigures f = filterFigures(elements, q);
            const double now = worth(f, before, aim);
            if (now <= most) continue;
            most = now;
            best.percent = percent;
            best.after = f;
            best.filter = elements;
        }
        if (!best.filter.empty()) out.push_back(best);
    }
    std::sort(out.begin(), out.end(), [&](const Squeeze& a, const Squeeze& b) {
        return worth(a.after, before, aim) > worth(b.after, before, aim);
    });
    return out;
}

}  // namespace ombrek
