#include "core/proof/less_power.h"

#include <algorithm>
#include <array>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

/// What a fact should be under a cause, and how far it may lie from that without a word.
struct Expect {
    double value = 1, spread = 0.1;  ///< one standard deviation
};

/// A fact by name: how it is said, and what it is where nothing is wrong.
struct FactRow {
    double PowerFacts::*value;
    const char* words;  ///< "the supply sags to"
    Expect sound;
    Unit unit;  ///< percent: a ratio; decibel; none: as it is
};

const std::array<FactRow, 13>& facts() {
    static const std::array<FactRow, 13> rows{{
        {&PowerFacts::supply, "the supply with the key down is", {1, 0.03}, Unit::percent},
        {&PowerFacts::unloaded, "the supply with the key up is", {1, 0.03}, Unit::percent},
        {&PowerFacts::current, "the current is", {1, 0.12}, Unit::percent},
        {&PowerFacts::other, "another way reads", {1, 0.12}, Unit::percent},
        {&PowerFacts::filterLoss, "the low-pass loses more than it should by", {0, 0.25}, Unit::decibel},
        {&PowerFacts::coil, "the worst coil of the output is off by", {0, 5}, Unit::none},
        {&PowerFacts::loadSwr, "the load's standing wave ratio is", {1.1, 0.1}, Unit::none},
        {&PowerFacts::drive, "the drive is", {1, 0.07}, Unit::percent},
        {&PowerFacts::audio, "the audio is", {1, 0.1}, Unit::percent},
        {&PowerFacts::bias, "the idle current is", {1, 0.15}, Unit::percent},
        {&PowerFacts::toGain, "what an adjuster still gave is", {0.1, 0.15}, Unit::decibel},
        {&PowerFacts::handed, "the share of the finals that warm up is", {1, 0.1}, Unit::percent},
        {&PowerFacts::otherBands, "the other bands give", {1, 0.15}, Unit::percent},
    }};
    return rows;
}

/// What a cause makes of the facts. `r` is the power as it reads, over the promise.
struct CauseRow {
    const char* id;
    const char* name;
    double often;  ///< common practice
    /// Facts that are otherwise than sound when the cause alone makes the power `r`.
    void (*expect)(double r, const PowerFacts& f, std::vector<std::pair<double PowerFacts::*, Expect>>& out);
    /// Whether the cause can be at all; where it cannot make so much less, its size counts.
    double (*likely)(double r, const PowerFacts& f);
    const char* test;
    const char* repair;
};

double gauss(double x, double mean, double spread) { return std::exp(-std::pow((x - mean) / spread, 2) / 2); }
double always(double, const PowerFacts&) { return 1; }
using Out = std::vector<std::pair<double PowerFacts::*, Expect>>;

/// Everything that all bands share moves them alike.
void everyBand(double r, Out& out) { out.push_back({&PowerFacts::otherBands, {r, 0.1}}); }

/// Reflection that takes so much power away, as a standing wave ratio.
double swrThatLeaves(double r) {
    const double gamma = std::sqrt(std::clamp(1 - r, 0.0, 0.98));
    return (1 + gamma) / (1 - gamma);
}

/// The number of dead ones that fits best, and how well.
struct Dead {
    int number = 0;
    double fit = 0;
};
Dead deadOf(double r, double finals) {
    Dead out;
    for (int k = 1; k < int(finals); ++k) {
        const double alive = (finals - k) / finals;
        // Between the number and its square, by what limits the stage.
        const double low = alive * alive, off = r < low ? low - r : r > alive ? r - alive : 0;
        const double fit = gauss(off, 0, 0.06) / k;
        if (fit > out.fit) out = {k, fit};
    }
    return out;
}

