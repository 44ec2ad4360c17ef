#pragma once

#include <array>
#include <string>
#include <string_view>
#include <vector>

#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// What the loupe may find, in words, and what to do about it. Criteria in our own words; IPC-A-610 is the
/// standard for them.
struct JointLook {
    Finding::What what;
    std::string_view word, looks, mend;
};
/// What there is to look for at a joint, in the order of the keys.
const std::array<JointLook, 6>& jointLooks();
/// "cold joint", "bridge", as a task names it.
std::string_view word(Finding::What what);
/// What a good joint looks like, one sentence.
std::string_view goodJoint();

/// Parts whose joints were made in the last evening of soldering, in the order for the loupe: row by row over
/// the board, to and fro; parts without a place come last. All that were never looked at, when `all` is
/// asked.
std::vector<const Part*> jointsToLookAt(const Kit& kit, const Build& build, bool all = false);

/// Polarised parts that are fitted and were held against the print.
std::size_t sensesLookedAt(const Kit& kit, const Build& build);
/// Parts that are fitted, as far as the plan knows.
std::size_t fittedParts(const Kit& kit, const Build& build);

/// Parts that go in one way round only: those with an orientation in the kit, and every diode, LED,
/// transistor, IC and polarised capacitor. With where to look.
/// How a part goes in and what to look at, in words: the kit's own, else what its kind is marked with; empty
/// when it goes in either way.
std::string senseOf(const Part& part);

struct SenseLook {
    const Part* part;
    std::string look;  ///< "band towards C1"
};
/// Fitted and not yet held against the print, in the same order.
std::vector<SenseLook> sensesToLookAt(const Kit& kit, const Build& build);

/// Those that nobody has closed, the oldest first.
std::vector<const Finding*> openFindings(const Build& build);
/// Open findings at the parts that a step fits.
std::vector<const Finding*> findingsAt(const Step& step, const Build& build);

}  // namespace ombrek
