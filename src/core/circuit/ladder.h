#pragma once

#include <complex>
#include <span>
#include <vector>

namespace ombrek {

/// One element of a ladder network.
struct LadderElement {
    enum class Kind { seriesL, seriesC, shuntL, shuntC, seriesR, shuntR };
    Kind kind = Kind::seriesL;
    double value = 0.0;  ///< [H], [F] or [Ω]
    double ohms = 0.0;   ///< in series with an L or C: its loss [Ω]
    bool operator==(const LadderElement&) const = default;
};

/// What a two-port does between its two resistances, by S-parameters.
struct Scattering {
    std::complex<double> s11, s21, s12, s22;
};

/// A ladder at many frequencies at once: power is taken apart by its two waves from the load back to the
/// source, all frequencies in step, so that a sweep costs a few additions an element.
struct LadderSweep {
    std::vector<double> s11re, s11im, s21re, s21im;
    /// Insertion loss of a point [dB], positive: lost.
    double loss(std::size_t point) const;
};

/// @param frequencies  [Hz], positive @param source, load  [Ω], positive
/// @throws std::domain_error outside, or where an element's value is not positive
/// Source: any network text; checked against a circuit simulator in the tests.
LadderSweep sweep(const std::vector<LadderElement>& ladder, std::span<const double> frequencies,
                  double source, double load);
/// The same into what a run of many sweeps keeps.
void sweepInto(LadderSweep& out, const std::vector<LadderElement>& ladder,
               std::span<const double> frequencies, double source, double load);

/// Insertion loss of a ladder between two equal resistances [dB], positive: lost.
/// @param frequency [Hz], positive @param resistance source and load [Ω]
double insertionLoss(const std::vector<LadderElement>& ladder, double frequency, double resistance);

}  // namespace ombrek
