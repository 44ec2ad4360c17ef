#pragma once

#include <cmath>
#include <string>
#include <vector>

namespace ombrek {

/// What is known of a rig that gives less than it promises. NaN: not known; each ratio is to what it should
/// be.
struct PowerFacts {
    double power = NAN;       ///< read over promised, at the supply it was read with
    double powerError = 0.1;  ///< of that ratio, U = 2u
    double supply = NAN;      ///< with the key down, over the promise's
    double unloaded = NAN;    ///< the same with the key up
    double current = NAN;     ///< drawn with the key down, over what is promised
    double other = NAN;       ///< power by another way, over promised
    double filterLoss = NAN;  ///< of the low-pass as measured, over what it should lose [dB]
    double coil = NAN;        ///< how far the worst coil of the output is off [% of its value]
    double loadSwr = NAN;     ///< of what it works into
    double drive = NAN;       ///< at the finals' input, in volts over what it should be
    double audio = NAN;       ///< at the modulator, in volts over what it should be
    double bias = NAN;        ///< idle current of the finals over what it should be
    double toGain = NAN;      ///< that an adjuster still gave when turned [dB]
    double finals = 0;        ///< transistors that share the power; 0: not known
    double handed = NAN;      ///< finals that warm up over those there are
    double jumps = NAN;       ///< 1: it jumps when something is pressed or bent; 0: it does not
    double otherBands = NAN;  ///< power over promise on the other bands
    bool voice = false;       ///< read while speaking or with a tone, not with a carrier
};

/// A cause of less power than was promised.
struct PowerCause {
    std::string id;    ///< "dead-final"
    std::string name;  ///< "One of the finals is dead"
    double odds = 0;   ///< all together 1
    double lost = 0;   ///< power that it would take away, of what was promised (0 … 1); NaN: cannot be said
    std::vector<std::string> against, supports;  ///< readings, in words
    std::string test;                            ///< the one that decides
    std::string repair;                          ///< what to do when it is so
};

/// Causes ranked by what is known. Each says what every other reading would be if it alone made the power
/// what it is (a stage saturated by its supply goes as V², finals in parallel as their number or its square,
/// a mismatch takes 1 − |Γ|²); how well that fits, and how often such causes are to blame (common practice),
/// are its odds. Nothing when the power is not known, or is not less.
std::vector<PowerCause> causesOfLess(const PowerFacts& facts);

/// Whether there is anything to explain: less than promised by more than its error.
bool lessThanPromised(const PowerFacts& facts);

}  // namespace ombrek
