#pragma once

#include <cstdint>
#include <string>

#include "kit/build.h"
#include "kit/kit.h"
#include "station/first_light/key_down.h"

namespace ombrek {

class Judged;

/// The gate under which the builder's word is kept that the rig is on; the warm-up clock begins with it.
inline constexpr const char* kSwitchedOn = "tuning: switched on";

/// What still stands before an adjustment, one thing at a time.
struct BeforeTuning {
    enum class What {
        clear,   ///< nothing: turn and read
        check,   ///< one of the checks that must hold does not
        rests,   ///< another adjustment that it rests on is not settled
        ready,   ///< the builder has not said this evening that it is as it must be
        load,    ///< no word yet that the load is on
        cold,    ///< nobody said that it is switched on
        warming  ///< it has not been on for long enough
    };
    What what = What::clear;
    Subject subject;  ///< of a check or adjustment
    LoadAsk load;
    double minutesLeft = 0;  ///< of warming
    std::string now, why;
    bool clear() const { return what == What::clear; }
    /// It bars the reading; a rig that is not warm, or rests on what is not settled, may be read knowingly.
    bool bars() const { return what == What::check || what == What::ready || what == What::load; }
    /// The builder's word is asked for.
    bool asks() const {
        return what == What::ready || what == What::cold || (what == What::load && load.confirm);
    }
};

/// The name under which the builder's word is kept among the gates; empty when none is asked.
std::string wordKept(const Adjustment& adjustment, const BeforeTuning& before);

/// @param now  seconds since 1970, UTC
BeforeTuning beforeTuning(const Judged& judged, const Adjustment& adjustment, std::int64_t now);

}  // namespace ombrek
