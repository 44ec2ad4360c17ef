#include "core/coil/lay.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace ombrek {

std::vector<LaidWinding> layWindings(const std::vector<WindingToLay>& windings, bool clockwise,
                                     double pitch) {
    constexpr double full = 2 * std::numbers::pi;
    constexpr double shared = full * 330 / 360, from = full * 210 / 360;
    const double sense = clockwise ? 1 : -1;
    double places = 0;
    for (const WindingToLay& w : windings) {
        if (!w.start) places += w.turns + 1;
    }
    const double place = shared / std::max(places, 8.0);
    double next = clockwise ? from : full - from;
    std::vector<LaidWinding> out;
    for (const WindingToLay& w : windings) {
        LaidWinding laid;
        if (w.start && w.finish) {
            laid.start = *w.start;
            double sweep = std::fmod(sense * (*w.finish - *w.start), full);
            if (sweep <= 0) sweep += full;
            laid.sweep = sense * sweep;
            laid.crowded = w.turns * pitch > sweep;
        } else {
            laid.start = next;
            laid.sweep = sense * place * w.turns;
            laid.crowded = w.turns * pitch > std::fabs(laid.sweep) * (full / shared);
            next += sense * place * (w.turns + 1);
        }
        out.push_back(laid);
    }
    return out;
}

}  // namespace ombrek
