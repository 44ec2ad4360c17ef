#include "core/proof/harmonics.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace ombrek {

double requiredSuppression(const LimitProfile& profile, double watts) {
    if (!(watts > 0)) throw std::domain_error("a transmitter's power is positive");
    return std::min(profile.base + profile.perDecade * std::log10(watts), profile.cap);
}

Verdict judgeHarmonic(const Harmonic& harmonic, const LimitProfile& profile, double watts, VerdictRule rule) {
    Limits limits;
    limits.low = requiredSuppression(profile, watts);
    return judge(harmonic.below, limits, harmonic.uncertainty, rule, Unit::decibel);
}

}  // namespace ombrek
