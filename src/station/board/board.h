#pragma once

#include <vector>

#include "core/plan/pace.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// The first step in order that is not done, or null. @param order  indices into kit.steps, from stepOrder
const Step* nextStep(const Kit& kit, const std::vector<std::size_t>& order, const Build& build);

/// The first step, in the manual's order, that must be done before this one and is not; null when none is.
const Step* mustComeFirst(const Step& step, const Kit& kit, const Build& build);

/// What must not be done, or must be known, at a step because of what comes later: look-aheads whose `from`
/// is this step or done and whose `until` is still to come, steps that must wait, coils that Tune may still
/// change. What is to be laid aside is `keepsAt`.
std::vector<LookAhead> lookAheadsAt(const Step& step, const Kit& kit, const Build& build);

/// Something to lay aside at or since a step for a later one, and how many are there.
struct KeepAhead {
    const Step* from = nullptr;
    const Step* until = nullptr;  ///< may be null in a kit that names none
    std::string what;
    int wanted = 1, kept = 0;
};
/// All that is to be kept now, each thing once.
std::vector<KeepAhead> keepsAt(const Step& step, const Kit& kit, const Build& build);

/// Whether every part that a step fits is known to be in; the ones that are not, by designator.
std::vector<std::string> partsNotIn(const Step& step, const Kit& kit, const Build& build);

/// The coils that a step fits and that are not wound and measured right, by designator.
std::vector<std::string> coilsNotReady(const Step& step, const Kit& kit, const Build& build);

/// The coils that a step fits and that nobody has wound or measured yet, by designator: they cannot be
/// fitted.
std::vector<std::string> coilsUntouched(const Step& step, const Kit& kit, const Build& build);

struct PlanTime {
    double plannedDone = 0, plannedLeft = 0;  ///< [min]
    double spent = 0;                         ///< at the bench, all sittings [min]
    Pace::Left left;                          ///< at this builder's pace, with its spread [min]
};
/// How long the open steps will take at this builder's pace, from 400 draws [min].
Pace::Left timeLeft(const Kit& kit, const Build& build);
/// @param left  as timeLeft has it: 400 draws, so it is not reckoned twice
PlanTime planTime(const Kit& kit, const Build& build, const Pace::Left& left);

}  // namespace ombrek
