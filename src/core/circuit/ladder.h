#pragma once

#include <vector>

namespace ombrek {

/// One lossless element of a ladder network.
struct LadderElement {
    enum class Kind { seriesL, seriesC, shuntL, shuntC };
    Kind kind = Kind::seriesL;
    double value = 0.0;  ///< [H] or [F]
};

/// Insertion loss of a ladder between two equal resistances [dB], positive: lost.
///
/// The chain (ABCD) matrices are multiplied; S21 = 2/(A + B/R + C·R + D).
/// @param frequency [Hz], positive @param resistance source and load [Ω]
/// Source: any network text; checked against a circuit simulator in the tests.
double insertionLoss(const std::vector<LadderElement>& ladder, double frequency, double resistance);

}  // namespace ombrek