const std::vector<CauseRow>& causes() {
    static const std::vector<CauseRow> rows{
        {"supply", "The supply sags under the key", 1.2,
         [](double r, const PowerFacts&, Out& out) {
             out.push_back({&PowerFacts::supply, {std::sqrt(r), 0.03}});
             out.push_back({&PowerFacts::current, {std::sqrt(r), 0.12}});
             everyBand(r, out);
         },
         always, "Read the volts at the rig's own socket with the key down, then up.",
         "A stronger supply, a shorter and thicker lead, a better plug."},
        {"voltage", "The promise is for another supply voltage", 1.0,
         [](double r, const PowerFacts&, Out& out) {
             out.push_back({&PowerFacts::supply, {std::sqrt(r), 0.03}});
             out.push_back({&PowerFacts::unloaded, {std::sqrt(r), 0.03}});
             out.push_back({&PowerFacts::current, {std::sqrt(r), 0.12}});
             everyBand(r, out);
         },
         always, "Set the supply to what the promise names and read the power again.",
         "None: hold it against the promise at that voltage."},
        {"meter", "The meter reads low", 1.0,
         [](double r, const PowerFacts&, Out& out) { everyBand(r, out); },
         [](double r, const PowerFacts& f) { return gauss(std::min(r, 1.0), 1, 0.2 + f.powerError); },
         "Read the same power by another way: scope or diode probe on the load.",
         "Correct the meter by the other way, and read again."},
        {"promise", "The promise is optimistic", 0.8,
         [](double r, const PowerFacts&, Out& out) {
             out.push_back({&PowerFacts::other, {r, 0.12}});
             out.push_back({&PowerFacts::otherBands, {r, 0.2}});
         },
         [](double r, const PowerFacts&) { return gauss(std::min(r, 1.0), 1, 0.2); },
         "Everything else is sound, and other builders read the same.",
         "Accept it, with this as the reason."},
        {"drive", "The finals get too little drive", 1.2,
         [](double r, const PowerFacts&, Out& out) {
             out.push_back({&PowerFacts::drive, {std::sqrt(r), 0.07}});
             out.push_back({&PowerFacts::current, {std::sqrt(r), 0.12}});
             out.push_back({&PowerFacts::other, {r, 0.12}});
         },
         always, "Read the drive at the finals' input with a probe, against what the kit says.",
         "Look from the driver backwards: its bias, its coil, its coupling."},
        {"audio", "Too little audio reaches the modulator", 1.0,
         [](double r, const PowerFacts&, Out& out) {
             out.push_back({&PowerFacts::audio, {std::sqrt(r), 0.1}});
             out.push_back({&PowerFacts::drive, {std::sqrt(r), 0.12}});
             out.push_back({&PowerFacts::current, {std::sqrt(r), 0.15}});
             out.push_back({&PowerFacts::other, {r, 0.12}});
             everyBand(r, out);
         },
         [](double, const PowerFacts& f) { return f.voice ? 1.5 : 0.02; },
         "Give it a carrier, or two tones of the right level: is the power there then?",
         "Gain of the microphone or of the sound device; look at its level meter."},
        {"filter", "The low-pass takes more than it should", 0.8,
         [](double r, const PowerFacts&, Out& out) {
             out.push_back({&PowerFacts::filterLoss, {-10 * std::log10(std::max(r, 1e-3)), 0.4}});
             out.push_back({&PowerFacts::other, {r, 0.12}});
             out.push_back({&PowerFacts::current, {1, 0.25}});
         },
         always, "Measure its parts, or its loss at the carrier from end to end.",
         "The filter page says which coil to squeeze or spread."},
        {"coil", "A coil of the output is wound wrong", 1.0,
         [](double r, const PowerFacts&, Out& out) {
             out.push_back({&PowerFacts::coil, {25, 12}});
             out.push_back({&PowerFacts::filterLoss, {-5 * std::log10(std::max(r, 1e-3)), 1.5}});
             out.push_back({&PowerFacts::other, {r, 0.12}});
             out.push_back({&PowerFacts::current, {1, 0.25}});
         },
         always, "Measure the output coils, or count their turns again.",
         "Wind a turn on or off until it reads right."},
        {"dead-final", "One of the finals does not work", 1.0,
         [](double r, const PowerFacts& f, Out& out) {
             const Dead dead = deadOf(r, f.finals);
             const double alive = dead.number > 0 ? (f.finals - dead.number) / f.finals : 0.6;
             out.push_back({&PowerFacts::handed, {alive, 0.05}});
             out.push_back({&PowerFacts::current, {alive, 0.12}});
             out.push_back({&PowerFacts::bias, {alive, 0.12}});
             out.push_back({&PowerFacts::other, {r, 0.12}});
             everyBand(r, out);
         },
         [](double r, const PowerFacts& f) { return f.finals > 1.5 ? 1.6 * deadOf(r, f.finals).fit : 0.02; },
         "Lift one final after the other, or feel which one stays cold (power off, supply out): the power "
         "falls for each that works and not for the dead one.",
         "Replace it by one of the same group, then bias, power and harmonics again."},
        {"bias", "The finals' bias is low", 0.8,
         [](double r, const PowerFacts&, Out& out) {
             out.push_back({&PowerFacts::bias, {std::max(0.1, 2 * r - 1), 0.2}});
             out.push_back({&PowerFacts::current, {std::sqrt(r), 0.15}});
             out.push_back({&PowerFacts::other, {r, 0.12}});
             everyBand(r, out);
         },
         [](double r, const PowerFacts&) { return gauss(std::min(r, 1.0), 1, 0.35); },
         "Read the idle current of the finals without drive.", "Set the bias anew, from its safe end."},
        {"mistuned", "A tuned stage stands beside its peak", 1.2,
         [](double r, const PowerFacts&, Out& out) {
             out.push_back({&PowerFacts::toGain, {-10 * std::log10(std::max(r, 1e-3)), 0.6}});
             out.push_back({&PowerFacts::drive, {std::sqrt(r), 0.15}});
             out.push_back({&PowerFacts::current, {std::sqrt(r), 0.2}});
             out.push_back({&PowerFacts::other, {r, 0.12}});
         },
         always, "Turn each tuned stage a little to both sides: does the power rise?", "Tune peaks it."},
        {"mismatch", "The load is not what the rig wants", 0.7,
         [](double r, const PowerFacts&, Out& out) {
             const double swr = swrThatLeaves(r);
             out.push_back({&PowerFacts::loadSwr, {swr, 0.15 * swr}});
             out.push_back({&PowerFacts::other, {r, 0.15}});
             out.push_back({&PowerFacts::current, {1, 0.3}});
             everyBand(r, out);
         },
         always, "Measure the load alone: its resistance, its standing wave ratio, its plug.",
         "Another load, another cable."},
        {"joint", "A joint is bad in the signal's way", 0.8,
         [](double r, const PowerFacts&, Out& out) {
             out.push_back({&PowerFacts::other, {r, 0.12}});
             out.push_back({&PowerFacts::drive, {1, 0.4}});
             out.push_back({&PowerFacts::current, {std::sqrt(r), 0.3}});
         },
         [](double, const PowerFacts& f) { return std::isnan(f.jumps) ? 1.0
                                                  : f.jumps > 0       ? 20
                                                                      : 0.15; },
         "Press with a dry stick on one part after another while you watch the meter: does it jump?",
         "Reflow the joint; scrape and tin enamelled wire anew."},
    };
    return rows;
}

