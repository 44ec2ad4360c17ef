#pragma once

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <functional>

namespace ombrek {

/// The best time of a few runs, in ms.
inline double milliseconds(const std::function<void()>& work, int times = 5) {
    double best = 1e300;
    for (int i = 0; i < times; ++i) {
        const auto start = std::chrono::steady_clock::now();
        work();
        best = std::min(
            best,
            std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count());
    }
    return best;
}

/// A line of the result: a small case, a large one from the same run, and what is wanted of the large one.
inline void tell(const char* what, double small, double large, double wanted, const char* unit = "ms") {
    std::printf("%-52s %9.2f and %9.2f %s, ratio %6.1f; of the %g %s wanted %.2f\n", what, small, large, unit,
                large / small, wanted, unit, large / wanted);
}

}  // namespace ombrek
