#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/frequency/crystals.h"
#include "core/frequency/dial.h"
#include "core/frequency/range.h"
#include "core/frequency/reference.h"
#include "core/proof/spectrum.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

// What a build's readings of frequencies say: of the counter, of crystals, of the dial.

/// How far what is known of a frequency may be off, its mark or its standard [ppm].
inline constexpr std::string_view kKnownWithin = "known_within";
/// A counter's reading of a frequency that is known, the last of each. Its error is that of what is known;
/// 0: nobody said.
struct KnownFrequency {
    Subject subject;
    CountedPoint point;
};
/// What was read on the counter of frequencies that are known.
std::vector<KnownFrequency> knownFrequencies(const Build& build);
/// How far the counter is off by them [ppm].
ReferenceFit counterOf(const Build& build);

/// Readings of a crystal: as it is, and with a capacitor in series. One without a unit: it does not start.
inline constexpr std::string_view kLoad = "load";        ///< capacitance in series with it [F]
inline constexpr std::string_view kLoss = "loss";        ///< between two equal resistances at its series
                                                         ///< frequency [dB]
inline constexpr std::string_view kBetween = "between";  ///< those resistances [Ω]
/// Between a crystal's electrodes and its can, when nobody measured it [F] (common practice).
inline constexpr double kHolder = 4e-12;

/// A crystal of the batch with all that is known of it.
struct BatchCrystal {
    std::string id;
    double frequency = NAN;  ///< without a load [Hz]; 0: it does not start
    std::optional<Motional> motional;
    double resistance = NAN, q = NAN;
};
/// By number where they have one.
std::vector<BatchCrystal> batchOf(const Build& build);

/// Knob positions and frequencies of one band, the last of each position, by rising position.
std::vector<DialPoint> dialPointsOf(const Build& build, const std::string& band = "");

/// What the builder chose a range to be, Choice::wantedRange.
std::optional<WantedRange> wantedRangeOf(const Build& build);
/// "7.000M 7.060M", "7.0 to 7.06 MHz". @return nothing for what are no two rising frequencies
std::optional<WantedRange> readRange(std::string text);

/// The rig's oscillators as its kit names them, to name mixing products by: what is set to a frequency, and
/// checks of a frequency between two limits.
std::vector<Oscillator> oscillatorsOf(const Kit& kit);

}  // namespace ombrek
