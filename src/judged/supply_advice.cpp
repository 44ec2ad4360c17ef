#include "judged/supply_advice.h"

#include <algorithm>
#include <cmath>

#include "station/first_light/key_down.h"

namespace ombrek {
namespace {

constexpr double kAtLeast = 0.05;    ///< a limit below this trips on charging capacitors [A]
constexpr double kOver = 1.1;        ///< of the kit's voltage
constexpr double kMostAmperes = 30;  ///< no bench of this trade wants more [A]

/// The most that a check with the key up lets it draw [A]; 0: no check says.
double drawnKeyUp(const Kit& kit) {
    double out = 0;
    for (const Check& check : kit.checks) {
        if (check.unit == Unit::ampere && !keyDown(check) && std::isfinite(check.limits.high))
            out = std::max(out, check.limits.high);
    }
    return out;
}

/// All checks with the key up that are read in amperes or are gates have passed.
bool keyUpProven(const Judged& judged) {
    bool any = false;
    for (const Check& check : judged.kit().checks) {
        if (keyDown(check) || !(check.gate || check.unit == Unit::ampere)) continue;
        any = true;
        if (judged.check(check).state != VerdictState::pass) return false;
    }
    return any;
}

}  // namespace

SupplyAdvice supplyAdvice(const Judged& judged) {
    const Ratings& ratings = judged.kit().ratings;
    SupplyAdvice out;
    out.volts = ratings.supply;
    const double up = drawnKeyUp(judged.kit());
    const bool proven = keyUpProven(judged);
    if (proven && ratings.currentHigh > 0) {
        out.amperes = 1.2 * ratings.currentHigh;
        out.why = "A fifth over the " + formatQuantity(ratings.currentHigh, Unit::ampere, 3) +
                  " promised with the key down.";
    } else if (up > 0) {
        out.amperes = std::max(kAtLeast, 1.5 * up);
        out.why = "Half as much again as the " + formatQuantity(up, Unit::ampere, 3) +
                  " that the checks allow with the key up.";
    } else {
        out.why = "The kit does not say what it draws: choose the limit yourself, low at first.";
    }
    if (!(out.volts > 0)) out.why += " It does not say its supply either.";
    return out;
}

std::string supplyTrouble(const Kit& kit, double volts, double amperes) {
    if (!(volts > 0) || !(amperes > 0)) return "A voltage and a current limit are wanted, as 13.8 V 0.3 A.";
    if (!(amperes <= kMostAmperes))
        return "No limit over " + formatQuantity(kMostAmperes, Unit::ampere, 2) + " is set from here.";
    if (!(kit.ratings.supply > 0)) {
        if (volts > 15) return "The kit does not say its supply: nothing over 15 V is set from here.";
        return {};
    }
    if (volts > kOver * kit.ratings.supply)
        return "The kit is for " + formatQuantity(kit.ratings.supply, Unit::volt, 3) + ": " +
               formatQuantity(volts, Unit::volt, 3) + " is not set from here.";
    return {};
}

}  // namespace ombrek
