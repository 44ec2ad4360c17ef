#include "core/antenna/coupler.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>
#include <optional>
#include <stdexcept>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

using Complex = std::complex<double>;

/// One element of the way from the antenna to the rig.
struct Arm {
    bool coil = false, series = false;
    PartRange range;
    double CouplerMatch::*into = nullptr;
    CouplerMatch::Stress CouplerMatch::*stress = nullptr;
};
/// The arms from the antenna to the rig: one that is free, one that brings the resistance, one that takes the
/// rest of the reactance away.
using Arms = std::vector<Arm>;

constexpr int kGrid = 240;

class Way {
 public:
    Way(const Coupler& coupler, Arms arms, Complex load, double frequency)
        : c_(coupler), arms_(std::move(arms)), load_(load), omega_(2 * std::numbers::pi * frequency) {}

    Complex impedance(const Arm& arm, double value) const {
        const double x = arm.coil ? omega_ * value : -1 / (omega_ * value);
        return {std::abs(x) / (arm.coil ? c_.coilQ : c_.capacitorQ), x};
    }

    /// Impedance behind an arm. A part of nothing is not there.
    Complex behind(const Arm& arm, double value, Complex z) const {
        if (!(value > 0)) return z;
        const Complex own = impedance(arm, value);
        return arm.series ? z + own : z * own / (z + own);
    }

    /// What of the last arm leaves least reactance; it may lie outside its range, or be none (0).
    double lastFor(Complex z) const {
        const Arm& arm = arms_.back();
        if (arm.series) return arm.coil ? -z.imag() / omega_ : z.imag() > 0 ? 1 / (omega_ * z.imag()) : 0;
        const double b = (1.0 / z).imag();  // a capacitor across takes an inductive rest
        return -b / omega_;
    }

    struct Setting {
        std::vector<double> values;  ///< of the arms
        double swr = std::numeric_limits<double>::infinity(), loss = 0;
    };

    Setting at(std::vector<double> values) const {
        Setting out;
        Complex z = load_;
        double share = 1;  // of the power into an arm that leaves it
        for (std::size_t i = 0; i < arms_.size(); ++i) {
            const Complex next = behind(arms_[i], values[i], z);
            if (values[i] > 0)
                share *= arms_[i].series ? z.real() / next.real() : (1.0 / z).real() / (1.0 / next).real();
            z = next;
        }
        const double size = std::abs((z - c_.source) / (z + c_.source));
        out.swr = size < 1 ? (1 + size) / (1 - size) : std::numeric_limits<double>::infinity();
        out.loss = -10 * std::log10(share);
        out.values = std::move(values);
        return out;
    }

    /// The best of all settings.
    Setting best() const {
        std::optional<Setting> exact;
        Setting nearest;
        const bool three = arms_.size() == 3;
        const int outer = three ? kGrid : 1;
        for (int i = 0; i < outer; ++i) {
            const double free = three ? pick(arms_[0].range, double(i) / (kGrid - 1)) : 0;
            tryWith(free, exact, nearest);
        }
        if (exact && three) refine(*exact);
        return exact ? *exact : polished(nearest);
    }

 private:
    static double pick(const PartRange& r, double t) {
        return r.low > 0 ? r.low * std::pow(r.high / r.low, t) : r.high * t * t * t;
    }

    std::vector<double> values(double free, double middle, double last) const {
        return arms_.size() == 3 ? std::vector{free, middle, last} : std::vector{middle, last};
    }

    const Arm& middleArm() const { return arms_[arms_.size() - 2]; }

    Complex behindFree(double free) const {
        return arms_.size() == 3 ? behind(arms_[0], free, load_) : load_;
    }

