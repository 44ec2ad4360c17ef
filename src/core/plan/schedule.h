#pragma once

#include <cstdint>
#include <functional>
#include <optional>
#include <vector>

#include "core/plan/pace.h"

namespace ombrek {

/// An evening kept free for the bench.
struct FreeTime {
    std::int64_t start = 0;  ///< seconds since 1970, UTC
    double minutes = 0;
};

/// When a build will be finished: the odds that it is done by the end of each free evening.
struct FinishOdds {
    std::vector<double> doneBy;  ///< as many as evenings given, rising; the last may be below 1
    int trials = 0;
    /// The first evening by whose end the odds reach a share; nothing if none does.
    std::optional<std::size_t> evening(double share) const;
};

/// Simulated schedules: each draws a pace and the minutes left, and fills the evenings in turn.
/// @param missed   chance that an evening comes to nothing, 0 … 1 (one in seven: common practice)
/// @param goOn     told how far it is, 0 … 1; false stops
/// @return nothing when stopped
std::optional<FinishOdds> finishOdds(const Pace& pace, const std::vector<WorkLeft>& left,
                                     const std::vector<FreeTime>& evenings, double missed, int trials,
                                     std::uint64_t seed, const std::function<bool(double)>& goOn = {});

}  // namespace ombrek
