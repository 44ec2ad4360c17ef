#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/plan/pace.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// What kind of work a step is, by what it fits and what it holds.
WorkKind workOf(const Kit& kit, const Step& step);

/// How dreaded a step is, 1 to 5: the kit's word, else coils with several windings and fine-pitched ICs most,
/// resistors least (common practice).
double hardnessOf(const Kit& kit, const Step& step);

/// The steps as the plan sees them.
std::vector<PlanStep> planSteps(const Kit& kit);

/// Minutes at the bench between two times: the stretches, and the pauses that are to count.
double benchMinutes(const Build& build, std::int64_t from, std::int64_t to);

/// What the steps done took, from the bench clock between one's end and the next's; time before a reading
/// that belongs to no such step (a coil measured, a check) is another station's and left out. Steps ended
/// within a minute share their time by plan; a step that took a twentieth or twenty times its plan tells of
/// something else and is left out.
std::vector<WorkDone> workDone(const Kit& kit, const Build& build);
/// The same by step [min]: what the steps of a kit took, without those that tell of something else.
std::map<std::string, double> stepMinutes(const Kit& kit, const Build& build);
std::vector<WorkLeft> workLeft(const Kit& kit, const Build& build);

/// The steps of a kit in a building order, as indices into kit.steps.
Result<std::vector<std::size_t>> stepOrder(const Kit& kit, Order order);

}  // namespace ombrek
