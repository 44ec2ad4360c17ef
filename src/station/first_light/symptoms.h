#pragma once

#include "kit/build.h"
#include "kit/kit.h"
#include "kit/symptom.h"

namespace ombrek {

/// Symptoms for this kit: its own and the shipped ones, the kit's causes first. Those that need parts which
/// its list does not name stand at the end: a list in another language names none of them.
std::vector<Symptom> symptomsOf(const Kit& kit, const std::vector<Symptom>& shipped);

/// A cause as it stands after what was tried.
struct CauseNow {
    SymptomCause cause;
    std::vector<std::string> refs;  ///< parts of this kit that it may be, some of them
    double share = 0;               ///< of all causes of the symptom, 0 … 1
    bool ruledOut = false;          ///< its test was made, and it is not that
};
/// The likeliest first, what is ruled out last.
std::vector<CauseNow> causesNow(const Kit& kit, const Build& build, const Symptom& symptom);

/// Under which name a build's remarks keep what was tried, and what they say then: a suspect a line.
std::string triedName(const Symptom& symptom);
std::string triedWith(const Build& build, const Symptom& symptom, const std::string& suspect);

}  // namespace ombrek
