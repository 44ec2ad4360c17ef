#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/meter/sample.h"

namespace ombrek {

/// Waits until what an instrument shows stands: three samples in a row that lie within the instrument's own
/// error of each other, and none of which is unfit; five where others were seen before them. A garbled number
/// that still parses does not come five times; one that wanders is told of rather than taken.
class Standing {
 public:
    /// @param error    what the instrument's own error is at a value [same unit]
    /// @param average  samples that go into the value once it stands
    Standing(Unit unit, Flow flow, std::function<double(double)> error, int average = 1);

    enum class State { waiting, stands };
    /// One more sample. @return how the value stands with it
    State take(const Sample& sample);
    /// @pre it stands
    const Sample& value() const { return value_; }
    /// Why it does not stand yet, as a sentence.
    std::string why() const;

    static constexpr int kAlike = 3, kAlikeAfterOthers = 5;

 private:
    bool agrees(const Sample& sample) const;

    Unit unit_;
    Flow flow_;
    std::function<double(double)> error_;
    int average_;
    std::vector<Sample> run_;  ///< alike, one after the other
    Sample value_;
    std::string unfit_;    ///< the last one, if it was
    bool others_ = false;  ///< some that were none, or that did not agree
    int seen_ = 0;
    double low_ = 0, high_ = 0;  ///< of all that were readings
};

}  // namespace ombrek
