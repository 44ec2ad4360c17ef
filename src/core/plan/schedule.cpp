#include "core/plan/schedule.h"

#include <random>

namespace ombrek {

std::optional<std::size_t> FinishOdds::evening(double share) const {
    for (std::size_t i = 0; i < doneBy.size(); ++i) {
        if (doneBy[i] >= share) return i;
    }
    return std::nullopt;
}

std::optional<FinishOdds> finishOdds(const Pace& pace, const std::vector<WorkLeft>& left,
                                     const std::vector<FreeTime>& evenings, double missed, int trials,
                                     std::uint64_t seed, const std::function<bool(double)>& goOn) {
    Pace::Draws draws(pace, left, seed);
    std::mt19937_64 engine(seed);
    std::vector<int> finished(evenings.size(), 0);
    for (int trial = 0; trial < trials; ++trial) {
        if (goOn && trial % 256 == 0 && !goOn(double(trial) / trials)) return std::nullopt;
        double minutes = draws.next();
        for (std::size_t i = 0; i < evenings.size(); ++i) {
            const bool lost = double(engine() >> 11) * 0x1.0p-53 < missed;
            if (!lost) minutes -= evenings[i].minutes;
            if (minutes <= 0) {
                ++finished[i];
                break;
            }
        }
    }
    FinishOdds out;
    out.trials = trials;
    int sum = 0;
    for (const int count : finished) out.doneBy.push_back(double(sum += count) / trials);
    return out;
}

}  // namespace ombrek
