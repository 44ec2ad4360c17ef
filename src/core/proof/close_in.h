#pragma once

#include <string>
#include <vector>

#include "core/proof/spectrum.h"

namespace ombrek {

/// What a transmitter sends.
enum class Emission { carrier, upperSideband, lowerSideband, bothSidebands };

/// A line near a carrier.
struct CloseLine {
    double offset = 0;  ///< from the carrier [Hz]
    double below = 0;   ///< [dB]
    std::string name;   ///< "hum, 100 Hz", "not named"
};

/// A trace close about the carrier.
struct CloseIn {
    double carrier = 0;            ///< [Hz]; of a suppressed one where it should be
    double bandwidth = NAN;        ///< that holds 99 % of the power [Hz]
    std::vector<CloseLine> lines;  ///< by their offset
    double hum = NAN;              ///< the highest of the hum [dB below]; NaN: none seen
    double unwanted = NAN;         ///< other sideband below the wanted one [dB]
    double carrierBelow = NAN;     ///< carrier below the wanted sideband [dB]
    VerdictState state = VerdictState::cannotTell;
    std::string sentence;
};

/// Lines of the mains and their multiples (50 or 60 Hz) are named on both sides of the carrier; the bandwidth
/// is the one that leaves half a per cent of the power on either side (ITU-R SM.328, from memory). Sidebands:
/// the power of each side within 4 kHz of where the carrier should be.
/// Hum more than 40 dB below is not heard beside a signal, a sideband 40 dB below is what a filter rig should
/// give (common practice).
/// @param carrier  [Hz]; 0: the highest peak @return cannot tell where the trace is too coarse for it
CloseIn judgeCloseIn(std::vector<TracePoint> trace, double carrier, Emission emission);

/// Whether a trace is one close about its carrier: narrower than a fiftieth of it.
bool isCloseIn(const std::vector<TracePoint>& trace, double carrier);

}  // namespace ombrek
