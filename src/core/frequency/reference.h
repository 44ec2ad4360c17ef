#pragma once

#include <cmath>
#include <string>
#include <vector>

namespace ombrek {

/// A known frequency and what a counter read of it [Hz].
struct CountedPoint {
    double read = 0, known = 0;
    double error = 0;  ///< a standard deviation of both together [Hz]; 0: not said
};

/// What a counter's readings of known frequencies say of the counter: read = (1 + k)·known + offset.
struct ReferenceFit {
    enum class Verdict { offset, reference, both, neither, cannotTell };
    Verdict verdict = Verdict::cannotTell;
    double offset = NAN, offsetLow = NAN, offsetHigh = NAN;  ///< [Hz]; low and high 19 of 20 times
    double ppm = NAN, ppmLow = NAN, ppmHigh = NAN;           ///< k, in parts per million
    std::string sentence;                                    ///< what it is, and what to do
};

/// Fit by weighted least squares. Of the two, what does a fifth of the other's harm, or less, over these
/// frequencies, is not named beside it: crystals at hand are not so exact (common practice). With more than
/// two points, whose scatter shows how exact they are, a twentieth.
/// @param points  those that are no frequency are left out. Where one says no error, the scatter about the
///                line is taken with Student's factor; two such points do not scatter: their intervals stay
///                unknown (NaN), and the verdict goes by the two harms alone.
ReferenceFit fitReference(const std::vector<CountedPoint>& points);

/// What a reading may be off by its counter's reference, from the safe side [ppm]: the worse of the limits;
/// where only the figure is known, that and the 50 ppm of a plain crystal's mark (common practice). NaN:
/// nothing known.
double worstPpm(const ReferenceFit& fit);

/// What the counter is good for, as it stands in a sentence.
std::string word(ReferenceFit::Verdict verdict);

/// What may be said of a frequency that such a counter reads. @param ppm  half of the interval; NaN: nothing
/// known
std::string claimOf(double ppm);

}  // namespace ombrek
