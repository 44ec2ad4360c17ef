#include "core/meter/standing.h"

#include <algorithm>
#include <cmath>

namespace ombrek {

Standing::Standing(Unit unit, Flow flow, std::function<double(double)> error, int average)
    : unit_(unit), flow_(flow), error_(std::move(error)), average_(std::max(average, 1)) {}

/// Two displays that differ by a count are alike, whatever the data sheet says.
bool Standing::agrees(const Sample& sample) const {
    return std::all_of(run_.begin(), run_.end(), [&](const Sample& before) {
        if (before.kind != sample.kind || before.ac != sample.ac || before.dc != sample.dc) return false;
        if (sample.kind == Sample::Kind::overload) return before.value == sample.value;
        const double allowed = std::max({error_(sample.value), before.count, sample.count});
        return std::fabs(before.value - sample.value) <= allowed * (1 + 1e-9);
    });
}

Standing::State Standing::take(const Sample& sample) {
    unfit_ = unfit(sample, unit_, flow_);
    if (!unfit_.empty()) {
        others_ = true;
        run_.clear();
        return State::waiting;
    }
    if (sample.kind == Sample::Kind::reading) {
        low_ = seen_ == 0 ? sample.value : std::min(low_, sample.value);
        high_ = seen_ == 0 ? sample.value : std::max(high_, sample.value);
        ++seen_;
    }
    if (!agrees(sample)) {
        others_ = true;
        run_.clear();
    }
    run_.push_back(sample);
    if (int(run_.size()) < std::max(others_ ? kAlikeAfterOthers : kAlike, average_)) return State::waiting;
    value_ = run_.back();
    if (value_.kind == Sample::Kind::reading && average_ > 1) {
        double sum = 0;
        for (const Sample& s : run_) sum += s.value;
        value_.value = sum / double(run_.size());
    }
    return State::stands;
}

std::string Standing::why() const {
    if (!unfit_.empty()) return unfit_;
    if (seen_ == 0) return "it says nothing; is it switched on, and does it send?";
    if (seen_ < kAlike) return "it says too little to tell whether it stands.";
    return "it does not stand: " + formatQuantity(low_, unit_, 4) + " to " + formatQuantity(high_, unit_, 4) +
           "; are the clips firm?";
}

}  // namespace ombrek
