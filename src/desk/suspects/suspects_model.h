#pragma once

#include <string>
#include <vector>

#include "circuit/rig_on_bench.h"

namespace ombrek {

/// A reading and how it speaks of one suspect.
struct EvidenceRow {
    std::string text;   ///< what was read, "VFO drain"
    std::string word;   ///< "8 V, not 6.46 V: against"
    double weight = 0;  ///< how much it speaks at all
    VerdictState state = VerdictState::notDone;
};

/// What the page "What is wrong" shows.
struct SuspectsView {
    std::string now, why;
    std::vector<Suspect> suspects;  ///< the few that are believed at all
    std::size_t at = 0;             ///< in hand
    std::vector<EvidenceRow> evidence;
    Subject next;  ///< to be read next; of unknown kind: nothing
    Unit nextUnit = Unit::volt;
    std::string touch;  ///< where
    std::string state;  ///< while the rig does what
    std::vector<std::string> nextParts;
    bool settled = false;  ///< one suspect is enough ahead
};
/// What Suspects shows with the row `at` in hand.
SuspectsView suspectsView(const RigOnBench& rig, std::size_t at);

/// "R25 open", "nothing: a sound rig".
std::string suspectName(const Suspect& suspect);
/// What it would look like, and what to do, in a sentence.
std::string suspectLooks(const Kit& kit, const Suspect& suspect);
/// A percentage for a person, "93 %", "under 1 %".
std::string oddsText(double odds);

}  // namespace ombrek
