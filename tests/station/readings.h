#pragma once

#include "station/proof/proof.h"

namespace ombrek {

/// What goes with a reading of this subject by this method, from one number: a position, turns, or what the
/// way of measuring power wants.
inline Settings settingsOf(const Subject& subject, const std::string& method, double setting) {
    if (subject.is(Subject::Kind::adjustment)) return {{std::string(kPosition), setting}};
    if (subject.is(Subject::Kind::coil)) return {{std::string(kTurns), setting}};
    if (!subject.is(Subject::Kind::power)) return {};
    return {{std::string(powerMethod(method).setting), setting}};
}

}  // namespace ombrek
