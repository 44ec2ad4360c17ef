#include "core/proof/exposure.h"

#include <cmath>
#include <numbers>

#include "core/quantity/quantity.h"

namespace ombrek {

Result<Exposure> exposureOf(double watts, double gain, double duty, double frequency) {
    if (!(watts > 0) || !std::isfinite(watts) || !(duty > 0) || duty > 1 || !(std::abs(gain) < 60))
        return problem("", "A power, a gain in dB and a duty up to 1 (100 %) are wanted.");
    if (!(frequency >= 0.3e6) || frequency > 300e6)
        return problem("", "The limits that Ombrek knows go from 0.3 to 300 MHz: cannot tell.");
    Exposure out;
    const double megahertz = frequency / 1e6;
    const double milliwatts = megahertz < 1.34 ? 100 : megahertz < 30 ? 180 / (megahertz * megahertz) : 0.2;
    out.limit = milliwatts * 10;
    const double mirrored = 4;
    out.metres =
        std::sqrt(mirrored * watts * std::pow(10, gain / 10) * duty / (4 * std::numbers::pi * out.limit));
    out.sentence = "Keep people at least " + formatQuantity(out.metres, Unit::metre, 2) +
                   " from the antenna. An estimate for the far field: near a wire the field is another; your "
                   "regulator's rules decide.";
    return out;
}

}  // namespace ombrek
