#include "core/coil/air_core.h"

#include <cmath>
#include <stdexcept>

namespace ombrek {

double airCoreInductance(double radius, double length, int turns) {
    if (!(radius > 0) || !(length > 0) || turns < 1)
        throw std::domain_error("radius, length and turns are positive");
    constexpr double kInch = 25.4e-3;
    const double r = radius / kInch, l = length / kInch;
    return r * r * turns * turns / (9 * r + 10 * l) * 1e-6;
}

int airCoreTurns(double radius, double pitch, double inductance) {
    if (!(inductance > 0) || !(pitch > 0)) throw std::domain_error("inductance and pitch are positive");
    const auto at = [&](int turns) { return airCoreInductance(radius, pitch * turns, turns); };
    int turns = 1;
    while (turns < 10000 && at(turns) < inductance) ++turns;
    return turns > 1 && inductance - at(turns - 1) < at(turns) - inductance ? turns - 1 : turns;
}

}  // namespace ombrek
