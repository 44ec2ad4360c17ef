#pragma once

#include <string>
#include <vector>

#include "core/quantity/verdict.h"

namespace ombrek {

/// A rule for spurious emissions: at least `base + perDecade·log10(P/1 W)` dB below the fundamental, never
/// more than `cap`.
struct LimitProfile {
    std::string id;
    std::string name;
    double base = 43.0;      ///< [dB]
    double perDecade = 0.0;  ///< [dB]
    double cap = 1e9;        ///< [dB]
    std::string source;
};

/// How far below the fundamental a spurious emission must be at this power [dB]. @param watts  mean or PEP,
/// positive
double requiredSuppression(const LimitProfile& profile, double watts);

struct Harmonic {
    int order = 2;           ///< 2: second harmonic
    double below = 0.0;      ///< [dB] below the fundamental, positive
    double uncertainty = 0;  ///< [dB], U = 2u
};

/// One harmonic against a profile.
Verdict judgeHarmonic(const Harmonic& harmonic, const LimitProfile& profile, double watts, VerdictRule rule);

}  // namespace ombrek
