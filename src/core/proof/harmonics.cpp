#include "core/proof/harmonics.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace ombrek {

double requiredSuppression(const LimitProfile& profile, double watts) {
    if (!(watts > 0)) throw std::domain_error("a transmitter's power is positive");
    if (watts <= profile.smallWatts) {
        const double most = std::max(profile.smallBase, 10 * std::log10(watts / profile.smallMost));
        return std::min(most, std::max(0.0, 10 * std::log10(watts / profile.smallLeast)));
    }
    return std::min(profile.base + profile.perDecade * std::log10(watts), profile.cap);
}

Verdict judgeHarmonic(const Harmonic& harmonic, const LimitProfile& profile, double watts, VerdictRule rule) {
    Limits limits;
    limits.low = requiredSuppression(profile, watts);
    return judge(harmonic.below, limits, harmonic.uncertainty, rule, Unit::decibel);
}

}  // namespace ombrek
