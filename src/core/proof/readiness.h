#pragma once

#include <cstdint>
#include <limits>
#include <string>
#include <vector>

#include "core/plan/station.h"
#include "core/quantity/verdict.h"

namespace ombrek {

/// One thing a gate rests on: what was shown, and how it was judged.
struct Evidence {
    std::string what;  ///< "T1 main winding"
    VerdictState state = VerdictState::notDone;
    std::string sentence;
    bool onTrust = false;  ///< passes by the builder's word, not by a reading or a look

    // The reading behind it, where there is one.
    std::string subject{};  ///< of kit/subject.h
    std::string figure{};   ///< "5.02 V ± 0.03 V"
    std::string meter{};    ///< "multimeter, 0.5 % + 2 digits of 6000"
    std::int64_t at = 0;    ///< when, seconds since 1970, UTC; 0: no reading
    double value = std::numeric_limits<double>::quiet_NaN(), uncertainty = 0;  ///< U = 2u [SI]
    std::string band{};  ///< that it is of; empty: of the whole rig
    /// By what the builder's word on it is kept, however it is called; empty: by `what`.
    std::string key{};

    // The builder's word on it.
    bool accepted = false;  ///< passed knowingly, and not worse since
    bool lapsed = false;    ///< was passed knowingly, but has changed since
    std::string reason{};
    std::string forbids{};  ///< of a known defect: what it forbids

    const std::string& kept() const { return key.empty() ? what : key; }
    bool knownDefect() const { return accepted && !forbids.empty(); }
    /// It neither passes nor was passed knowingly.
    bool bars() const { return state != VerdictState::pass && !accepted; }
};

/// A condition for going on the air, with the evidence for it.
struct Gate {
    std::string id;                   ///< "coils"
    std::string name;                 ///< "Coils wound and measured"
    Station station = Station::none;  ///< where to earn it
    std::vector<Evidence> evidence;
    bool passedKnowingly = false;  ///< what does not pass was all passed knowingly
    std::string reason{};          ///< the builder's, when passed knowingly
    std::string lapsed{};          ///< what has changed since it was passed knowingly, so that it bars again

    /// The worst of its evidence; not done without any.
    VerdictState state() const;
    /// Earned by evidence, or passed knowingly: either way the builder may go on.
    bool open() const { return state() == VerdictState::pass || passedKnowingly; }
    /// "61 of 96 pass, 2 fail": counts of the evidence in words.
    std::string summary() const;
};

/// The evidence that does not pass, as text to be kept with a reason: one line a thing, its state before it,
/// its value and uncertainty behind it where it was read.
std::string basisOf(const std::vector<Evidence>& evidence);

/// Whether a reason that was given on such a basis still speaks for this evidence: its state is no worse, and
/// what was read of it still holds and is about what it was (within both errors, or a twentieth). Of a text
/// without it, only what is no worse than not done; where nothing was kept at all, all that does not fail.
bool speaksFor(const std::string& basis, const Evidence& evidence);

/// What the builder's word was on a gate, or on one of its evidence.
struct GateWord {
    std::string reason, basis, forbids;
};

/// Put the builder's word on evidence that does not pass.
void accept(Evidence& evidence, const GateWord& word);

/// What is passed knowingly and what is not any more, from the words on its evidence.
void settle(Gate& gate);

struct Readiness {
    std::vector<Gate> gates;
    int earned() const;  ///< gates whose evidence passes
    int open() const;    ///< earned or passed knowingly
    bool fit() const { return !gates.empty() && open() == static_cast<int>(gates.size()); }
    /// The first gate that is not open, or null.
    const Gate* next() const;
};

}  // namespace ombrek
