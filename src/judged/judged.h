#pragma once

#include <functional>
#include <map>
#include <optional>
#include <string_view>
#include <vector>

#include "core/proof/readiness.h"
#include "station/board/board.h"
#include "station/parts_in/bag_story.h"
#include "station/parts_in/parts_in.h"
#include "station/proof/proof.h"
#include "station/tune/tune.h"

namespace ombrek {

/// How a build stands against its kit: each thing is judged once, when it is first asked for.
///
/// Made anew after every change of the book. Whatever shows or reports the same moment shares one, so that a
/// page, the wire, the gates and the report cannot say different things, and none reckons what another has.
/// Holds references: kit and build must outlive it. One thread. Members that rest on what is said of a whole
/// Judged stand with it: bag and partsInOrder in bag.cpp, readiness in sign_off.cpp.
class Judged {
 public:
    Judged(const Kit& kit, const Build& build, LimitProfile profile = {})
        : kit_(kit), build_(build), profile_(std::move(profile)) {}

    /// Keep what a change cannot have touched. @param before  of the same kit and build, before the change;
    /// it ends with this @param touched  whether rows of a record of the book were written
    void takeOver(Judged&& before, const std::function<bool(std::string_view record)>& touched);

    const Kit& kit() const { return kit_; }
    const Build& build() const { return build_; }
    const LimitProfile& profile() const { return profile_; }

    /// The building order as indices into kit().steps; empty when the steps wait for each other in a ring.
    const std::vector<std::size_t>& order() const;

    /// @param part  one of kit().parts, not a copy
    const Verdict& part(const Part& part) const;
    const BagCount& bag() const;
    const std::vector<const Part*>& partsInOrder() const;
    const BagStory& story() const;
    /// Tell this story instead of reckoning one: a large bag is weighed elsewhere.
    void adopt(BagStory story) const { story_.set(std::move(story)); }
    bool storyTold() const { return story_.known(); }

    /// @param coil  one of kit().coils
    const Verdict& coil(const Coil& coil) const;
    /// @param check  one of kit().checks
    const Verdict& check(const Check& check) const;
    /// @param adjustment  one of kit().adjustments
    const TuneState& tune(const Adjustment& adjustment) const;
    /// Of a band; without a name the first, which is the only one of most rigs.
    const ProofState& proof(const std::string& band = "") const;
    const PlanTime& planTime() const;
    const Readiness& readiness() const;

 private:
    /// A value that is reckoned when it is first asked for.
    template <class T>
    class Once {
     public:
        template <class Reckon>
        const T& of(Reckon reckon) const {
            if (!value_) value_.emplace(reckon());
            return *value_;
        }
        void set(T value) const { value_ = std::move(value); }
        bool known() const { return value_.has_value(); }

     private:
        mutable std::optional<T> value_;
    };

    const Kit& kit_;
    const Build& build_;
    LimitProfile profile_;
    Once<std::vector<std::size_t>> order_;
    Once<std::vector<Verdict>> parts_, coils_, checks_;
    Once<BagCount> bag_;
    Once<std::vector<const Part*>> partsInOrder_;
    Once<BagStory> story_;
    Once<std::vector<TuneState>> tunes_;
    mutable std::map<std::string, ProofState> proofs_;  ///< by band
    Once<Pace::Left> timeLeft_;
    Once<PlanTime> planTime_;
    Once<Readiness> readiness_;
};

}  // namespace ombrek
