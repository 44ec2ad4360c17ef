#pragma once

#include <string>
#include <vector>

#include "core/quantity/verdict.h"

namespace ombrek {

/// A rule for spurious emissions: at least `base + perDecade·log10(P/1 W)` dB below the fundamental, never
/// more than `cap`; of small transmitters a rule of its own, where there is one.
struct LimitProfile {
    std::string id;
    std::string name;
    double base = 43.0;      ///< [dB]
    double perDecade = 0.0;  ///< [dB]
    double cap = 1e9;        ///< [dB]
    std::string source;
    double from = 0, to = 30e6;  ///< carriers that it speaks of [Hz]
    /// Up to this power at least `smallBase` dB below, and each at most `smallMost` watts, but none needs to
    /// be under `smallLeast` watts; 0: no such rule.
    double smallWatts = 0, smallBase = 0, smallMost = 0, smallLeast = 0;
    bool speaksOf(double carrier) const { return carrier >= from && carrier < to; }
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
