#pragma once

#include <cstdlib>
#include <string>

namespace ombrek {

/// How many trials a driver of the reliability trial makes: a few in every check, so that it is known to
/// work; as many as OMBREK_TRIAL says under scripts/trial.
inline int trials(int few) {
    const char* said = std::getenv("OMBREK_TRIAL");
    return said == nullptr ? few : std::atoi(said);
}

/// What the trial begins its draws from; another each time under scripts/trial, and printed there.
inline unsigned trialSeed() {
    const char* said = std::getenv("OMBREK_TRIAL_SEED");
    return said == nullptr ? 20 : unsigned(std::atoi(said));
}

}  // namespace ombrek
