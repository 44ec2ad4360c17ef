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
    bool onTrust = false;  ///< passes by the builder's word, not by a reading or a look
};

/// A condition for going on the air, with the evidence for it.
struct Gate {
    std::string id;       ///< "coils"
    std::string name;     ///< "Coils wound and measured"
    std::string station;  ///< where to earn it
    std::vector<Evidence> evidence;
    bool passedKnowingly = false;
    std::string reason;    ///< the builder's, when passed knowingly
    std::string lapsed{};  ///< what has become worse since it was passed knowingly, so that it bars again

    VerdictState state() const;
    /// Earned by evidence, or passed knowingly: either way the builder may go on.
    bool open() const { return state() == VerdictState::pass || passedKnowingly; }
    /// "61 of 96 pass, 2 fail": counts of the evidence in words.
    std::string summary() const;
};

/// The evidence that does not pass, as text to be kept with a reason: one line a thing, its state before it.
std::string basisOf(const std::vector<Evidence>& evidence);

/// What is worse than when that text was made, by name; empty when nothing is. Where nothing was kept,
/// anything that fails is worse.
std::string worseThan(const std::string& basis, const std::vector<Evidence>& evidence);

struct Readiness {
    std::vector<Gate> gates;
    int earned() const;  ///< gates whose evidence passes
    int open() const;    ///< earned or passed knowingly
    bool fit() const { return !gates.empty() && open() == static_cast<int>(gates.size()); }
    /// The first gate that is not open, or null.
    const Gate* next() const;
};

}  // namespace ombrek
