#pragma once

#include <string>

#include "core/quantity/verdict.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// What a kit lets expect of a subject.
struct Expected {
    double value = 0;          ///< about [SI]; 0: nothing is known, or only a limit on one side
    double low = 0, high = 0;  ///< beyond these a typed reading is asked about once; both 0: never
    std::string why;           ///< "the kit promises 3 W"
};
/// @param reading  subject, unit and method; its value does not matter
Expected expectedOf(const Kit& kit, const Reading& reading);

/// A question about a reading that is far from what can be expected, "4 kW? The kit promises 3 W."; empty
/// when it is none.
std::string surprise(const Kit& kit, const Reading& reading);

/// What cannot be, or is only known to lie beyond the meter's range, passes nothing: such a verdict becomes
/// "cannot tell" with the question as its sentence. A limit on one side is kept by a value beyond it.
void holdAgainst(const Kit& kit, const Reading& reading, Verdict& verdict);

}  // namespace ombrek