    /// Resistance at the rig less what is wanted (or conductance), with the last arm as it would have to be.
    double excess(Complex z, double middle) const {
        const Complex m = behind(middleArm(), middle, z);
        const double last = lastFor(m);
        if (arms_.back().series) {
            const double own = last > 0 ? impedance(arms_.back(), last).real() : 0;
            return m.real() + own - c_.source;
        }
        const double own = last > 0 ? (1.0 / impedance(arms_.back(), last)).real() : 0;
        return (1.0 / m).real() + own - 1 / c_.source;
    }

    void tryWith(double free, std::optional<Setting>& exact, Setting& nearest) const {
        const Complex z = behindFree(free);
        const PartRange& range = middleArm().range;
        double before = 0, valueBefore = 0;
        for (int j = 0; j < kGrid; ++j) {
            const double middle = pick(range, double(j) / (kGrid - 1));
            const double now = excess(z, middle);
            consider(free, middle, z, exact, nearest);
            if (j > 0 && (now > 0) != (before > 0))
                consider(free, root(z, valueBefore, middle), z, exact, nearest);
            before = now;
            valueBefore = middle;
        }
    }

    double root(Complex z, double low, double high) const {
        const bool rising = excess(z, high) > 0;
        for (int i = 0; i < 60; ++i) {
            const double middle = (low + high) / 2;
            ((excess(z, middle) > 0) == rising ? high : low) = middle;
        }
        return (low + high) / 2;
    }

    void consider(double free, double middle, Complex z, std::optional<Setting>& exact,
                  Setting& nearest) const {
        const PartRange& range = arms_.back().range;
        const double wanted = lastFor(behind(middleArm(), middle, z));
        const bool within = wanted >= range.low * (1 - 1e-9) && wanted <= range.high * (1 + 1e-9);
        const Setting s = at(values(free, middle, std::clamp(wanted, range.low, range.high)));
        if (within && s.swr < 1.0005 && (!exact || s.loss < exact->loss)) exact = s;
        if (s.swr < nearest.swr) nearest = s;
    }

    /// Between its neighbours the free part may lose a little less still.
    void refine(Setting& exact) const {
        const PartRange& r = arms_[0].range;
        double step = 0.02 * (r.high - r.low);
        for (int i = 0; i < 24; ++i) {
            bool better = false;
            for (const double sign : {-1.0, 1.0}) {
                const double free = std::clamp(exact.values[0] + sign * step, r.low, r.high);
                std::optional<Setting> found;
                Setting nearest;
                tryWith(free, found, nearest);
                if (!found || found->loss >= exact.loss - 1e-9) continue;
                exact = *found;
                better = true;
            }
            if (!better) step /= 3;
            if (step < 1e-4 * (r.high - r.low)) break;
        }
    }

    /// Each part to and fro, by less and less.
    Setting polished(Setting s) const {
        if (s.values.empty()) return s;
        for (double step = 0.05; step > 1e-5; step /= 2) {
            for (int round = 0; round < 20; ++round) {
                bool better = false;
                for (std::size_t i = 0; i < arms_.size(); ++i) {
                    for (const double sign : {-1.0, 1.0}) {
                        auto values = s.values;
                        const PartRange& r = arms_[i].range;
                        values[i] = std::clamp(values[i] + sign * step * std::max(values[i], r.high / 1000),
                                               r.low, r.high);
                        Setting there = at(std::move(values));
                        if (there.swr >= s.swr) continue;
                        s = std::move(there);
                        better = true;
                    }
                }
                if (!better) break;
            }
        }
        return s;
    }

    const Coupler& c_;
    Arms arms_;
    Complex load_;
    double omega_;
};

std::vector<Arms> waysOf(const Coupler& c) {
    const auto coil = [&](bool series) {
        return Arm{true, series, c.l, &CouplerMatch::l, &CouplerMatch::coil};
    };
    const auto first = [&](bool series) {
        return Arm{false, series, c.c1, &CouplerMatch::c1, &CouplerMatch::first};
    };
    const auto second = [&](bool series) {
        return Arm{false, series, c.c2, &CouplerMatch::c2, &CouplerMatch::second};
    };
    switch (c.kind) {
        case Coupler::Kind::t:
            return {{second(true), coil(false), first(true)}};
        case Coupler::Kind::pi:
            return {{second(false), coil(true), first(false)}};
        default:
            return {{coil(true), first(false)}, {first(false), coil(true)}};
    }
}

