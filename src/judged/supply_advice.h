#pragma once

#include "judged/judged.h"

namespace ombrek {

/// To what a supply is set before the plug goes in.
struct SupplyAdvice {
    double volts = 0;    ///< [V]; 0: nobody said
    double amperes = 0;  ///< current limit [A]; 0: nobody said what the rig draws
    std::string why;     ///< how they come about, or what is not said
};

/// Till the key may go down the limit is half as much again as the most that the kit's checks let it draw
/// with the key up, at least 50 mA; after that a fifth over what is promised with the key down (common
/// practice). What nobody said is not guessed.
SupplyAdvice supplyAdvice(const Judged& judged);

/// Why a supply must not be set so for this kit, as a sentence; empty: it may. Never over a tenth above the
/// kit's voltage.
std::string supplyTrouble(const Kit& kit, double volts, double amperes);

}  // namespace ombrek
