#pragma once

#include <optional>
#include <string>
#include <vector>

#include "station/board/board.h"

namespace ombrek {

/// One evening at the bench: stretches with pauses of less than three hours between them.
struct Evening {
    std::int64_t start = 0, end = 0;
    double minutes = 0;              ///< worked
    std::vector<std::string> steps;  ///< done in it, by id, in the order of doing
};
/// Oldest first.
std::vector<Evening> eveningsOf(const Kit& kit, const Build& build);

/// Whether the next action begins another evening. @param now  seconds since 1970
bool newSitting(const Build& build, std::int64_t now);

/// The pause before the stretch in hand, while it may still be asked whether it counts: between twenty
/// minutes and three hours, and not counted yet.
std::optional<Sitting> pauseToAskAbout(const Build& build);

/// What a sitting of some length will want, found before it begins.
struct SittingAhead {
    std::vector<const Step*> steps;  ///< that it will come to, at this builder's pace
    double minutes = 0;              ///< they take together
    struct Want {
        std::string what, why;  ///< "2.5 mm drill bit", "for: Drill the case"
    };
    std::vector<Want> tools;   ///< to lay ready
    std::vector<Want> keeps;   ///< to lay aside, with how many are there
    std::vector<Want> notYet;  ///< not to do yet
    std::vector<Want> holds;   ///< where it stops for proof
};
/// @param order  indices into kit.steps @param minutes  the sitting is to last
SittingAhead sittingAhead(const Kit& kit, const Build& build, const std::vector<std::size_t>& order,
                          double minutes);

/// On return after a night or more: where one was, what was odd, what was touched.
struct WhereOneWas {
    std::string last;                  ///< the step last done, its title
    std::vector<std::string> odd;      ///< remarks of that evening, open findings
    std::vector<std::string> touched;  ///< designators fitted in it
};
/// @return nothing while no step was done
std::optional<WhereOneWas> whereOneWas(const Kit& kit, const Build& build);

}  // namespace ombrek
