#include <cmath>

#include "core/adjust/joint_null.h"
#include "core/adjust/peak.h"
#include "timing.h"

// The fifth station after a reading: where to turn next, of few readings and of many.

using namespace ombrek;

int main() {
    const auto peakOf = [](int count) {
        std::vector<AdjusterReading> out;
        // Two humps, which are the most work.
        for (int i = 0; i < count; ++i) {
            const double x = (i + 0.5) / count, s = (x - 0.5) / 0.06;
            out.push_back(
                {x, 4 / std::sqrt(std::pow(5 - s * s, 2) + 4 * s * s) * (1 + 0.01 * ((i * 7) % 5 - 2))});
        }
        return out;
    };
    const auto few = peakOf(5), many = peakOf(15);
    tell("where to turn next for a peak, of 5 and of 15", milliseconds([&] { (void)estimatePeak(few); }),
         milliseconds([&] { (void)estimatePeak(many); }), 20);
    const auto nullOf = [](int count) {
        std::vector<NullReading> out;
        for (int i = 0; i < count; ++i) {
            const double a = 0.1 + 0.8 * ((i * 37) % 100) / 100.0, b = 0.1 + 0.8 * ((i * 61) % 100) / 100.0,
                         c = 0.1 + 0.8 * ((i * 83) % 100) / 100.0;
            out.push_back(
                {{a, b, c},
                 10 * std::log10(std::pow(a - 0.4, 2) + std::pow(b - 0.6, 2) + std::pow(c - 0.5, 2) + 1e-5)});
        }
        return out;
    };
    const auto five = nullOf(5), forty = nullOf(40);
    tell("where to turn next for a null of three, of 5 and of 40",
         milliseconds([&] { (void)jointNull(five, 3); }), milliseconds([&] { (void)jointNull(forty, 3); }),
         100);
    return 0;
}
