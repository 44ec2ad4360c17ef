#include "core/meter/sample.h"

#include <cmath>

#include "core/quantity/shown.h"

namespace ombrek {

std::string unfit(const Sample& s, Unit wanted, Flow flow) {
    if (s.kind == Sample::Kind::none) return s.why.empty() ? "it said nothing that is a reading." : s.why;
    if (s.held) return "its display is on hold, or shows a least, a most or a difference; release that.";
    if (s.lowBattery) return "its battery is low, and a low battery reads wrong; change it.";
    if (s.kind == Sample::Kind::blank)
        return "it finds nothing to measure; are the clips on it, and is it in the right range?";
    if (s.unit == Unit::none) return "it does not say in which unit it reads.";
    if (s.unit != wanted)
        return "it reads " + std::string(plural(s.unit)) + ", and " + std::string(plural(wanted)) +
               " are wanted; turn its switch.";
    if (s.diode && wanted == Unit::ohm) return "it is in its diode range; turn its switch to ohms.";
    const bool current = wanted == Unit::volt || wanted == Unit::ampere;
    if (current && flow != Flow::either) {
        const bool alternating = s.ac || s.peakToPeak;
        if (flow == Flow::dc && alternating && !s.dc)
            return "it is on AC, and DC is wanted; turn its switch.";
        if (flow != Flow::dc && !alternating)
            return "it does not say that it is on AC, and AC is wanted; turn its switch.";
        if (flow == Flow::ac && s.peakToPeak)
            return "it reads from peak to peak, and the effective value is wanted.";
        if (flow == Flow::peakToPeak && !s.peakToPeak)
            return "it reads the effective value, and peak to peak is wanted; read a scope, and type it.";
    }
    if (s.kind == Sample::Kind::overload) return {};
    if (!std::isfinite(s.value)) return "it shows no number.";
    return impossible(s.value, wanted).value_or("");
}

}  // namespace ombrek
