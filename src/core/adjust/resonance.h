#pragma once

#include <vector>

namespace ombrek {

/// The response of a tuned circuit, or of two that are coupled and turned together, against an adjuster's
/// travel.
struct Resonance {
    double at = 0.5;         ///< middle [travel]; outside 0 … 1 when it lies beyond an end stop
    double halfWidth = 0.1;  ///< of one circuit, from its peak to 0.707 of it [travel]
    double fixed = 0;  ///< capacitance that stays, against what the trimmer adds over its travel; 0: the
                       ///< curve is alike on both sides
    double coupling = 0;  ///< k·Q of two coupled circuits; 0: one circuit
    double tilt = 0;      ///< how much higher the upper hump is than the lower, −1 … 1
    double height = 1;    ///< of the response where it is highest
    double weight = 1;    ///< the belief in it, all together 1
};

/// How far off resonance, in half widths: the capacitance goes straight with the travel, and resonance with
/// its root.
double offOf(const Resonance& r, double position);
/// Against its own highest, 0 … 1: 1/√(1 + s²) of one circuit, s in half widths off; of two that are coupled
/// 2κ/√((1 − s² + κ²)² + 4s²), with two humps at s = ±√(κ² − 1) when κ > 1. Source: coupled tuned circuits,
/// any radio text.
double gainOf(const Resonance& r, double position);
/// Where it is highest.
double highestOf(const Resonance& r);
/// What is lost at a position against the highest within the travel [dB].
double lossAt(const Resonance& r, double position);

/// A reading of an adjuster, for a fit.
struct ResonancePoint {
    double position = 0, reading = 0;
    double error =
        0;  ///< a standard deviation [unit of the reading]; 0: not known, guessed from the readings
};

/// Curves that these readings leave possible, the likeliest first, by Bayes on a grid that is drawn closer
/// around what is believed. Before anything is read: everywhere, a peak in the travel four times as likely as
/// one beyond its ends; half widths alike in every decade.
/// @param noise  of one reading, as a share of it, where a point says no error of its own
std::vector<Resonance> resonancesOf(const std::vector<ResonancePoint>& points, double noise);

}  // namespace ombrek
