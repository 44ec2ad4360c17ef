#include "station/proof/frequencies.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

/// Those of a kind that hold, the last for each key.
template <class Key, class KeyOf>
std::map<Key, Reading> lastOf(const Build& build, Subject::Kind kind, KeyOf keyOf) {
    std::map<Key, Reading> out;
    for (const Reading& r : build.readings) {
        if (r.subject.is(kind) && r.id > build.changedAfter(r.subject)) out[keyOf(r)] = r;
    }
    return out;
}

/// Numbers before words, by size.
struct ByNumber {
    static int number(const std::string& id) {
        const bool digits =
            !id.empty() && id.size() < 7 && id.find_first_not_of("0123456789") == std::string::npos;
        return digits ? std::stoi(id) : 1000000;
    }
    bool operator()(const std::string& a, const std::string& b) const {
        return std::pair(number(a), a) < std::pair(number(b), b);
    }
};

void addMotional(const Reading& loaded, const Reading* lossy, BatchCrystal& out) {
    const auto m = motionalByTwoLoads(out.frequency, INFINITY, loaded.value, loaded.setting(kLoad), kHolder);
    if (!m) return;
    out.motional = *m;
    if (lossy != nullptr) {
        out.resistance = lossResistance(lossy->setting(kBetween), lossy->setting(kLoss));
        out.q = crystalQ(*m, out.resistance);
    }
}

}  // namespace

std::vector<KnownFrequency> knownFrequencies(const Build& build) {
    std::vector<KnownFrequency> out;
    const auto last =
        lastOf<std::string>(build, Subject::Kind::reference, [](const Reading& r) { return r.subject.id; });
    for (const auto& [id, r] : last) {
        const double known = r.setting(kKnown);
        // A mark's ±50 ppm holds it as any within: rectangular (JCGM 100).
        const double within = r.settings.contains(kKnownWithin) ? r.setting(kKnownWithin) : 0;
        const double error = within > 0 ? within * 1e-6 * known / std::sqrt(3.0) : 0;
        if (known > 0 && r.value > 0) out.push_back({r.subject, {r.value, known, error}});
    }
    std::sort(out.begin(), out.end(),
              [](const auto& a, const auto& b) { return a.point.known < b.point.known; });
    return out;
}

ReferenceFit counterOf(const Build& build) {
    std::vector<CountedPoint> points;
    // What the data sheet allows the counter is what is to be found here: the scatter about the line counts.
    for (const KnownFrequency& k : knownFrequencies(build)) points.push_back(k.point);
    return fitReference(points);
}

std::vector<BatchCrystal> batchOf(const Build& build) {
    struct Of {
        const Reading *plain = nullptr, *loaded = nullptr, *lossy = nullptr;
    };
    std::map<std::string, Of, ByNumber> all;
    for (const Reading& r : build.readings) {
        if (!r.subject.is(Subject::Kind::crystal) || r.id <= build.changedAfter(r.subject)) continue;
        Of& of = all[r.subject.id];
        (r.settings.contains(kLoad) ? of.loaded : r.settings.contains(kLoss) ? of.lossy : of.plain) = &r;
    }
    std::vector<BatchCrystal> out;
    for (const auto& [id, of] : all) {
        const bool dead = of.plain != nullptr && of.plain->unit == Unit::none;
        BatchCrystal c{id, dead ? 0 : of.plain == nullptr ? NAN : of.plain->value, {}, NAN, NAN};
        if (of.plain != nullptr && of.loaded != nullptr && !dead) addMotional(*of.loaded, of.lossy, c);
        out.push_back(std::move(c));
    }
    return out;
}

std::vector<DialPoint> dialPointsOf(const Build& build, const std::string& band) {
    std::vector<DialPoint> out;
    const auto last = lastOf<std::pair<std::string, double>>(
        build, Subject::Kind::dial,
        [](const Reading& r) { return std::pair(r.subject.band, r.setting(kPosition)); });
    for (const auto& [key, r] : last) {
        if (key.first == band && r.value > 0) out.push_back({key.second, r.value});
    }
    return out;
}

std::optional<WantedRange> readRange(std::string text) {
    for (const char* word : {" to ", "..", "\u2013", " - "}) {
        if (const auto at = text.find(word); at != std::string::npos)
            text.replace(at, std::string(word).size(), " ");
    }
    for (auto gap = text.find(' '); gap != std::string::npos; gap = text.find(' ', gap + 1)) {
        auto low = parseQuantity(text.substr(0, gap), Unit::hertz);
        const auto high = parseQuantity(text.substr(gap + 1), Unit::hertz);
        if (!low || !high) continue;
        // "7.0 to 7.06 MHz": the first is meant in the unit of the second.
        if (low->value < 1000 && high->value > 1e5 * low->value)
            low->value *= std::pow(10.0, 3 * std::floor(std::log10(high->value) / 3));
        if (low->value > 0 && high->value > low->value) return WantedRange{low->value, high->value};
    }
    return std::nullopt;
}

std::optional<WantedRange> wantedRangeOf(const Build& build) {
    return readRange(build.chosen(Choice::wantedRange));
}

std::vector<Oscillator> oscillatorsOf(const Kit& kit) {
    constexpr std::size_t kMost = 6;  // more name anything
    std::vector<Oscillator> out;
    const auto add = [&](const std::string& name, double hertz) {
        const bool known = std::any_of(out.begin(), out.end(), [&](const Oscillator& o) {
            return std::abs(o.hertz - hertz) < 1e-3 * hertz;
        });
        if (hertz > 1e4 && std::isfinite(hertz) && !known && out.size() < kMost) out.push_back({name, hertz});
    };
    for (const Adjustment& a : kit.adjustments) {
        if (a.unit == Unit::hertz && a.sets()) add(a.adjuster.empty() ? a.title : a.adjuster, a.target);
    }
    for (const Check& c : kit.checks) {
        if (c.unit == Unit::hertz && std::isfinite(c.limits.low) && std::isfinite(c.limits.high))
            add(c.title, (c.limits.low + c.limits.high) / 2);
    }
    return out;
}

}  // namespace ombrek
