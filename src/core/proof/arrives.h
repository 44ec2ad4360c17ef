#pragma once

#include <limits>
#include <string>
#include <vector>

#include "core/quantity/verdict.h"

namespace ombrek {

/// What stands between the rig and what reads it: a load, a pad, a cable, and the meter itself at the end.
struct Link {
    std::string name;        ///< "30 dB pad"
    double attenuation = 0;  ///< [dB]
    double watts = 0;        ///< that it takes for ever [W]; 0: not said
    double joules = 0;       ///< that it takes at once, beyond [J]; 0: not said
    double mostDbm = NAN;    ///< its limit at the input [dBm]; NaN: not said
    double mostVolts = 0;    ///< peak, at the input [V]; 0: not said
    double fullScale = 0;    ///< where its reading ends [W]; 0: not said
};

/// What arrives at one of them.
struct Arrival {
    std::string name;
    double dbm = 0, watts = 0, volts = 0;                      ///< at its input; V peak in 50 Ω
    double seconds = std::numeric_limits<double>::infinity();  ///< the key may be down
    VerdictState state = VerdictState::notDone;
    std::string sentence;
};

/// Before the key goes down: what will arrive where, and whether that may be.
struct KeyDownAsk {
    std::vector<Arrival> arrivals;                  ///< in their order
    VerdictState state = VerdictState::cannotTell;  ///< pass: may be; fail: not to be done
    double seconds = std::numeric_limits<double>::infinity(), rest = 0;  ///< key down, and rest after it
    std::string sentence;
};

/// @param watts  the most that may come: what is promised, or was read, whichever is more; with its doubt
/// An analyser is kept 10 dB below its limit, a part without a limit cannot be told to be safe (common
/// practice).
KeyDownAsk whatArrives(double watts, const std::vector<Link>& chain, double ohms = 50);

}  // namespace ombrek
