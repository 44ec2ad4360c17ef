#pragma once

#include <cmath>
#include <string>
#include <vector>

#include "core/proof/harmonics.h"

namespace ombrek {

/// One point of an analyser's trace.
struct TracePoint {
    double hertz = 0, level = 0;  ///< [Hz], [dBm, or dB against anything that is the same for all]
};

/// A peak of a trace with what it is.
struct TracePeak {
    double hertz = 0, level = 0;
    double below = 0;       ///< the carrier [dB]
    int harmonic = 0;       ///< its order; 0: it is none
    std::string name;       ///< "carrier", "harmonic 2", "2 × VFO + BFO", "not named"
    bool seen = true;       ///< false: a harmonic that the trace covers and does not show
    double required = NAN;  ///< below the carrier, by the profile [dB]
    VerdictState state = VerdictState::notDone;
};

/// An oscillator of the rig, to name mixing products by.
struct Oscillator {
    std::string name;
    double hertz = 0;
};

/// How a trace is judged.
struct SpectrumQuestion {
    double carrier = 0;  ///< [Hz]; 0: the highest peak
    double watts = 0;    ///< of the carrier; 0: not known, nothing is judged
    LimitProfile profile;
    std::vector<Oscillator> oscillators;
    double uncertainty = 3;  ///< of a difference of two levels [dB], U = 2u (common practice: ±1.5 dB each)
    int harmonics = 5;       ///< looked for where the trace covers them
};

struct Spectrum {
    TracePeak carrier;
    std::vector<TracePeak> peaks;  ///< without the carrier, by rising frequency
    double floor = NAN;            ///< noise [same as the levels]
    VerdictState state = VerdictState::cannotTell;
    std::string sentence;
};

/// Peaks that stand 10 dB out of the noise and 6 dB over the saddle to a higher one; each named as a
/// harmonic, or as the lowest product of at most the seventh order of the rig's oscillators, that lies within
/// the trace's own resolution. A harmonic that is covered and not seen is below the noise there: that is a
/// reading, which proves the limit or cannot tell. Below the limit by less than the uncertainty cannot tell,
/// either way.
/// @param trace  in any order; what is no number is left out
Spectrum judgeSpectrum(std::vector<TracePoint> trace, const SpectrumQuestion& question);

/// Peaks of a trace that fall against the carrier when the analyser is given less: what is the rig's falls
/// with its carrier, the analyser's own harmonics and mixing products fall faster.
/// @param first, more  the same rig with less and with more attenuation before the analyser, or in it
std::vector<TracePeak> ownProducts(const Spectrum& first, const Spectrum& more);

}  // namespace ombrek
