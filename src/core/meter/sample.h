#pragma once

#include <string>
#include <string_view>

#include "core/quantity/quantity.h"

namespace ombrek {

/// One thing that an instrument showed.
struct Sample {
    enum class Kind {
        none,      ///< it said nothing that is a reading; `why` says what
        reading,   ///< `value`
        overload,  ///< more than its range; ohms and the beeper: open
        blank      ///< dashes, an empty display: nothing to measure
    };
    Kind kind = Kind::none;
    double value = 0;  ///< [SI]; never a negative zero
    Unit unit = Unit::none;
    double count = 0;  ///< worth of the last digit shown [SI]; 0: not known
    double range = 0;  ///< full scale that it was in [SI]; 0: not known
    bool ac = false, dc = false;
    bool peakToPeak = false;  ///< of AC: no effective value
    bool held = false;        ///< the display is frozen: no reading of now
    bool lowBattery = false;  ///< a low battery reads wrong
    bool diode = false;       ///< volts of the diode range
    bool gone = false;        ///< of kind none: nothing comes any more, and to wait is no use
    std::string why{};        ///< for kind none, a sentence
};

/// One that is no reading, and why.
inline Sample noSample(std::string why, bool gone = false) {
    Sample out;
    out.why = std::move(why);
    out.gone = gone;
    return out;
}

/// Which current a reading is of.
enum class Flow { either, dc, ac, peakToPeak };

/// Why a sample is no reading of what was wanted, as a sentence; empty when it is one. A frozen display, a
/// low battery, another quantity and another kind of current are none, nor is a peak-to-peak value an
/// effective one.
std::string unfit(const Sample& sample, Unit wanted, Flow flow = Flow::either);

}  // namespace ombrek