std::string saying(const FactRow& row, double value) {
    std::string out = row.words;
    if (row.unit == Unit::percent) return out + " " + decimals(100 * value, 0) + " % of what it should be";
    if (row.unit == Unit::decibel) return out + " " + decimals(value, 1) + " dB";
    return out + " " + decimals(value, 1) + (row.value == &PowerFacts::coil ? " %" : "");
}

/// Likelihood of a fact, with a floor: no single reading is beyond doubt.
double fits(double value, const Expect& e) {
    return 0.98 * gauss(value, e.value, e.spread) / e.spread + 0.02;
}

PowerCause weighed(const CauseRow& row, double r, const PowerFacts& f) {
    PowerCause out{row.id,   row.name,  row.often * row.likely(r, f), std::clamp(1 - r, 0.0, 1.0), {}, {},
                   row.test, row.repair};
    Out expected;
    row.expect(r, f, expected);
    for (const FactRow& fact : facts()) {
        const double value = f.*fact.value;
        if (std::isnan(value)) continue;
        const auto own = std::find_if(expected.begin(), expected.end(),
                                      [&](const auto& e) { return e.first == fact.value; });
        const Expect expect = own == expected.end() ? fact.sound : own->second;
        const double here = fits(value, expect), sound = fits(value, fact.sound);
        out.odds *= here;
        const bool told = own != expected.end();
        if (std::abs(value - expect.value) > 2.5 * expect.spread)
            out.against.push_back(saying(fact, value));
        else if (told && here > 1.5 * sound)
            out.supports.push_back(saying(fact, value));
    }
    if (f.jumps > 0 && out.id == "joint") out.supports.push_back("it jumps when something is pressed");
    if (f.jumps == 0 && out.id == "joint") out.against.push_back("nothing jumps when it is pressed");
    return out;
}

}  // namespace

bool lessThanPromised(const PowerFacts& f) {
    return std::isfinite(f.power) && f.power >= 0 && f.power < 1 - std::max(0.02, f.powerError);
}

std::vector<PowerCause> causesOfLess(const PowerFacts& f) {
    std::vector<PowerCause> out;
    if (!lessThanPromised(f)) return out;
    double sum = 0;
    for (const CauseRow& row : causes()) {
        out.push_back(weighed(row, std::max(f.power, 1e-3), f));
        sum += out.back().odds;
    }
    for (PowerCause& c : out) c.odds = sum > 0 ? c.odds / sum : 1.0 / double(out.size());
    std::stable_sort(out.begin(), out.end(),
                     [](const PowerCause& a, const PowerCause& b) { return a.odds > b.odds; });
    return out;
}

}  // namespace ombrek
