#include "picture/turn_count.h"

#include <chrono>
#include <cstdio>

#include "picture/draw_coil.h"

// Turns counted in a picture of 12 megapixels, beside one of 3 from the same drawing.

using namespace ombrek;

namespace {

double seconds(const Picture& picture, int& count) {
    double best = 1e300;
    for (int i = 0; i < 3; ++i) {
        const auto start = std::chrono::steady_clock::now();
        const auto found = countTurns(picture);
        count = found ? found->count : 0;
        best =
            std::min(best, std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count());
    }
    return best;
}

}  // namespace

int main() {
    DrawnCoil coil;
    coil.turns = 24;
    int small = 0, large = 0;
    coil.size = 1732;
    const double three = seconds(drawCoil(coil), small);
    coil.size = 3464;
    const double twelve = seconds(drawCoil(coil), large);
    std::printf(
        "24 turns in 3 and 12 megapixels (%d and %d found) %.2f and %.2f s, ratio %.1f; of the 2 s wanted "
        "%.2f\n",
        small, large, three, twelve, twelve / three, twelve / 2);
    return 0;
}