/// Voltages and currents from the rig's end on, with what goes in at that power.
void addStress(const Coupler& c, const Way& way, const Arms& arms, const std::vector<double>& values,
               Complex load, CouplerMatch& out) {
    std::vector<Complex> z{load};  // as seen towards the antenna behind each arm
    for (std::size_t i = 0; i < arms.size(); ++i) z.push_back(way.behind(arms[i], values[i], z.back()));
    const double gamma = std::abs((z.back() - c.source) / (z.back() + c.source));
    const double in = out.watts * (1 - gamma * gamma);
    double amps = std::sqrt(in / z.back().real());  // r.m.s., into the network
    for (std::size_t i = arms.size(); i-- > 0;) {
        if (!(values[i] > 0)) continue;
        const Complex own = way.impedance(arms[i], values[i]);
        const double volts = arms[i].series ? amps * std::abs(own) : amps * std::abs(z[i + 1]);
        CouplerMatch::Stress& s = out.*arms[i].stress;
        s.volts = volts * std::numbers::sqrt2;
        s.amps = volts / std::abs(own);
        if (!arms[i].series) amps = volts / std::abs(z[i]);
        if (!arms[i].coil && c.volts > 0 && s.volts > 0)
            out.flashOver = std::min(out.flashOver, out.watts * std::pow(c.volts / s.volts, 2));
    }
}

std::string sentenceOf(const Coupler& c, const CouplerMatch& m) {
    if (!m.reaches)
        return "It does not reach this load: " + decimals(m.swr, 1) + " is the best standing wave ratio.";
    std::string out =
        "Matched, SWR " + decimals(m.swr, 2) + ", " + decimals(m.lossDb, 2) + " dB stay in the coupler.";
    if (!(c.volts > 0))
        return out + " What its capacitors hold is not said: cannot tell what power it takes.";
    out += " Its capacitors flash over at " + formatQuantity(m.flashOver, Unit::watt, 2);
    return out + (m.flashOver < m.watts ? ": not with " + formatQuantity(m.watts, Unit::watt, 3) + "." : ".");
}

}  // namespace

CouplerMatch match(const Coupler& c, Complex load, double frequency, double watts) {
    if (!(load.real() > 0) || !(frequency > 0) || !(watts > 0) || !(c.source > 0) || !c.l.there() ||
        !c.c1.there() || !(c.coilQ > 0) || !(c.capacitorQ > 0) ||
        (c.kind != Coupler::Kind::l && !c.c2.there()))
        throw std::domain_error("a coupler has its parts, a load its resistance, and the power is positive");
    CouplerMatch out;
    const auto ways = waysOf(c);
    double loss = std::numeric_limits<double>::infinity();
    for (std::size_t w = 0; w < ways.size(); ++w) {
        const Way way(c, ways[w], load, frequency);
        const Way::Setting s = way.best();
        if (s.values.empty()) continue;
        const bool exact = s.swr < 1.0005, had = out.swr < 1.0005;
        if (exact == had ? exact ? s.loss >= loss : s.swr >= out.swr : had) continue;
        loss = s.loss;
        out = {};
        out.swr = s.swr;
        out.lossDb = s.loss;
        out.watts = watts;
        out.atLoad = w == 1;
        for (std::size_t i = 0; i < ways[w].size(); ++i) out.*ways[w][i].into = s.values[i];
        addStress(c, way, ways[w], s.values, load, out);
    }
    out.reaches = out.swr <= c.swr;
    out.sentence = sentenceOf(c, out);
    return out;
}

}  // namespace ombrek
