#include "core/proof/arrives.h"

#include <algorithm>
#include <cmath>

#include "core/proof/power.h"

namespace ombrek {
namespace {

constexpr double kMargin = 10;  ///< below an input's limit [dB]

std::string dbm(double value) { return formatQuantity(value, Unit::dbm, 3); }
std::string watt(double value) { return formatQuantity(value, Unit::watt, 3); }

void become(Arrival& a, VerdictState state, const std::string& sentence) {
    a.state = a.state == VerdictState::notDone ? state : worst({a.state, state});
    a.sentence += (a.sentence.empty() ? "" : " ") + sentence;
}

/// A level against an input's limit, the last decibels of which are not used.
void holdLevel(const Link& link, const std::string& way, Arrival& a) {
    if (std::isnan(link.mostDbm)) return;
    const std::string what = way + " at the " + link.name + ", its limit is " + dbm(link.mostDbm);
    if (a.dbm > link.mostDbm)
        become(a, VerdictState::fail, what + ": this kills it.");
    else if (a.dbm > link.mostDbm - kMargin)
        become(a, VerdictState::doubtful, what + ": stay 10 dB below, a mistake goes beyond it.");
    else
        become(a, VerdictState::pass, what + ": good.");
}

/// What it turns into heat, for ever or for seconds.
void holdHeat(const Link& link, Arrival& a) {
    if (!(link.watts > 0)) return;
    const double stays =
        link.attenuation > 0 ? a.watts * (1 - std::pow(10, -link.attenuation / 10)) : a.watts;
    if (stays <= link.watts) {
        become(a, VerdictState::pass,
               "The " + link.name + " takes " + watt(link.watts) + "; " + watt(stays) + " stay in it: good.");
        return;
    }
    // A part that takes P for ever and E at once bears more for E/(more − P) seconds; without E, a body of
    // its size is taken to store six seconds of its rated power (common practice for film resistors).
    const double joules = link.joules > 0 ? link.joules : 6 * link.watts;
    a.seconds = joules / (stays - link.watts);
    // Without a word of what it bears at once, three times its rating is the most that is ever keyed into it.
    const bool brief = a.seconds < 2 || (!(link.joules > 0) && stays > 3 * link.watts);
    if (brief) a.seconds = 0;
    become(a, brief ? VerdictState::fail : VerdictState::doubtful,
           "The " + link.name + " takes " + watt(link.watts) + ": " + watt(stays) +
               (brief ? " burn it before it is read."
                      : " for " + decimals(std::floor(a.seconds), 0) + " s at most."));
}

void holdVolts(const Link& link, Arrival& a) {
    if (!(link.mostVolts > 0)) return;
    const std::string what = formatQuantity(a.volts, Unit::volt, 3) + " peak at the " + link.name +
                             ", its limit is " + formatQuantity(link.mostVolts, Unit::volt, 3);
    become(a, a.volts > link.mostVolts ? VerdictState::fail : VerdictState::pass,
           what + (a.volts > link.mostVolts ? ": this kills it." : ": good."));
}

void holdScale(const Link& link, Arrival& a) {
    if (!(link.fullScale > 0) || a.watts <= link.fullScale) return;
    become(a, VerdictState::fail,
           "The " + link.name + " ends at " + watt(link.fullScale) + ", expect " + watt(a.watts) + ".");
}

}  // namespace

KeyDownAsk whatArrives(double watts, const std::vector<Link>& chain, double ohms) {
    KeyDownAsk out;
    if (!(watts > 0) || !std::isfinite(watts) || !(ohms > 0)) {
        out.sentence =
            "What power to expect is not known: cannot tell what arrives. Say what the kit promises first.";
        return out;
    }
    double level = dbmFromWatts(watts);
    std::string way = dbm(level);
    std::vector<VerdictState> states;
    for (const Link& link : chain) {
        Arrival a;
        a.name = link.name;
        a.dbm = level;
        a.watts = wattsFromDbm(level);
        a.volts = std::sqrt(2 * a.watts * ohms);
        const bool first = level == dbmFromWatts(watts);
        holdLevel(link, first ? way : way + " = " + dbm(level), a);
        holdHeat(link, a);
        holdVolts(link, a);
        holdScale(link, a);
        if (a.state == VerdictState::notDone)
            become(a, VerdictState::cannotTell,
                   "What the " + link.name + " bears is not said; " + watt(a.watts) + " arrive there.");
        out.seconds = std::min(out.seconds, a.seconds);
        states.push_back(a.state);
        out.arrivals.push_back(a);
        if (link.attenuation > 0) way += " \u2212 " + decimals(link.attenuation, 0) + " dB";
        level -= link.attenuation;
    }
    if (states.empty()) {
        out.sentence = "Nothing to read it with is named.";
        return out;
    }
    out.state = worst(states);
    if (std::isfinite(out.seconds)) out.rest = 5 * out.seconds;
    const auto hit = std::find_if(out.arrivals.begin(), out.arrivals.end(),
                                  [&](const Arrival& a) { return a.state == out.state; });
    out.sentence = out.state == VerdictState::pass ? out.arrivals.back().sentence : hit->sentence;
    if (out.state == VerdictState::fail) out.sentence += " Do not key into it.";
    return out;
}

}  // namespace ombrek
