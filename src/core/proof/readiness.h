#pragma once

#include <string>
#include <vector>

#include "core/quantity/verdict.h"

namespace ombrek {

/// One thing a gate rests on: what was shown, and how it was judged.
struct Evidence {
    std::string what;  ///< "T1 main winding"
    VerdictState state = VerdictState::notDone;
    std::string sentence;
};

/// A condition for going on the air, with the evidence for it.
struct Gate {
    std::string id;       ///< "coils"
    std::string name;     ///< "Coils wound and measured"
    std::string station;  ///< where to earn it
    std::vector<Evidence> evidence;
    bool passedKnowingly = false;
    std::string reason;  ///< the builder's, when passed knowingly

    VerdictState state() const;
    /// Earned by evidence, or passed knowingly: either way the builder may go on.
    bool open() const { return state() == VerdictState::pass || passedKnowingly; }
    /// "61 of 96 pass, 2 fail": counts of the evidence in words.
    std::string summary() const;
};

struct Readiness {
    std::vector<Gate> gates;
    int earned() const;  ///< gates whose evidence passes
    int open() const;    ///< earned or passed knowingly
    bool fit() const { return !gates.empty() && open() == static_cast<int>(gates.size()); }
    /// The first gate that is not open, or null.
    const Gate* next() const;
};

}  // namespace ombrek
