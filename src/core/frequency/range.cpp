#include "core/frequency/range.h"

#include <algorithm>
#include <cmath>

namespace ombrek {

RangeMove moveStart(double lowNow, double lowWanted, const TankCapacitance& tank, int turns) {
    RangeMove out;
    out.hertz = lowWanted - lowNow;
    if (!(lowNow > 0) || !(lowWanted > 0)) return out;
    const double ratio = lowNow / lowWanted;  // of √(LC)
    out.capacitance = tank.at(0.5) * (ratio * ratio - 1);
    out.turns = turns * (ratio - 1);
    return out;
}

RangeVerdict judgeRange(double low, double high, const WantedRange& wanted, bool edge) {
    RangeVerdict out;
    if (!(wanted.high > wanted.low) || !(high > low)) {
        out.state = VerdictState::cannotTell;
        out.sentence = "Say what range is wanted, 7.000 to 7.100 MHz.";
        return out;
    }
    const double inside = std::min(high, wanted.high) - std::max(low, wanted.low);
    out.covered = std::clamp(inside / (wanted.high - wanted.low), 0.0, 1.0);
    out.below = std::max(0.0, wanted.low - low);
    out.above = std::max(0.0, high - wanted.high);
    const std::string all =
        formatQuantity(low, Unit::hertz, 5) + " to " + formatQuantity(high, Unit::hertz, 5);
    if (out.covered >= 1) {
        const bool beyond = edge && (out.below > 0 || out.above > 0);
        out.state = beyond ? VerdictState::doubtful : VerdictState::pass;
        out.sentence = "It tunes " + all + ": all that is wanted.";
        if (beyond)
            out.sentence += " It goes beyond your edges: mark them on the dial, and do not transmit there.";
        return out;
    }
    out.state = out.covered > 0 ? VerdictState::doubtful : VerdictState::fail;
    out.sentence = "It tunes " + all + ": " + decimals(out.covered * 100, 0) + " % of what is wanted.";
    return out;
}

}  // namespace ombrek
