#pragma once

#include <string>

#include "core/coil/core.h"
#include "core/quantity/working.h"

namespace ombrek {

struct TurnChange {
    int turns = 0;            ///< to add; negative: to remove
    double inductance = 0.0;  ///< then to be expected [H]
};

/// Whole-turn change that brings a wound coil nearest to its target.
///
/// Inductance goes with the square of the turns: N2 = N1·√(L_target / L_measured).
/// @param wound     turns on the core now, at least 1
/// @param measured  inductance read on the finished coil [H], positive
/// @param target    inductance wanted [H], positive
/// @return turns to add (negative: to remove) and the inductance then to be expected [H]
/// @throws std::domain_error if a value is out of range
/// Source: definition of AL; any inductor text.
TurnChange turnsToTarget(int wound, double measured, double target);

/// What to do with a coil after measuring it.
struct TrimAdvice {
    enum class Act { leave, squeeze, spread, addTurns, removeTurns, distrust };
    Act act = Act::leave;
    int turns = 0;                ///< to add or remove, positive
    double deviationPercent = 0;  ///< measured against target
    std::string sentence;         ///< ready to be shown
    Working working;
};

/// Advice after measuring: leave, squeeze, spread, add or remove turns.
///
/// Within the tolerance: leave. Squeezing (turns closer: more) or spreading (less) moves a partly filled
/// powder ring by up to about 10 %, one filled beyond 80 % by about 4 %, a ferrite or two-hole core hardly at
/// all (common practice). Beyond that, whole turns; if one turn overshoots by more than it mends, squeeze or
/// spread as far as it goes. A reading beyond a third or three times what AL and the turns give is not
/// believed (distrust): no number of turns mends a short, an unstripped tail or a wrong core. Any number may
/// be given as measured.
/// @param measured  [H]; zero, negative, infinite or no number at all: distrust
/// @param fill       turns on the core / turns that fit, 0 to 1
/// @param tolerance  accepted deviation [%]
TrimAdvice adviseTrim(const MagneticCore& core, int wound, double measured, double target, double tolerance,
                      double fill);

}  // namespace ombrek
