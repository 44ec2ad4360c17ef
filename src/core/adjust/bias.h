#pragma once

#include <cmath>
#include <string>
#include <vector>

#include "core/adjust/peak.h"
#include "core/adjust/setting.h"

namespace ombrek {

/// How a bias is to be set.
struct BiasRule {
    double rise = 0;       ///< wanted over the current at the safe end; 0: until it just rises
    double tolerance = 0;  ///< of it
    double never = 0;      ///< a current that must not be reached; 0: not said
    double volts = 0;      ///< across the travel; 0: not said, and 14 V are assumed
    SafeEnd safe = SafeEnd::low;
    Unit unit = Unit::ampere;
};

/// How far the bias has come.
struct BiasState {
    VerdictState state = VerdictState::notDone;
    double baseline = NAN;  ///< current at the safe end
    double unrest = NAN;    ///< less than this is no rise
    double rise = NAN;      ///< over it where it stands
    double next = 0;        ///< position to go to, 0 … 1
    double first = NAN;     ///< position where it first rose
    bool over = false;      ///< it reads what must never be reached: down at once
    std::string sentence;
};

/// From its safe end, proved by two readings there, upward in steps that no transistor answers with more than
/// two decades of current, 0.12 V, and that shrink as what is read comes near what must never be reached;
/// down at once when it is reached. Source: no junction and no field effect below its threshold is steeper
/// than (kT/q)·ln 10, 60 mV a decade at room temperature.
///
/// With no rise wanted: until the current is above its unrest, then back a touch (a hundredth of the travel),
/// where it must read no more than that. The unrest is the largest of four times the scatter at the safe end,
/// a hundredth of the current there, and the least that a meter shows of it.
/// @param readings  oldest first: it stands where the last was taken
BiasState biasState(const std::vector<AdjusterReading>& readings, const BiasRule& rule);

/// What each transistor of several draws, from the current with one of them out, each in turn.
struct Shares {
    std::vector<double> each;  ///< [same unit]; NaN: not measured
    VerdictState state = VerdictState::notDone;
    std::string sentence;
};
/// @param total    with all of them in, over the baseline
/// @param without  with the first, the second … out, over the baseline; NaN: not measured
/// Within a third of their mean they are matched (common practice); one of less than a fifth is dead.
Shares sharesOf(double total, const std::vector<double>& without, const std::vector<std::string>& names);

}  // namespace ombrek
