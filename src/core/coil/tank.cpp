#include "core/coil/tank.h"

#include <cmath>
#include <numbers>
#include <stdexcept>

#include "core/text/counted.h"

namespace ombrek {
namespace {

double angular(double frequency) { return 2.0 * std::numbers::pi * frequency; }

std::string percentOfTravel(double position) { return decimals(position * 100, 0) + " %"; }

/// To add or remove, at least one.
int changeTo(double exactTurns, int turns) {
    const int change = static_cast<int>(std::lround(exactTurns)) - turns;
    return change != 0 ? change : exactTurns > turns ? 1 : -1;
}

std::string remedy(double exactTurns, int turns) {
    const int change = changeTo(exactTurns, turns);
    return std::string(change > 0 ? "add " : "remove ") + counted(std::abs(change), "turn");
}

}  // namespace

int turnsChange(const TrimmerCover& cover, int turns) {
    if (!(cover.turnsToCentre > 0)) return 0;
    return inTheMiddle(cover.position) ? 0 : changeTo(cover.turnsToCentre, turns);
}

bool reckonable(double inductance, const TankCapacitance& tank, double low, double high) {
    constexpr double kLeast = 1e-11, kMost = 1e3;  // [H], what a meter can show
    return inductance >= kLeast && inductance <= kMost && low > 0 && high >= low && std::isfinite(high) &&
           tank.trimmerHigh > tank.trimmerLow && tank.at(0) > 0 && std::isfinite(tank.at(1));
}

double resonance(double inductance, double capacitance) {
    if (!(inductance > 0) || !(capacitance > 0)) throw std::domain_error("L and C are positive");
    return 1.0 / (2.0 * std::numbers::pi * std::sqrt(inductance * capacitance));
}

double inductanceFor(double frequency, double capacitance) {
    if (!(frequency > 0) || !(capacitance > 0)) throw std::domain_error("f and C are positive");
    return 1.0 / (angular(frequency) * angular(frequency) * capacitance);
}

TrimmerCover trimmerCover(double inductance, int turns, const TankCapacitance& tank, double low,
                          double high) {
    TrimmerCover out;
    if (turns < 1 || !reckonable(inductance, tank, low, high)) {
        out.state = VerdictState::cannotTell;
        out.sentence = inductance > 0 ? "The kit gives no range of the trimmer, or no band, to reckon with."
                                      : "There is no inductance to reckon with: measure the coil again.";
        return out;
    }
    out.lowest = resonance(inductance, tank.at(1.0));
    out.highest = resonance(inductance, tank.at(0.0));
    const double middle = std::sqrt(low * high);
    const double wantedC = inductanceFor(middle, inductance);  // the same formula with L and C exchanged
    out.position = (wantedC - tank.at(0.0)) / (tank.trimmerHigh - tank.trimmerLow);
    const double centreL = inductanceFor(middle, tank.at(0.5));
    out.turnsToCentre = turns * std::sqrt(centreL / inductance);

    const std::string range =
        formatQuantity(out.lowest, Unit::hertz, 4) + " to " + formatQuantity(out.highest, Unit::hertz, 4);
    if (out.lowest > low || out.highest < high) {
        out.state = VerdictState::fail;
        out.sentence =
            "The trimmer reaches " + range + ", not the band: " + remedy(out.turnsToCentre, turns) + ".";
    } else if (!inTheMiddle(out.position)) {
        out.state = VerdictState::doubtful;
        out.sentence = "The trimmer reaches the band, but at " + percentOfTravel(out.position) +
                       " of its travel: near its end.";
    } else {
        out.state = VerdictState::pass;
        out.sentence = "The trimmer reaches " + range + "; the band is at " + percentOfTravel(out.position) +
                       " of its travel.";
    }
    out.working.lines = {
        {"f = 1/(2π√(L·C))",
         formatQuantity(inductance, Unit::henry, 4) + " with " + formatQuantity(tank.at(0), Unit::farad, 3) +
             " to " + formatQuantity(tank.at(1), Unit::farad, 3),
         range},
        {"position = (C wanted − C least)/span", formatQuantity(wantedC, Unit::farad, 4),
         percentOfTravel(out.position)},
        {"N centred = N·√(L centre / L)",
         std::to_string(turns) + "·√(" + formatQuantity(centreL, Unit::henry, 4) + " / " +
             formatQuantity(inductance, Unit::henry, 4) + ")",
         formatQuantity(out.turnsToCentre, Unit::none, 3)}};
    out.working.source = "Thomson's formula; 15 % to 85 % of the travel is common practice";
    return out;
}

}  // namespace ombrek
