#pragma once

#include <string>
#include <vector>

#include "core/coil/core.h"
#include "core/quantity/verdict.h"
#include "core/quantity/working.h"

namespace ombrek {

/// What a transformer on a core does between two windings.
struct TransformerCheck {
    double impedanceRatio = 1;  ///< (N1/N2)²
    double secondary = 0;       ///< impedance seen at the second winding [Ω]
    double reactance = 0;       ///< of the first winding at the lowest frequency [Ω]
    double times = 0;           ///< that reactance over the impedance there
    VerdictState state = VerdictState::notDone;
    std::string sentence;
    Working working;
};

/// Impedance goes with the square of the turns; the winding's reactance at the lowest frequency wants to be
/// at least four times the impedance it sees, five to be sure (common practice).
/// @param impedance  at the first winding [Ω] @param lowest  frequency [Hz] @throws std::domain_error
TransformerCheck checkTransformer(const MagneticCore& core, int first, int second, double impedance,
                                  double lowest);

/// "16 to 1", "1 to 6.25": an impedance ratio with its smaller side as one.
std::string ratioText(double ratio);

/// Counts as they are seen on the outside of a ring before the tails are parted.
///
/// With several windings on one ring the last tail of the first lies beside the first turn of the last and is
/// counted with it: 30-3-3-3 is seen as 29-3-3-4 (common practice). One winding is seen as it is.
std::vector<int> turnsAsSeen(const std::vector<int>& turns);

}  // namespace ombrek
