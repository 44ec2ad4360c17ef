#pragma once

#include <string>
#include <vector>

#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// What the readings of a subject rest on, as subjects: a check on the parts it names; an adjustment on its
/// coil, the capacitors across it, the part that is turned and its neighbours on the same coil, a bias on its
/// transistors; power, harmonics and what is drawn on what tunes and filters them, on the finals, and on
/// parts whose duty names the band; frequency on the oscillators; and whatever the kit adds. When one of them
/// changes, what was read before tells of something that is no more.
std::vector<Subject> restsOn(const Kit& kit, const Subject& subject);

/// Everything of the kit that is read and judged: coils, checks, adjustments, and of each band power, what it
/// draws where that is promised, frequency and harmonics.
std::vector<Subject> judgedSubjects(const Kit& kit);

/// What must be shown again when a part or a coil is changed, read before or not: it, where it is measured,
/// and all that rests on it.
std::vector<Subject> shownAgain(const Kit& kit, const std::string& ref);

/// Designators of the output transistors: those whose duty says final, and those a bias is of.
std::vector<std::string> finalsOf(const Kit& kit);

/// The readings of a subject that still hold, oldest first: taken after it, and everything that it rests on,
/// was last changed. A neighbour counts as changed when it stands more than 2 % of its travel from where it
/// stood, of a frequency 0.2 %.
std::vector<Reading> standing(const Kit& kit, const Build& build, const Subject& subject);

/// The last of them, or nothing.
std::optional<Reading> lastStanding(const Kit& kit, const Build& build, const Subject& subject);

/// What has been read and rests on this, or is it: what is to be measured again when it is changed.
std::vector<Subject> restingOn(const Kit& kit, const Build& build, const Subject& on);

/// Why what was read of a subject holds no more: "T1 was changed since: measure again." Empty when the last
/// reading holds, or there is none.
std::string changedSince(const Kit& kit, const Build& build, const Subject& subject);

}  // namespace ombrek
